"""Binding a wound band before its head is made: with the short tail, or with both tails."""

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Literal

from pliant_coil.core.mechanics.hulls import row_at
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import LOCKS, End, Ledger, Slot
from pliant_coil.core.styles.strips import Strip
from pliant_coil.core.styles.tasks import Phase, Task, reads
from pliant_coil.core.words.figures import Times
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

Gather = Literal["none", "short-tail", "under-pass", "tail-wraps"]
Winding = Literal["both-ways", "one-way"]
StrandZ = Callable[[float], tuple[float, ...]]


def early_wraps(gather: Gather, wraps: int | None) -> float:
    """Wraps that lie on a shoulder before the head is made."""
    if gather == "none":
        return 0
    if gather == "under-pass":
        return 0.5
    return wraps or (3 if gather == "short-tail" else 1)


def check_gather(gather: Gather, winding: Winding) -> None:
    """Raise `Refusal` for a way of binding that this winding doesn't have."""
    if gather == "short-tail" and winding == "both-ways":
        refuse("band.gather", "a band wound both ways has no short tail", "none, under-pass or tail-wraps")
    if gather in ("under-pass", "tail-wraps") and winding == "one-way":
        refuse("band.gather", "a band wound one way is bound with its short tail", "none or short-tail")


def bind_early(
    gather: Gather, wraps: float, ends: list[End], strip: Strip, inside_mm: float, strand_z: StrandZ
) -> tuple[dict[tuple[str, str], Placed], list[End], Ledger]:
    """The wraps of the tails that bind the band, by their ends; the ends as they then stand, without a short tail; and the ledger."""
    found = {}
    ledger = Ledger()
    stand = {end.key: end for end in ends}
    for end in ends[:1] if gather == "short-tail" else ends if gather != "none" else []:
        turned = end.side == "left"
        angle = abs(math.atan2(end.at[0], end.at[1]))
        zs = strand_z(-angle if turned else angle)
        bundle = row_at(strip.wire.profile, tuple(-z for z in zs) if turned else zs)
        edge = -1 if (-end.at[2] if turned else end.at[2]) < 0 else 1
        wrap = Wrap(
            "under all turns" if gather == "under-pass" else "bind",
            wraps,
            bundle,
            strip.wire.profile,
            inside_mm / 2,
            angle,
            start=(edge * 1e3, strip.stands_mm),
            inside_mm=strip.wire.height_mm,
            cause=LOCKS,
            host="the band",
        )
        found[end.key] = Placed(f"{end.name}.early", wrap, worked=strip.worked, turned=turned, backwards=end.which == "first")
        ledger = ledger.wrapped(end.side, wraps, angle + wrap.advance_mm / (inside_mm / 2))
        x, y, z = wrap.ends
        stand[end.key] = replace(end, at=(-x, y, -z) if turned else (x, y, z))
        if gather == "short-tail":
            del stand[end.key]
    return found, list(stand.values()), ledger


def with_early(moves: list[Placed], slot: Slot, early: dict[tuple[str, str], Placed]) -> tuple[list[Placed], Slot]:
    """A piece's moves with the early wraps at their ends, and where its slot is then."""
    if not early:
        return moves, slot
    first, last = [p for k, p in early.items() if k[1] == "first"], [p for k, p in early.items() if k[1] == "last"]
    return [*first, *moves, *last], replace(slot, index=slot.index + len(first))


def gathering(gather: Gather, wraps: float, makes: tuple[str, ...]) -> list[Task]:
    """The task that binds the band."""
    if not makes:
        return []
    if gather == "under-pass":
        says = Say("Kink each tail close to the mandrel, push its bend, not its tip, under all turns beside the head, and pull it through.")
    elif gather == "tail-wraps":
        says = say("Off the mandrel, wrap each tail {times} round its shoulder, close beside the head.", times=Times(wraps))
    else:
        says = say(
            "Off the mandrel, bend the short tail square and wrap it {times} round all the wires at its shoulder, towards the back.",
            times=Times(wraps),
        )
    back = Say("Too big: wind it again. Too small: stretch it on the mandrel before you go on.")
    return [Task("gather", Phase.GATHER, says, makes=makes, checks=(reads(0.15, back),), cautions=(cautions.LAST_EASY,))]

"""A cage at the bench: pass by pass, each locked, then jogged tight."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.mechanics.curves import length_mm
from pliant_coil.core.mechanics.motifs import CRESCENT_RODS_MM, LOOP_ROD_MM, LOOPS_HIGH_MM
from pliant_coil.core.moves.passing import LoosePass
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Length, Thickness, Times
from pliant_coil.core.words.say import NOTHING, Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.cage import Cage, Facts


def tasks(style: Cage, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    facts: Facts = work.facts
    placed = {p.id: p for led in work.onward.values() for p in led}
    d = facts.wire_mm
    slot = style.order == "slot-first" or (style.order is None and style.stone.length_mm < 14 and d < 0.9)
    start = (
        "Take each tail once through the ring beside the top and over to the other side; slip the stone in between."
        if slot
        else "Bend both tails to opposite sides; the stone sits on the band between them, its flat side down."
    )
    tasks = _anchoring(band, work) if work.pieces else []
    tasks += [Task("set-stone", Phase.HEAD, Say(start), checks=(look("It sits level."),), cautions=(cautions.STONE,), stage="cage")]
    for k, (spec, side, name) in enumerate(facts.passes, 1):
        lock = next(i for i in placed if i.endswith(f"lock.{k}"))
        wraps = placed[lock].move.count or 1
        figure = tuple(i for i in placed if i.endswith("motif")) if k == len(facts.passes) else ()
        makes = (name, *figure, *(f"{name}.down" for _ in figure), lock)
        way = {
            "diagonal": "from its front corner to the far back one",
            "other-diagonal": "from its back corner to the far front one",
        }.get(spec.over, f"over the {spec.over}")
        tasks.append(
            Task(
                f"pass-{k}",
                Phase.HEAD,
                say(
                    "Pass {k} of {n}: the tail that stands on the {side}, {way} of the stone, down the other side, through the ring and {times} round the band close to the stone; {length} of wire.{motif}",
                    k=str(k),
                    n=str(len(facts.passes)),
                    side=side,
                    way=way,
                    times=Times(wraps),
                    length=Length(sum(placed[i].length_mm for i in makes)),
                    motif=_motif_words(style, d) if k == len(facts.passes) and style.motif != "none" else NOTHING,
                ),
                makes=makes,
                checks=(
                    look(
                        "It holds, and may be loose: where can the stone still get out? The next pass goes there.",
                        "Tail too short for the next: end it here with one wrap more.",
                    ),
                    *((reads(0.15),) if k == len(facts.passes) else ()),
                ),
                stage="cage",
            )
        )
    ends = tuple(i for i in placed if i.endswith(".lock"))
    if ends:
        led = tuple(i for i in placed if i.endswith(".to-lock"))
        where = (
            say(" {way} further down, at the band's edge beside the locks", way=Length(sum(placed[i].length_mm for i in led)))
            if led
            else Say(" where it came up")
        )
        tasks.append(
            Task(
                "lock-tail",
                Phase.LOCK,
                say("Wrap the other tail {times} round the band{where}.", times=Times(band.form.locks), where=where),
                makes=(*led, *ends),
                stage="lock",
            )
        )
    tasks += [
        Task(
            "trim",
            Phase.TRIM,
            Say("Cut each tail flush on the outer face and press it in."),
            checks=(look("A finger finds no end."),),
            cautions=(cautions.CUT, cautions.EDGES),
        ),
    ]
    jogs = sum(p.move.jogs for p in placed.values() if isinstance(p.move, LoosePass))
    if jogs:
        tasks.append(
            Task(
                "jogs",
                Phase.ROUND,
                say(
                    "Bigger round pliers across each pass, a short twist: a jog of {swing} over {long}. About {n} on each pass, also on those underneath; none on a lock.",
                    swing=Thickness(style.jog_mm),
                    long=Thickness(style.jog_length_mm),
                    n=Count(math.ceil(jogs / len(facts.passes)), "jog", "jogs"),
                ),
                checks=(
                    look(
                        "It presses on the stone and doesn't rattle, pushed from all six sides.",
                        "Another jog, or a pass with what is left.",
                    ),
                ),
                cautions=(cautions.STONE,),
                stage="tighten",
            )
        )
    return tasks


def _anchoring(band: FormedBand, work: HeadWork) -> list[Task]:
    """The cage's own wire on a band that is closed already."""
    (piece,) = work.pieces
    wraps = next(p.move.count or 1 for p in piece.moves if p.id.endswith("anchor"))
    return [
        Task(
            "anchor",
            Phase.HEAD,
            say(
                "Lay the {role} wire's middle mark on the band's top, along it, and wrap each end {times} round the band, {chord} from the mark, away from it, in through the ring and "
                "up on the outside.",
                role=piece.role,
                times=Times(wraps),
                chord=Length(next(p.move.length_mm for p in piece.moves if p.id.endswith("under")) / 2),
            ),
            makes=tuple(p.id for p in piece.moves),
            checks=(look("As many on both sides; it doesn't slide on the band."), reads(0.15)),
            stage="cage",
        )
    ]


def _motif_words(style: Cage, d: float) -> Say:
    figure = style.figure(d)
    bends = {
        "two-loops": "bend it up square, once round the {rod} rod {high} up, {high} across, once round it again, and down",
        "spiral": "roll it into a flat spiral of two turns, and bring it out of the middle over the coils",
        "wave": "bend three waves, twice as high as a jog",
        "crescent": "bend it over the {outer} rod almost to a ring and back inside on the {inner} one, to where it began",
    }[style.motif]
    return say(
        f" On top, before it goes down, {bends}, close to the stone: {{long}} more.",
        rod=Thickness(LOOP_ROD_MM),
        high=Length(LOOPS_HIGH_MM),
        outer=Thickness(CRESCENT_RODS_MM[0]),
        inner=Thickness(CRESCENT_RODS_MM[1]),
        long=Length(length_mm(figure) - figure[-1][0]),
    )

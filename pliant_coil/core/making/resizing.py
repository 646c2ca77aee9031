"""A finished ring made larger or smaller: what each way can give on this ring, and what it can't.

A finished ring has no tails left: what a way needs must come from what is in it.
"""

import math
from dataclasses import dataclass

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.styles.contract import SizedBy
from pliant_coil.core.trade.sizes import US_STEP_MM, MandrelMark, Size, SizeChange
from pliant_coil.core.words.figures import Length, Times
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Say, say

_CLOSE_MM = 0.02
_LEAST_LOCKS = 1


@dataclass(frozen=True)
class Way:
    """One way to resize: whether it reaches the wanted size, what it can give at most [inside diameter, mm], and what is done."""

    code: str
    reaches: bool
    low_mm: float
    high_mm: float
    says: Say


def resize(ring: Ring, wanted_mm: float) -> list[Way]:
    """Every way for this ring, those that reach `wanted_mm` [inside diameter] first."""
    solver = Solver(ring)
    made = solver.made(solver.solved(ring.aim_mm)[0].form)
    ways = [_stretch(made, wanted_mm), _overlap(made, wanted_mm), _slide(made, wanted_mm), _lock_again(solver, made, wanted_mm)]
    return sorted((way for way in ways if way), key=lambda way: not way.reaches)


def _way(code: str, wanted: float, low: float, high: float, done: Say, cant: Say) -> Way:
    reaches = low - _CLOSE_MM <= wanted <= high + _CLOSE_MM
    return Way(code, reaches, low, high, done if reaches else cant)


def _stretch(made: MadeRing, wanted: float) -> Way | None:
    """On a tapered mandrel with a soft mallet: only ever larger."""
    now = made.finished_mm
    most = made.ring.band.stretches_us * US_STEP_MM
    if not most:
        return None
    mind = Say("Never strike above the stone.") if made.stones else Say("")
    care = Say("The coat may flake: tap it only where it lies on the mandrel.") if made.ring.main_wire.metal.coated else Say("")
    done = say(
        "Stretch it on the mandrel to {size} with a soft mallet, turning it end for end: it gives {most} at most.",
        size=Size(wanted),
        most=SizeChange(most),
    )
    smaller = Say("A mandrel only makes it larger.") if wanted < now else say("Stretching gives {most} at most.", most=SizeChange(most))
    return _way("stretch", wanted, now, now + most, done + mind + care, smaller)


def _overlap(made: MadeRing, wanted: float) -> Way | None:
    """An open band takes another size by its overlap."""
    band = made.ring.band
    span = band.adjusts_mm(made.band)
    if span is None:
        return None
    moved = math.pi * abs(wanted - made.finished_mm)
    way = (
        "squeeze it until its ends pass each other by so much more"
        if wanted < made.finished_mm
        else "open it until they pass by so much less"
    )
    done = say(f"Lay it on the mandrel at {{size}} and {way}: {{moved}}.", size=Size(wanted), moved=Length(moved))
    cant = say("Its ends let it be worn from {low} to {high}, no further.", low=Size(span[0]), high=Size(span[1]))
    return _way("overlap", wanted, span[0], span[1], done, cant)


def _slide(made: MadeRing, wanted: float) -> Way | None:
    """Turns that nothing ties slip on a tapered mandrel, as far as their ends pass each other at the top."""
    if made.band.sized_by is not SizedBy.MARK or made.band.tied or made.work.tied or not made.band.ends:
        return None
    past = sum(abs(math.atan2(end.at[0], end.at[1])) for end in made.band.ends) * made.band.radius_mm
    most = past / math.pi / made.band.strands
    now = made.finished_mm
    done = say(
        "Push it down the taper to {size}, a little at a time, both ends held: its turns slip, nothing ties them.", size=Size(wanted)
    )
    cant = say("Its ends pass each other by {past}: sliding gives {most} at most.", past=Length(past), most=SizeChange(most))
    return _way("slide", wanted, now - most, now + most, done, cant)


def _lock_again(solver: Solver, made: MadeRing, wanted: float) -> Way | None:
    """The locks unwound, the band formed again, and locked with what wire there is."""
    locked = [p for piece in made.pieces for p in piece.moves if p.id.endswith(".lock")]
    if not locked or made.band.sized_by is not SizedBy.MARK:
        return None
    there = _net_mm(made)
    now = made.finished_mm
    for locks in range(solver.ring.locks, _LEAST_LOCKS - 1, -1):
        again = _made_again(solver.ring, wanted, locks)
        if again is None or _net_mm(again) > there + _CLOSE_MM:
            continue
        over = there - _net_mm(again)
        done = say(
            "Unwind the locks, form it again at {start}, lock it {times} each side; {over} of wire is left over. Wire that was wrapped is harder: anneal it, or "
            "bend it slowly.",
            start=MandrelMark(again.form.diameter_mm),
            times=Times(locks),
            over=Length(over),
        )
        return Way("lock-again", True, min(now, wanted), max(now, wanted), done)
    short = _made_again(solver.ring, wanted, _LEAST_LOCKS)
    missing = _net_mm(short) - there if short else 0.0
    return Way(
        "lock-again", False, now, now, say("Even locked once each side the wire in it is {missing} too short.", missing=Length(missing))
    )


def _made_again(ring: Ring, wanted: float, locks: int) -> MadeRing | None:
    document = ring.file.model_copy(update={"finish": ring.finish.model_copy(update={"wraps_each_side": locks})})
    solver = Solver(Ring(document, wanted, ring.target_reason, ring.asked_in, ring.wires, ring.from_reel))
    try:
        return solver.made(solver.solved(wanted)[0].form)
    except Refusal:
        return None


def _net_mm(made: MadeRing) -> float:
    """Wire of the main role that is in the ring."""
    return sum(piece.net_mm for piece in made.pieces if piece.role == made.ring.band.main_role)

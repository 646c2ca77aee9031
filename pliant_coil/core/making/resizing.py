"""A finished ring made larger or smaller: what each way can give on this ring, and what it can't.

A finished ring has no tails left: what a way needs must come from what is in it.
"""

import math
from collections.abc import Mapping

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.making.solve import Solver, formed_where
from pliant_coil.core.mechanics.hammering import MOST_FLATTENED, hammered_to_mm, lengthened
from pliant_coil.core.moves.base import Cause, Obstacle
from pliant_coil.core.moves.inside import largest_circle
from pliant_coil.core.styles.handed_on import SizedBy
from pliant_coil.core.trade.metals import Temper
from pliant_coil.core.trade.sizes import US_STEP_MM, MandrelMark, Size, SizeChange
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Length, Share, Thickness, Times
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Say, say

_CLOSE_MM = 0.02
_LEAST_LOCKS = 1
_PRESSES_US: Mapping[Temper, float] = {"soft": 0.25, "half-hard": 0.125}
_SPRINGS = 0.01
"""Uniform strain under which a wire springs back instead of giving."""
_MALLET_US = 0.5
"""US sizes that a soft mallet gives (common practice, no source)."""
_BARE_MM = 0.01
BACK = Cause("back-wrap", "a wrap at the back")
BACK_WIRES_MM = (0.3, 0.4)
WAYS = {
    "stretch": "stretched",
    "overlap": "set by its overlap",
    "slide": "slid down the taper",
    "lock-again": "locked again",
    "hammer": "its back hammered",
    **{f"back-{round(10 * mm)}": "a wrap at the back" for mm in BACK_WIRES_MM},
    "splice": "a new piece of wire",
    "accept": "another finger's",
}
"""What was done, in the record's words."""


@dataclass(frozen=True)
class Way:
    """One way to resize: whether it reaches the wanted size, what it can give at most [inside diameter, mm], and what is done."""

    code: str
    reaches: bool
    low_mm: float
    high_mm: float
    says: Say


def resize(made: MadeRing, wanted_mm: float, reads_mm: float | None = None) -> list[Way]:
    """Every way for a finished ring, those that reach `wanted_mm` [inside diameter] first.

    `reads_mm` is what it reads; as it was planned unless given.
    """
    now = made.finished_mm
    if reads_mm is not None:
        now, made = reads_mm, formed_where(made, lambda each: each.finished_mm, reads_mm) or made
    ways = [
        stretch(made, now, wanted_mm),
        _overlap(made, now, wanted_mm),
        _slide(made, now, wanted_mm),
        _lock_again(made, now, wanted_mm),
        _hammer_back(made, now, wanted_mm),
        *(_back_wrap(made, now, wanted_mm, wire_mm) for wire_mm in BACK_WIRES_MM),
    ]
    return sorted((way for way in ways if way), key=lambda way: not way.reaches)


def presses_mm(wire: Wire) -> float:
    """What pressing a ring of this wire down a taper by hand gives, in diameter (common practice, no source)."""
    return _PRESSES_US.get(wire.temper, 0.0) * US_STEP_MM if wire.metal.uniform[wire.temper] > _SPRINGS else 0.0


def with_back_wrap(made: MadeRing, wire_mm: float) -> float:
    """Inside diameter [mm] that is left once a wire of this diameter is wrapped round the band at the back."""
    circle = made.band.inside_mm / 2
    half = wire_mm / circle
    back = Obstacle(BACK, math.pi - half, math.pi + half, wire_mm)
    return 2 * largest_circle(circle, [*made.obstacles, back]).radius_mm


def _way(code: str, wanted: float, low: float, high: float, done: Say, cant: Say) -> Way:
    reaches = low - _CLOSE_MM <= wanted <= high + _CLOSE_MM
    return Way(code, reaches, low, high, done if reaches else cant)


def stretch(made: MadeRing, now: float, wanted: float) -> Way | None:
    """On a tapered mandrel, pressed by hand and then with a soft mallet: only ever larger, and no further than its wire stands."""
    gives = made.ring.band.stretches_us
    if not gives:
        return None
    wire = made.ring.main_wire
    stands = wire.metal.uniform[wire.temper] / 2
    most = min(max(gives, _MALLET_US) * US_STEP_MM, stands * now)
    strain = Share(abs(wanted - now) / now, 1)
    pressed = presses_mm(wire)
    if wanted - now <= pressed + _CLOSE_MM:
        how = "Press it down the mandrel, turning it end for end,"
    elif pressed:
        how = "Press it down the mandrel {pressed}, tap the rest with a soft mallet, turned end for end,"
    else:
        how = "Tap it down the mandrel with a soft mallet, turned end for end,"
    done = say(
        f"{how} to {{size}}: that strains its wire by {{strain}}, it stands {{stands}}. It gives {{most}} at most.",
        size=Size(wanted),
        pressed=SizeChange(pressed),
        strain=strain,
        stands=Share(stands, 1),
        most=SizeChange(most),
    )
    if made.stones:
        done += Say("Never strike above the stone.")
    if wire.metal.coated:
        done += Say("The coat may flake: tap it only where it lies on the mandrel.")
    cant = (
        Say("A mandrel only makes it larger; nobody presses a closed ring smaller.")
        if wanted < now
        else say(
            "Stretching gives {most} at most: its wire stands {stands} of strain, this would be {strain}.",
            most=SizeChange(most),
            stands=Share(stands, 1),
            strain=strain,
        )
    )
    return _way("stretch", wanted, now, now + most, done, cant)


def _hammer_back(made: MadeRing, now: float, wanted: float) -> Way | None:
    """The half of the band away from the head hammered flatter: larger, where no coat, weave or solder forbids it."""
    wire = made.ring.main_wire
    if wanted <= now or wire.metal.coated or made.band.lining_mm > _BARE_MM or made.band.sized_by is not SizedBy.MARK:
        return None
    before, half = wire.height_mm, math.pi * made.band.radius_mm
    most = half * (lengthened(1.0, 1 - MOST_FLATTENED) - 1) / math.pi
    thickness = hammered_to_mm(before, 1 + math.pi * (wanted - now) / half)
    done = say(
        "Hammer the half away from the head evenly from {before} to {after}, on a steel mandrel, a little at a time, and read it after each round.",
        before=Thickness(before),
        after=Thickness(thickness),
    )
    cant = say("Hammering its back gives {most} at most before the wire cracks.", most=SizeChange(most))
    return _way("hammer", wanted, now, now + most, done, cant)


def _back_wrap(made: MadeRing, now: float, wanted: float, wire_mm: float) -> Way | None:
    """A wrap of thin wire round the band at the back: smaller, never gone, and it shows."""
    if wanted >= now or made.ring.band.adjusts_mm(made.band):
        return None
    left = now + with_back_wrap(made, wire_mm) - made.finished_mm
    text = say("One wrap of {wire} wire round the back leaves {size}. It shows there.", wire=Thickness(wire_mm), size=Size(left))
    return Way(f"back-{round(10 * wire_mm)}", abs(left - wanted) <= US_STEP_MM / 4, left, now, text)


def _overlap(made: MadeRing, now: float, wanted: float) -> Way | None:
    """An open band takes another size by its overlap."""
    band = made.ring.band
    span = band.adjusts_mm(made.band)
    if span is None:
        return None
    moved = math.pi * abs(wanted - now)
    way = "squeeze it until its ends pass each other by so much more" if wanted < now else "open it until they pass by so much less"
    done = say(f"Lay it on the mandrel at {{size}} and {way}: {{moved}}.", size=Size(wanted), moved=Length(moved))
    cant = say("Its ends let it be worn from {low} to {high}, no further.", low=Size(span[0]), high=Size(span[1]))
    return _way("overlap", wanted, span[0], span[1], done, cant)


def _slide(made: MadeRing, now: float, wanted: float) -> Way | None:
    """Turns that nothing ties slip on a tapered mandrel, as far as their ends pass each other at the top."""
    if made.band.sized_by is not SizedBy.MARK or made.band.tied or made.work.tied or not made.band.ends:
        return None
    past = sum(abs(math.atan2(end.at[0], end.at[1])) for end in made.band.ends) * made.band.radius_mm
    most = past / math.pi / made.band.strands
    done = say(
        "Push it down the taper to {size}, a little at a time, both ends held: its turns slip, nothing ties them.", size=Size(wanted)
    )
    cant = say("Its ends pass each other by {past}: sliding gives {most} at most.", past=Length(past), most=SizeChange(most))
    return _way("slide", wanted, now - most, now + most, done, cant)


def _lock_again(made: MadeRing, now: float, wanted: float) -> Way | None:
    """The locks unwound, the band formed again, and locked with what wire there is."""
    locked = [p for piece in made.pieces for p in piece.moves if p.id.endswith(".lock")]
    if not locked or made.band.sized_by is not SizedBy.MARK:
        return None
    there = _net_mm(made)
    for locks in range(made.ring.locks, _LEAST_LOCKS - 1, -1):
        again = _made_again(made.ring, wanted, locks)
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
    short = _made_again(made.ring, wanted, _LEAST_LOCKS)
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

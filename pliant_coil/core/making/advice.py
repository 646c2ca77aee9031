"""What a good friend at the bench would say about a plan: warnings, each with the field that would mend it."""

import math

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.surface import advise_surface
from pliant_coil.core.making.wearing import advise_wearing
from pliant_coil.core.mechanics.bending import crushing_force_n, plastic_moment
from pliant_coil.core.mechanics.packing import hole_needed_mm, passes_that_fit
from pliant_coil.core.styles.handed_on import Joined, Warn
from pliant_coil.core.styles.stones import PlacedStone
from pliant_coil.core.trade.mandrels import RANGE_MM
from pliant_coil.core.trade.sizes import US_STEP_MM, Size, SizeChange
from pliant_coil.core.words.figures import Length, Newtons, Share, Thickness, Tolerance
from pliant_coil.core.words.say import Say, say

FLIMSY_BELOW_N = 2.0
"""A closed band that folds under this force is flimsy (common practice, no source)."""
FINGERS_ABOVE_N_MM = 20.0
"""Plastic moment beyond which wire is turned with pliers (common practice, no source)."""
DRAWN_BY_N = {"fingers": 40.0, "pliers": 150.0}
"""Pull that a hand keeps up, wrap after wrap, on a wire that it holds so (common practice, no source)."""
WIDE_MM = ((6.0, 0.5), (4.0, 0.25))
"""Bands from this width are worn with so many US sizes of room, when the maker wants it (common practice, no source)."""
_SPRINGS_MOST_US = 2.0
_CRACKS_AT = {"soft": 0.6, "hard": 0.35}
"""Surface strain at which wire that is bent once may crack, annealed and not (values from memory)."""


def advise(made: MadeRing) -> list[Warn]:
    """All warnings for a ring."""
    ring = made.ring
    found = list(ring.doubts)
    for stone in made.drilled:
        found += _hole(stone)
    found += ring.band.advise(made.band, made.opening)
    found += ring.head.advise(made.band, made.work)
    found += _pull(made)
    found += _strain(made)
    if not made.band.absent:
        found += _stiffness(made)
        found += _size(made)
        found += advise_wearing(made)
    found += advise_surface(made)
    found += [Warn("metal-care", Say(wire.metal.care), f"wires.{role}.metal") for role, wire in ring.wires.items() if wire.metal.care]
    return found


def hole_needed(stone: PlacedStone) -> float:
    """Hole diameter [mm] that the wires passing a stone need."""
    return max((hole_needed_mm(wire.profile.passing_mm, passes) for wire, passes in stone.passing), default=0.0)


def _hole(stone: PlacedStone) -> list[Warn]:
    if stone.hole_mm is None or stone.hole_mm >= hole_needed(stone) - 1e-9:
        return []
    wire, passes = stone.passing[0]
    fit = passes_that_fit(wire.profile.passing_mm, stone.hole_mm)
    takes = "doesn't take this wire at all" if not fit else f"takes {fit} of this wire, not {passes}"
    text = say(
        f"The {{hole}} hole {takes}: it needs {{needed}}. Use a finer wire, or open the hole and try again.",
        hole=Thickness(stone.hole_mm),
        needed=Thickness(math.ceil(hole_needed(stone) * 100) / 100),
    )
    return [Warn("bead-hole-too-small", text, stone.field)]


def _stiffness(made: MadeRing) -> list[Warn]:
    ring, band = made.ring, made.band
    role = ring.main_role
    wire = ring.main_wire
    found = []
    closed = band.joined is not Joined.OPEN
    force = crushing_force_n(made.form.diameter_mm, wire.profile, yield_mpa=wire.yield_mpa, strands=band.strands, closed=closed)
    if closed and force < FLIMSY_BELOW_N:
        text = say(
            "A band of so little wire folds at {force}, a light squeeze. Thicker or harder wire holds, or more of it side by side.",
            force=Newtons(force),
        )
        found.append(Warn("band-flimsy", text, f"wires.{role}.diameter"))
    if plastic_moment(wire.profile, wire.yield_mpa) > FINGERS_ABOVE_N_MM:
        found.append(
            Warn(
                "too-stiff-for-fingers",
                Say("This wire is stiff for fingers: bend it with pliers, their jaws taped, or a mallet."),
                f"wires.{role}.diameter",
            )
        )
    return found


def _pull(made: MadeRing) -> list[Warn]:
    """What the tightest wrap asks of a hand: a wire yields round a radius r when it is drawn with Mp/r."""
    held = "fingers" if made.ring.file.sizing.tail == "fingers" else "pliers"
    pulls = [
        (plastic_moment(piece.wire.profile, piece.wire.yield_mpa) / bent_to_mm, piece.role)
        for piece in made.pieces
        for placed, bent_to_mm in piece.bends
        if placed.move.hand in ("wrap", "weave")
    ]
    force, role = max(pulls, default=(0.0, ""))
    if force <= DRAWN_BY_N[held]:
        return []
    other = "Pliers, or softer or thinner wire, take less." if held == "fingers" else "Softer or thinner wire takes less."
    text = say(
        f"Drawing the {{role}} wire's wraps tight takes about {{force}}: more than {held} keep up, wrap after wrap. {other}",
        role=role,
        force=Newtons(force),
    )
    return [Warn("wraps-too-stiff", text, "sizing.tail" if held == "fingers" else f"wires.{role}.diameter")]


def _strain(made: MadeRing) -> list[Warn]:
    """What cracks: the outer fibre of a wire of height h bent to a neutral radius r is stretched by h/2r."""
    found: dict[str, Warn] = {}
    for piece in made.pieces:
        wire = piece.wire
        soft = wire.temper == "soft"
        limit = _CRACKS_AT["soft" if soft else "hard"]
        placed, bent_to_mm = min(piece.bends, key=lambda bend: bend[1], default=(None, math.inf))
        strain = wire.height_mm / 2 / bent_to_mm
        if placed is None or strain <= limit + 1e-9:
            continue
        field = f"wires.{piece.role}.{'diameter' if soft else 'temper'}"
        text = say(
            "The {role} wire is stretched by {strain} where it is bent sharpest (the {label}): it may crack. Softer or thinner wire stands it, or a wider bend.",
            role=piece.role,
            strain=Share(strain),
            label=placed.move.label,
        )
        found.setdefault(piece.role, Warn("bent-too-sharply", text, field))
    return list(found.values())


def _size(made: MadeRing) -> list[Warn]:
    ring = made.ring
    found = []
    low, high = RANGE_MM
    if not low <= made.form.diameter_mm <= high:
        text = say(
            "The start, {start} across, is off an ordinary mandrel ({low} to {high}): form it on a rod of that diameter.",
            start=Thickness(made.form.diameter_mm),
            low=Size(low),
            high=Size(high),
        )
        found.append(Warn("start-off-mandrel", text, "finger.size"))
    springs = sum(e.inside_mm for e in made.effects if e.cause.code == "springs-open")
    if springs > _SPRINGS_MOST_US * US_STEP_MM:
        text = say("This wire springs open by {much}: softer wire, or locks, would hold a size.", much=SizeChange(springs))
        found.append(Warn("springs-far", text, f"wires.{ring.main_role}.temper"))
    knuckle, gives = ring.file.finger.around_knuckle_mm, ring.band.gives_mm(made.band)
    if knuckle is not None and gives is not None and (pulled := knuckle - math.pi * made.finished_mm) > gives:
        text = say(
            "Over the knuckle it is pulled {pulled} wider, and {stays} of that stay: squeeze it shut each time, or take harder wire.",
            pulled=Tolerance(pulled),
            stays=Tolerance(pulled - gives),
        )
        found.append(Warn("knuckle-opens", text, f"wires.{ring.main_role}.temper"))
    for width, room in WIDE_MM:
        if made.band.width_mm >= width - 1e-9 and ring.room_us < room:
            text = say(
                "A band {wide} wide wears tighter: many makers add {room}.",
                wide=Length(made.band.width_mm),
                room=SizeChange(room * US_STEP_MM),
            )
            found.append(Warn("wide-band", text, "sizing.room_for_width"))
            break
    return found

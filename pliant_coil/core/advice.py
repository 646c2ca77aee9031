"""What a good friend at the bench would say about a plan: warnings, each with the field that would mend it.

Thresholds without a source are common practice; those with a formula follow from the wire's own stiffness.
"""

from dataclasses import dataclass

from pliant_coil.core.bending import crushing_force_n, plastic_moment
from pliant_coil.core.packing import hole_needed_mm, passes_that_fit
from pliant_coil.core.ring import Ring
from pliant_coil.core.sizing import MANDREL_RANGE_MM
from pliant_coil.core.wires import Bead, FormedRing

FLIMSY_BELOW_N = 4.0
"""A closed band that folds under this force is flimsy: what a hand puts on it when it carries a bag (common practice)."""
FINGERS_ABOVE_N_MM = 20.0
"""Plastic moment beyond which lock wraps are turned with pliers (common practice, no source)."""
COMFORTABLE_SHARE = 0.75
"""Of the finger's width: a wider bead presses on the next fingers (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Warn:
    """A warning: a code that stays, words for the maker, and the field of the ring file that it is about."""

    code: str
    text: str
    field: str


def advise(ring: Ring, formed: FormedRing) -> list[Warn]:
    """All warnings for a ring formed at its start mark."""
    found: list[Warn] = []
    for role, wire in ring.wires.items():
        if wire.doubt:
            found.append(Warn("gauge-ambiguous", wire.doubt, f"wires.{role}.diameter"))
    found += [warning for bead in formed.beads if (warning := _hole(bead))]
    found += [warning for bead in formed.beads if (warning := _width(bead, ring))]
    found += _stiffness(ring, formed)
    low, high = MANDREL_RANGE_MM
    if not low <= formed.form_diameter_mm <= high:
        text = (
            f"The start, {formed.form_diameter_mm:.1f} mm, is off an ordinary mandrel (US 1 to 16, {low:.1f} to {high:.1f} mm): "
            "form it on a rod of that diameter."
        )
        found.append(Warn("start-off-mandrel", text, "finger.size"))
    found += [Warn("metal-care", wire.metal.care, f"wires.{role}.metal") for role, wire in ring.wires.items() if wire.metal.care]
    return found


def hole_needed(bead: Bead) -> float:
    """Hole diameter [mm] that the bead needs for the wires that pass it."""
    return hole_needed_mm(bead.wire.profile.passing_mm, bead.passes)


def _hole(bead: Bead) -> Warn | None:
    needed = hole_needed(bead)
    if bead.hole_mm >= needed:
        return None
    fit = passes_that_fit(bead.wire.profile.passing_mm, bead.hole_mm)
    takes = "doesn't take this wire at all" if not fit else f"takes {fit} of this wire, not {bead.passes}"
    text = f"The {bead.hole_mm:g} mm hole {takes}: it needs {needed:.2f} mm. Use a finer wire, or open the hole and try again."
    return Warn("bead-hole-too-small", text, bead.hole_field)


def _width(bead: Bead, ring: Ring) -> Warn | None:
    if bead.diameter_mm <= COMFORTABLE_SHARE * ring.target_mm:
        return None
    text = (
        f"A {bead.diameter_mm:g} mm bead is nearly as wide as this finger ({ring.target_mm:.1f} mm): it presses on the fingers beside it."
    )
    return Warn("bead-too-wide", text, "head.bead.diameter_mm")


def _stiffness(ring: Ring, formed: FormedRing) -> list[Warn]:
    wire, found = ring.main_wire, []
    force = crushing_force_n(formed.form_diameter_mm, wire.profile, wire.yield_mpa, formed.strands)
    field = f"wires.{wire.role}.diameter"
    if force < FLIMSY_BELOW_N:
        wires = "one wire" if formed.strands == 1 else f"{formed.strands} wires"
        text = (
            f"A band of {wires} this thin folds at {force:.1f} N, a light squeeze. One more turn, a thicker wire or a harder temper holds."
        )
        found.append(Warn("band-flimsy", text, field))
    moment = plastic_moment(wire.profile, wire.yield_mpa)
    if moment > FINGERS_ABOVE_N_MM:
        how = (
            "turn the wraps with pliers, their jaws taped" if ring.file.band.locked else "bend it with a mallet or pliers, their jaws taped"
        )
        found.append(Warn("too-stiff-for-fingers", f"This wire is stiff for fingers: {how}.", field))
    return found

"""Where solder holds a ring: seams, the back of a stack, contacts of waved tops, tubes; as places to be drawn."""

import math
from collections.abc import Sequence
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, steps_for
from pliant_coil.core.moves.base import on_circle


@dataclass(frozen=True, slots=True)
class Soldered:
    """A place on the ring that solder holds: a line along it, or a single point, in ring coordinates [mm]."""

    what: Literal["seam", "back", "contact", "tube"]
    points: tuple[Point3, ...]


def seam_of(seams_rad: Sequence[float], ring: int) -> float:
    """Where one ring's seam stands, from the top [rad]: spread ones lie to one side and to the other in turn."""
    return seams_rad[-1 if ring % 2 == 0 else 0]


def seam_at(radius_mm: float, angle_rad: float, z_mm: float, *, thick_mm: float, wide_mm: float) -> Soldered:
    """A seam straight across a ring whose middle line runs there: up one of its faces and over its outside."""
    low, high, half = radius_mm - wide_mm / 2, radius_mm + wide_mm / 2, thick_mm / 2
    return Soldered("seam", tuple(on_circle(r, angle_rad, z_mm + z) for r, z in ((low, half), (high, half), (high, -half))))


def back_joint(radius_mm: float, half_rad: float, z_mm: float) -> Soldered:
    """A joint between two rings, so far to each side of the back."""
    steps = steps_for(radius_mm, 2 * half_rad)
    return Soldered("back", tuple(on_circle(radius_mm, math.pi - half_rad + 2 * half_rad * k / steps, z_mm) for k in range(steps + 1)))


def tube_at(radius_mm: float, angle_rad: float, z_mm: float, *, across_mm: float, high_mm: float) -> Soldered:
    """A tube standing on the band: its two rims, and a line from one to the other."""
    half = across_mm / 2
    steps = steps_for(half, 2 * math.pi)
    turns = [2 * math.pi * k / steps for k in range(steps + 1)]
    rims = (radius_mm + high_mm / 2, radius_mm - high_mm / 2)
    points = [on_circle(rim, angle_rad + half * math.cos(turn) / rim, z_mm + half * math.sin(turn)) for rim in rims for turn in turns]
    return Soldered("tube", tuple(points))

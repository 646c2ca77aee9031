"""What worked rings are asked for: the wire of their moves by the ends of their ids, and what lies inside them."""

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.moves.base import Cause, Obstacle
from pliant_coil.core.moves.inside import largest_circle

A_TEST = Cause("test", "a test")


def taken(made: MadeRing, *endings: str, role: str = "band") -> float:
    """Wire of all moves of a role whose ids end so."""
    return sum(p.length_mm for piece in made.pieces if piece.role == role for p in piece.moves if p.id.endswith(endings))


def through(made: MadeRing) -> float:
    return sum(p.length_mm for p in made.work.through[0])


def locks_take(radius: float, from_rad: float, to_rad: float, height: float) -> float:
    """By how much wraps on both sides make a ring smaller."""
    sides = [Obstacle(A_TEST, from_rad, to_rad, height), Obstacle(A_TEST, -to_rad, -from_rad, height)]
    return 2 * (radius - largest_circle(radius, sides).radius_mm)

"""The stone that ends hold, and what is known of a ring before it is made."""

from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.moves.prong import Claw, Prong
from pliant_coil.core.styles.parameters import choice, millimetres
from pliant_coil.core.styles.stones import Gem, PlacedStone


class HeldStone(Gem):
    """A stone that is held: length along the band, width along the finger, height away from it."""

    shape: Literal["octagon", "rectangle", "oval", "round", "cushion"] = choice("octagon", "Shape")
    length_mm: float = millimetres(12.0, "Stone's length", 5, 28, "Along the band.")
    width_mm: float = millimetres(10.0, "Stone's width", 5, 24, "Along the finger.")
    height_mm: float = millimetres(5.0, "Stone's height", 2, 12)
    corner_mm: float = millimetres(2.5, "Cut corners", 0, 8, "Leg of a cut corner.", rare=True)
    edge_height_mm: float | None = millimetres(None, "Back to edge", 1, 12, "Where a lip lands; the whole height unless given.", rare=True)
    edge_radius_mm: float | None = millimetres(
        None, "Edge's rounding", 0.5, 6, "Of a rough stone; a third of its height unless given.", rare=True
    )


@dataclass(frozen=True)
class Facts:
    radius_mm: float
    theta: float
    half_spread_mm: float
    lanes: int
    prongs: tuple[Prong, ...] = ()
    claw: Claw | None = None
    wraps: int = 0


def placed(stone: HeldStone, under_y: float) -> PlacedStone:
    """The stone on the ring, from this height on."""
    return PlacedStone(
        "stone",
        "head.stone",
        (0.0, under_y + stone.height_mm / 2, 0.0),
        stone.length_mm,
        stone.width_mm,
        stone.height_mm,
        shape=stone.shape,
        gem=stone,
    )

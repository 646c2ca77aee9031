"""Beads and stones: one record, on a band's wire or in a setting. Length lies along the band, width along the finger."""

import math
from typing import Literal, NamedTuple

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.styles.parameters import Part, choice, millimetres
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Article, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

Colour = Literal["honey", "amber", "garnet", "rose", "leaf", "sky", "violet", "milk", "smoke", "jet"]
Material = Literal["glass", "hard-stone", "soft-stone", "pearl-or-shell", "amber-or-resin", "wood", "metal"]

HIGH_MM = 9.0
"""Above the finger: what stands higher catches on pockets and hair, whatever it is (common practice, no source)."""


class Nature(NamedTuple):
    """How heavy a bead or stone is, and what it stands (values from memory; what it stands: common practice, no source)."""

    density_g_cm3: float
    stands_patina: bool
    stands_tumbling: bool
    stands_heat: bool


NATURES: dict[Material, Nature] = {
    "glass": Nature(2.5, True, True, False),
    "hard-stone": Nature(2.65, True, True, False),
    "soft-stone": Nature(2.7, False, False, False),
    "pearl-or-shell": Nature(2.72, False, False, False),
    "amber-or-resin": Nature(1.1, False, False, False),
    "wood": Nature(0.8, False, False, False),
    "metal": Nature(8.5, True, True, True),
}


class Gem(Part):
    """What every bead and stone has: a colour, in which it is drawn, and what it is made of."""

    colour: Colour = choice("honey", "Colour", rare=True)
    made_of: Material = choice("glass", "Made of", "Soft and porous ones take no patina and no tumbling.", rare=True)

    @property
    def nature(self) -> Nature:
        return NATURES[self.made_of]


class Bead(Gem):
    """A bead with a hole along its length."""

    shape: Literal["round", "oval"] = choice("round", "Shape")
    diameter_mm: float = millimetres(7.0, "Bead", 2, 20)
    length_mm: float | None = millimetres(None, "Length along the hole", 2, 20, "Of an oval bead; as its diameter unless given.", rare=True)
    width_mm: float | None = millimetres(None, "Width along the finger", 2, 24, "Of an oval bead; as its diameter unless given.", rare=True)
    height_mm: float | None = millimetres(None, "Height", 2, 20, "Of an oval bead; as its diameter unless given.", rare=True)
    hole_mm: float = millimetres(1.1, "Hole", 0.3, 6)

    def _own(self, given: float | None) -> float:
        return given if self.shape == "oval" and given is not None else self.diameter_mm

    @property
    def length(self) -> float:
        return self._own(self.length_mm)

    @property
    def width(self) -> float:
        return self._own(self.width_mm)

    @property
    def height(self) -> float:
        return self._own(self.height_mm)

    @property
    def words(self) -> Say:
        """`a 7 mm bead`."""
        size = self.diameter_mm if self.shape == "round" else self.length
        return say("{size} bead" if self.shape == "round" else "{size} oval bead", size=Article(Thickness(size)))

    def check(self, field: str) -> None:
        """Raise `Refusal` for a hole that leaves nothing of the bead."""
        if self.hole_mm >= min(self.width, self.height):
            refuse(
                f"{field}.hole_mm",
                say("{hole} hole leaves nothing of {bead}", hole=Article(Thickness(self.hole_mm)), bead=self.words),
                "a hole smaller than the bead",
            )


@dataclass(frozen=True, slots=True)
class PlacedStone:
    """A stone on the ring: its middle and extents [mm], and for a drilled one what its hole must take."""

    what: str
    field: str
    centre: Point3
    length_mm: float
    width_mm: float
    height_mm: float
    shape: str = "ellipsoid"
    hole_mm: float | None = None
    passing: tuple[tuple[Wire, int], ...] = ()
    """Each wire that passes the hole, in the shape it has then, and how often."""
    gem: Gem | None = None
    """What it is; None for what is only drawn as one, a barrel of wire."""

    @property
    def mass_g(self) -> float:
        """As an ellipsoid, or a block of the same extents."""
        if self.gem is None:
            return 0.0
        full = (
            1.0
            if self.shape in ("rectangle", "octagon", "slab", "cushion")
            else math.pi / 4
            if self.shape in ("disc", "drop")
            else math.pi / 6
        )
        return full * self.length_mm * self.width_mm * self.height_mm * self.gem.nature.density_g_cm3 / 1000

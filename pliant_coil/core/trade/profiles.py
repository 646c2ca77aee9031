"""The cross-section of a wire: area, stiffness, centroid, outline. Lengths in mm, as the wire lies on the mandrel.

`height` is radial (away from the finger), `width` along the finger; a half-round lies with its flat side in.
"""

import math
from typing import Literal

from pliant_coil.core.frozen import cached_property, dataclass

ProfileName = Literal["round", "half-round", "square", "flat"]
Point = tuple[float, float]

HALF_ROUND_CENTROID = 4 / (3 * math.pi) / 2
"""Centroid of a half-round above its flat, as a share of its width: 0.2122."""
HALF_ROUND_PLASTIC = 0.3540
"""Plastic modulus of a half-disc over its radius cubed, bent about an axis along the flat (equal-area axis)."""


@dataclass(frozen=True)
class Profile:
    """A wire's cross-section.

    `size_mm` is what the wire is bought by: the diameter of a round, the width of a half-round, the side of a
    square, the thickness of a flat strip, whose width is `strip_width_mm`.
    """

    name: ProfileName
    size_mm: float
    strip_width_mm: float = 0.0

    @cached_property
    def width_mm(self) -> float:
        """Extent along the finger."""
        return self.strip_width_mm if self.name == "flat" else self.size_mm

    @cached_property
    def height_mm(self) -> float:
        """Extent away from the finger."""
        return self.size_mm / 2 if self.name == "half-round" else self.size_mm

    @cached_property
    def centroid_mm(self) -> float:
        """Height of the centroid above the side that faces the finger: where the neutral line runs."""
        return HALF_ROUND_CENTROID * self.size_mm if self.name == "half-round" else self.height_mm / 2

    @cached_property
    def area_mm2(self) -> float:
        """Area of the cross-section."""
        if self.name == "round":
            return math.pi * self.size_mm**2 / 4
        if self.name == "half-round":
            return math.pi * self.size_mm**2 / 8
        return self.width_mm * self.height_mm

    @cached_property
    def second_moment_mm4(self) -> float:
        """Second moment of area about the centroid, for bending round a finger."""
        if self.name == "round":
            return math.pi * self.size_mm**4 / 64
        if self.name == "half-round":
            return (math.pi / 8 - 8 / (9 * math.pi)) * (self.size_mm / 2) ** 4
        return self.width_mm * self.height_mm**3 / 12

    @cached_property
    def plastic_modulus_mm3(self) -> float:
        """Plastic modulus, for bending round a finger: the fully plastic moment is this times the yield strength."""
        if self.name == "round":
            return self.size_mm**3 / 6
        if self.name == "half-round":
            return HALF_ROUND_PLASTIC * (self.size_mm / 2) ** 3
        return self.width_mm * self.height_mm**2 / 4

    @cached_property
    def passing_mm(self) -> float:
        """The smallest round hole that the wire itself would fill: the circle round its outline."""
        if self.name in ("round", "half-round"):
            return self.size_mm
        return math.hypot(self.width_mm, self.height_mm)

    def outline(self, points: int = 24) -> tuple[Point, ...]:
        """The outline as (along the finger, away from the finger), from the middle of its inner side, counter-clockwise.

        Curved sides are sampled with `points` to a full circle, vertices on the curve.
        """
        half_width, height = self.width_mm / 2, self.height_mm
        if self.name == "round":
            turn = 2 * math.pi / points
            return tuple((half_width * math.sin(k * turn), half_width * (1 - math.cos(k * turn))) for k in range(points))
        if self.name == "half-round":
            turn = 2 * math.pi / points
            return tuple((half_width * math.cos(k * turn), half_width * math.sin(k * turn)) for k in range(points // 2 + 1))
        return ((-half_width, 0.0), (half_width, 0.0), (half_width, height), (-half_width, height))

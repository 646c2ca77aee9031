"""A bead's seat: up a leg, through the hole, down the other leg. Straights, bends and a through; no move of its own."""

import math

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.straight import Straight, Through


@dataclass(frozen=True)
class Seat:
    """A bead whose hole's axis lies `axis_y_mm` from the ring's axis, on a band whose neutral circle has `radius_mm`.

    The legs stand half a wire outside the bead's ends; bends have a wire's diameter as their neutral radius. Angles from
    the top. Derivation in docs/handbook.md.
    """

    half_length_mm: float
    axis_y_mm: float
    radius_mm: float
    wire_mm: float

    @property
    def leg_x_mm(self) -> float:
        """e: where the legs stand."""
        return self.half_length_mm + self.wire_mm / 2

    @property
    def foot_rad(self) -> float:
        """Where the legs' lines meet the band's circle."""
        return math.asin(min(1.0, self.leg_x_mm / self.radius_mm))

    @cached_property
    def shoulder_rad(self) -> float:
        """Where wraps may begin: one and a half wires beyond the legs."""
        return math.asin(min(1.0, (self.leg_x_mm + 1.5 * self.wire_mm) / self.radius_mm))

    @property
    def shoulder_y_mm(self) -> float:
        return self.radius_mm * math.cos(self.shoulder_rad)

    @cached_property
    def bends_rad(self) -> float:
        """Where the band leaves its circle to bend up into a leg: a fillet between the circle and the leg's line."""
        return math.asin(min(1.0, (self.leg_x_mm + self.wire_mm) / (self.radius_mm + self.wire_mm)))

    def moves(self, z_left_mm: float, z_right_mm: float, label: str, mark: str) -> list[Move]:
        """From the left foot to the right one, its lane drifting to the middle and out again."""
        r, e, y = self.wire_mm, self.leg_x_mm, self.axis_y_mm
        out, first = self.radius_mm + r, self.bends_rad
        foot_y = out * math.cos(first)
        top_y = max(y - r, foot_y)
        turn = math.pi / 2 - first
        hole = max(0.0, e - r)
        return [
            # The fillet's centre lies outside the circle, beyond the leg.
            Bend("bend", (-e - r, foot_y, z_left_mm), r, math.pi - first, -turn, r),
            Straight("leg", (-e, foot_y, z_left_mm), (-e, top_y, 0.0)),
            Bend("bend", (-e + r, top_y, 0.0), r, -math.pi / 2, math.pi / 2, r),
            Through(label, (-hole, y, 0.0), (hole, y, 0.0), mark=mark, mark_share=0.5),
            Bend("bend", (e - r, top_y, 0.0), r, 0.0, math.pi / 2, r, jaw="after"),
            Straight("leg", (e, top_y, 0.0), (e, foot_y, z_right_mm)),
            Bend("bend", (e + r, foot_y, z_right_mm), r, -math.pi / 2, -turn, r, jaw="after"),
        ]

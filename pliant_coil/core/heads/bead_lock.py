"""Bead lock: a bead on the wire, the tails passed by it and wrapped beside it.

Geometry (worked out for this project): the tail that passes under the bead lies on the mandrel, and the bead rests on
it. The wire leaves the hole, is pressed down beside the bead and meets the band's circle at its foot. So the chord
that the bead takes from the band is the bead and half a wire on each side.
"""

import math
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle, Seat
from pliant_coil.core.moves import Arc, Bend, Move, Over, Straight, Through
from pliant_coil.core.profiles import Profile
from pliant_coil.core.refusal import refuse
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import Bead, Part, RoleWire

_WIDEST_CHORD = math.sin(math.radians(60))
"""Half the chord over the band's radius beyond which no band is left beside the bead to lock on."""


class RoundBead(Part):
    """A round bead with one hole through its middle."""

    shape: Literal["round"] = Field("round", title="Shape")
    diameter_mm: float = Field(7.0, title="Bead", ge=2, le=20, json_schema_extra={"unit": "mm"})
    hole_mm: float = Field(1.1, title="Hole", ge=0.3, le=6, json_schema_extra={"unit": "mm"})


class BeadLock(HeadStyle):
    """A round bead; one tail under it, one over it where both come up, each wrapped on its own side."""

    title: ClassVar[str] = "Bead lock"
    bands: ClassVar[tuple[str, ...]] = ("turned", "crossed")
    least_wraps: ClassVar[int] = 1
    style: Literal["bead-lock"] = Field("bead-lock", title="Head")
    bead: RoundBead = Field(default_factory=RoundBead, title="Bead")

    def seat(self, inside_radius_mm: float, wire: RoleWire) -> "BeadSeat":
        return BeadSeat(inside_radius_mm, wire, self.bead)

    def check(self, inside_radius_mm: float, profile: Profile, finish: Finish) -> None:
        if self.bead.hole_mm >= self.bead.diameter_mm:
            refuse(
                "head.bead.hole_mm",
                f"a {self.bead.hole_mm:g} mm hole leaves nothing of a {self.bead.diameter_mm:g} mm bead",
                "a hole smaller than the bead",
            )
        widest = 2 * _WIDEST_CHORD * (inside_radius_mm + profile.centroid_mm) - profile.height_mm
        if self.bead.diameter_mm > widest:
            refuse(
                "head.bead.diameter_mm",
                f"a {self.bead.diameter_mm:g} mm bead leaves no band beside it to lock on at this size",
                f"up to {widest:.1f} mm",
            )

    def phrase(self) -> str:
        return f"a {self.bead.diameter_mm:g} mm bead"

    def threading(self) -> list[Step]:
        return [
            Step(
                "thread",
                "Thread the bead to its mark and press the wire down beside it, both sides alike.",
                check="The bead sits on its mark.",
            )
        ]

    def making(self, winding: str) -> list[Step]:
        if winding == "one-way":
            return [
                Step(
                    "head",
                    "Bring the long tail up beside the bead and pass it under the bead to the other side.",
                    check="It lies flat against the mandrel.",
                )
            ]
        return [
            Step(
                "head",
                "Bring both tails up beside the bead. Pass one under the bead, flat against the mandrel.",
                check="The bead rests on it and doesn't rock.",
            ),
            Step("head", "Pass the other tail over the bead to its own side and pull it snug.", check="It crosses the bead's middle."),
        ]


class BeadSeat(Seat):
    """A bead on a band of one size."""

    def __init__(self, inside_radius_mm: float, wire: RoleWire, bead: RoundBead) -> None:
        super().__init__(inside_radius_mm, wire)
        self.bead = bead
        self.half_mm = bead.diameter_mm / 2
        """Half the bead, which is half the hole's length too."""
        self.foot_x_mm = min(self.half_mm + wire.profile.centroid_mm, 0.98 * self.neutral_radius_mm)
        self.foot_rad = math.asin(self.foot_x_mm / self.neutral_radius_mm)
        self.foot_y_mm = self.neutral_radius_mm * math.cos(self.foot_rad)
        self.centre_y_mm = inside_radius_mm + wire.profile.height_mm + self.half_mm

    def middle(self, z_left_mm: float, z_right_mm: float) -> list[Move]:
        corner, thick = self.wire.profile.centroid_mm, self.wire.profile.height_mm
        y = self.centre_y_mm
        # Round the hole's rim: the neutral line turns about the rim itself, half a wire away.
        left_corner, right_corner = (-self.half_mm, y - corner, 0.0), (self.half_mm, y - corner, 0.0)
        return [
            Straight("shoulder", (-self.foot_x_mm, self.foot_y_mm, z_left_mm), (-self.foot_x_mm, y - corner, 0.0)),
            Bend("bend", left_corner, corner, -math.pi / 2, math.pi / 2, thick),
            Through("bead", (-self.half_mm, y, 0.0), (self.half_mm, y, 0.0), mark="bead", mark_share=0.5),
            Bend("bend", right_corner, corner, 0.0, math.pi / 2, thick, jaw_at_end=True),
            Straight("shoulder", (self.foot_x_mm, y - corner, 0.0), (self.foot_x_mm, self.foot_y_mm, z_right_mm)),
        ]

    def under(self, z_mm: float) -> list[Move]:
        return [Arc("under", self.neutral_radius_mm, -self.foot_rad, 2 * self.foot_rad, z_mm, z_mm)]

    def over(self, z_mm: float) -> list[Move]:
        return [Over("over", self.foot_x_mm, self.foot_y_mm, self.centre_y_mm, self.half_mm + self.wire.profile.centroid_mm, z_mm)]

    @property
    def beads(self) -> tuple[Bead, ...]:
        return (Bead("bead", self.bead.diameter_mm, self.bead.hole_mm, "head.bead.hole_mm", (0.0, self.centre_y_mm, 0.0), self.wire, 1),)

"""Crossed: two turns, the second crossing the first at the back, so that the underside shows an X."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle, check_locks
from pliant_coil.core.bending import bending_moment
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.hulls import row
from pliant_coil.core.moves import Arc, Crossing, Move
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, RoleWire, WireRun, Wires, WireSpec

CROSSING_CAUSE = "the crossing lifts the underside"


class Crossed(BandStyle):
    """Two strands from the middle, each changing to the other's side at the back."""

    title: ClassVar[str] = "Crossed"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="20 AWG")}
    main_role: ClassVar[str] = "band"
    locked: ClassVar[bool] = True
    trimmed: ClassVar[bool] = True
    style: Literal["crossed"] = Field("crossed", title="Band")
    crossing_mm: float = Field(
        8.0, title="Crossing", ge=3, le=20, description="How far round the back the X reaches.", json_schema_extra={"unit": "mm"}
    )

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        wire = wires["band"]
        profile = wire.profile
        seat = head.seat(form_diameter_mm / 2, wire)
        radius, pitch = seat.neutral_radius_mm, profile.width_mm
        left_lock, right_lock = finish.locks(wire, row(profile, 2), form_diameter_mm / 2, seat.foot_rad)
        half = self.crossing_mm / 2 / radius
        pressed = self._pressed_mm(wire)

        def once_round(z_mm: float, over: bool, mark: str = "") -> list[Move]:
            words = "cross over" if over else "cross under"
            side = math.pi - half - seat.foot_rad
            return [
                Arc("to the back", radius, seat.foot_rad, side, z_mm, z_mm, mark=mark),
                Crossing(words, radius, math.pi - half, 2 * half, pitch, z_mm < 0, over, pressed, CROSSING_CAUSE),
                Arc("from the back", radius, math.pi + half, side, -z_mm, -z_mm),
            ]

        # Clockwise all the way: the first half comes in where the second goes out, so both meet in one lane.
        middle = seat.middle(pitch / 2, pitch / 2)
        moves: list[Move] = [
            *left_lock,
            *seat.over(-pitch / 2),
            *once_round(-pitch / 2, over=False),
            *middle,
            *once_round(pitch / 2, over=True, mark="" if middle else "middle"),
            *seat.under(-pitch / 2),
            *right_lock,
        ]
        return FormedRing(form_diameter_mm, (WireRun(wire, tuple(moves)),), (), seat.beads, 2, 2 * pitch, profile.height_mm)

    def _pressed_mm(self, wire: RoleWire) -> float:
        """How far the upper strand presses the lower one towards the finger when the ring comes off.

        The upper strand's hump, d high over the crossing, springs back by the share M/(EIκ) of its curvature; two
        equal strands share that (worked out for this project). It is small: makers start crossed bands at the size.
        """
        profile = wire.profile
        curvature = profile.height_mm * (math.pi / self.crossing_mm) ** 2
        moment = bending_moment(profile, curvature, wire.metal.youngs_modulus_mpa, wire.yield_mpa)
        return profile.height_mm * moment / (wire.metal.youngs_modulus_mpa * profile.second_moment_mm4 * curvature) / 2

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        check_locks(inside_diameter_mm, wires["band"], head, finish, least=1)

    def phrase(self) -> str:
        return "turned twice and crossed at the back"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        held = "the bead" if head.least_wraps else "the middle mark"
        return [
            Step("form", f"Hold {held} against the mandrel at {start_words} and bring one tail round, to the other lane at the back."),
            Step(
                "form",
                "Bring the other tail round the other way and over the first at the back.",
                count=1,
                check="An even X sits at the middle of the back.",
            ),
        ]

    def head_steps(self, head: HeadStyle) -> list[Step]:
        return head.making("both-ways")

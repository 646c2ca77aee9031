"""Turned: the same wire laid side by side round the mandrel."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle, check_locks, springback
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.hulls import row
from pliant_coil.core.measures import times_words
from pliant_coil.core.moves import Arc, Move, Turns
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, WireRun, Wires, WireSpec

_LEAST_STEP_RAD = math.radians(15)
"""To either side of the top, where there is no head to hide the step from one lane to the next (common practice)."""


class Turned(BandStyle):
    """Turns side by side: both ways from the middle, or one way from a short tail."""

    title: ClassVar[str] = "Turned"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="20 AWG")}
    main_role: ClassVar[str] = "band"
    locked: ClassVar[bool] = True
    trimmed: ClassVar[bool] = True
    style: Literal["turned"] = Field("turned", title="Band")
    winding: Literal["both-ways", "one-way"] = Field(
        "both-ways", title="Winding", description="Both ways from the middle, or one way from a short tail."
    )
    turns: int = Field(1, title="Turns", ge=1, le=4, description="How often each tail goes all the way round.")

    @property
    def strands(self) -> int:
        """Wires side by side in the finished band."""
        return 2 * self.turns if self.winding == "both-ways" else self.turns

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        wire = wires["band"]
        profile, strands = wire.profile, self.strands
        seat = head.seat(form_diameter_mm / 2, wire)
        left_lock, right_lock = finish.locks(wire, row(profile, strands), form_diameter_mm / 2, seat.foot_rad)
        pitch = profile.width_mm
        outer = (strands - 1) / 2 * pitch
        step = max(seat.foot_rad, _LEAST_STEP_RAD)

        def turns(from_rad: float, to_rad: float, z_mm: float, mark: str = "") -> Turns:
            label = f"{times_words(self.turns)} round"
            return Turns(label, seat.neutral_radius_mm, from_rad, to_rad - from_rad, z_mm, pitch, step, mark=mark)

        end = 2 * math.pi * self.turns
        foot = seat.foot_rad
        moves: list[Move]
        if self.winding == "one-way":
            middle = seat.middle(-outer, -outer)
            moves = [*left_lock, *middle, turns(foot, end - foot, -outer, "" if middle else "start"), *seat.under(outer), *right_lock]
        else:
            # Clockwise from the end whose tail passes over the head; the halves lie on either side of z = 0.
            middle = seat.middle(-pitch / 2, pitch / 2)
            if not middle:
                foot = step
                middle = [Arc("middle", seat.neutral_radius_mm, -step, 2 * step, -pitch / 2, pitch / 2, mark="middle", mark_share=0.5)]
            moves = [
                *left_lock,
                *seat.over(-outer),
                turns(seat.foot_rad, end - foot, -outer),
                *middle,
                turns(foot, end - seat.foot_rad, pitch / 2),
                *seat.under(outer),
                *right_lock,
            ]
        shifts = () if finish.wraps_each_side else (springback(form_diameter_mm, wire),)
        return FormedRing(form_diameter_mm, (WireRun(wire, tuple(moves)),), shifts, seat.beads, strands, strands * pitch, profile.height_mm)

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        check_locks(inside_diameter_mm, wires["band"], head, finish)

    def phrase(self) -> str:
        return f"turned {times_words(self.turns)} {'each way' if self.winding == 'both-ways' else 'one way'}"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        held = "the bead" if head.least_wraps else "the mark"
        round_words = f"{times_words(self.turns)} all the way round, side by side."
        if self.winding == "both-ways":
            text = f"Hold {held} against the mandrel at {start_words} and turn each tail {round_words}"
        else:
            text = f"Hold {held} and the short tail against the mandrel at {start_words} and turn the long tail {round_words}"
        return [Step("form", text, count=self.turns, check="The turns touch and none has climbed on another.")]

    def head_steps(self, head: HeadStyle) -> list[Step]:
        return head.making(self.winding)

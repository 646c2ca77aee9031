"""What a band answers for, whatever the head."""

import math
from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

from pliant_coil.core.bending import released_diameter_mm
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.refusal import refuse
from pliant_coil.core.registry import styles_in
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, Part, RoleWire, Shift, Wires, WireSpec

SPRINGBACK_CAUSE = "springs open, nothing holds it"


class BandStyle(Part, ABC):
    """A style of band: its parameters, and how they become wires and their moves."""

    title: ClassVar[str]
    usual_wires: ClassVar[Mapping[str, WireSpec]]
    """The roles it needs, each with the wire that is usual for it."""
    main_role: ClassVar[str]
    """The role whose wire lies on the mandrel."""
    locked: ClassVar[bool] = False
    """Whether its tails are wrapped round it beside the head, as `finish` says."""
    trimmed: ClassVar[bool] = False
    """Whether tails are left over that have to be trimmed and tucked in."""
    style: Any = ""

    @abstractmethod
    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        """The whole ring, its band formed on the mandrel at this diameter."""

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        """Raise `Refusal` when it can't be made at this size at all."""

    @abstractmethod
    def phrase(self) -> str:
        """Its words in the ring's sentence."""

    @abstractmethod
    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        """Steps that bring the wire on the mandrel."""

    def head_steps(self, head: HeadStyle) -> list[Step]:
        """The head's own steps, for the way this band brings its tails up."""
        return head.making("")


def all_bands() -> dict[str, type[BandStyle]]:
    """Every band style by name: one file each in this folder."""
    return styles_in("pliant_coil.core.bands", BandStyle)


def check_locks(inside_diameter_mm: float, wire: RoleWire, head: HeadStyle, finish: Finish, least: int = 0) -> None:
    """Raise `Refusal` for locks that don't hold the head or the band, or that don't fit beside the head."""
    profile, radius = wire.profile, inside_diameter_mm / 2
    least = max(least, head.least_wraps)
    if finish.wraps_each_side < least:
        held = head.phrase() if head.least_wraps else "this band"
        refuse("finish.wraps_each_side", f"{held} doesn't hold without a lock", f"at least {least} wrap each side")
    head.check(radius, profile, finish)
    room = (math.radians(150) - head.seat(radius, wire).foot_rad) * radius
    if finish.wraps_each_side * profile.width_mm > room:
        most = int(room / profile.width_mm)
        refuse("finish.wraps_each_side", "that many wraps would meet at the back of the ring", f"up to {most} of this wire")


def springback(form_diameter_mm: float, wire: RoleWire) -> Shift:
    """What a band that nothing holds gains when it comes off: its own contribution."""
    released = released_diameter_mm(form_diameter_mm, wire.profile, wire.metal.youngs_modulus_mpa, wire.yield_mpa)
    return Shift(SPRINGBACK_CAUSE, released - form_diameter_mm)

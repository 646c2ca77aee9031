"""What a head answers for, whatever the band: the room it takes at the top and what the wire does there."""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

from pliant_coil.core.finish import Finish
from pliant_coil.core.moves import Move
from pliant_coil.core.profiles import Profile
from pliant_coil.core.registry import styles_in
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import Bead, Part, RoleWire, WireSpec


class Seat:
    """A head on a band of one size: the feet where the band ends beside it, and the wire between them.

    `wire` is the band's; `inside_radius_mm` that of the form. The feet stand at ± `foot_rad` from the top, on the
    band's neutral circle `neutral_radius_mm` from the axis.
    """

    def __init__(self, inside_radius_mm: float, wire: RoleWire) -> None:
        self.inside_radius_mm = inside_radius_mm
        self.wire = wire
        self.neutral_radius_mm = inside_radius_mm + wire.profile.centroid_mm

    foot_rad: float = 0.0

    def middle(self, z_left_mm: float, z_right_mm: float) -> list[Move]:
        """The wire from the left foot to the right one, through whatever sits on it."""
        return []

    def under(self, z_mm: float) -> list[Move]:
        """A tail from the left foot to the right one, between head and finger."""
        return []

    def over(self, z_mm: float) -> list[Move]:
        """A tail from the left foot to the right one, across the head's face."""
        return []

    @property
    def beads(self) -> tuple[Bead, ...]:
        return ()


class HeadStyle(Part, ABC):
    """A style of head: its parameters, and the seat it makes on a band."""

    title: ClassVar[str]
    bands: ClassVar[tuple[str, ...]]
    """The band styles that it can be made on."""
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {}
    least_wraps: ClassVar[int] = 0
    style: Any = ""

    @abstractmethod
    def seat(self, inside_radius_mm: float, wire: RoleWire) -> Seat:
        """The head on a band formed on a mandrel of this radius."""

    def check(self, inside_radius_mm: float, profile: Profile, finish: Finish) -> None:
        """Raise `Refusal` when it can't be made at this size at all."""

    @abstractmethod
    def phrase(self) -> str:
        """Its words in the ring's sentence."""

    def threading(self) -> list[Step]:
        """Steps before the band is formed."""
        return []

    def making(self, winding: str) -> list[Step]:
        """Steps between forming and locking."""
        return []


def all_heads() -> dict[str, type[HeadStyle]]:
    """Every head style by name: one file each in this folder."""
    return styles_in("pliant_coil.core.heads", HeadStyle)

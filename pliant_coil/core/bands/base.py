"""What a band answers for, whatever the head."""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.registry import styles_in
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, Part, Wires, WireSpec


class BandStyle(Part, ABC):
    """A style of band: its parameters, and how they become wires and their moves."""

    title: ClassVar[str]
    usual_wires: ClassVar[Mapping[str, WireSpec]]
    """The roles it needs, each with the wire that is usual for it."""
    main_role: ClassVar[str]
    """The role whose wire lies on the mandrel."""
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
    def forming(self, start_words: str, head: HeadStyle) -> list[Step]:
        """Steps that bring the wire on the mandrel."""

    def head_steps(self, head: HeadStyle) -> list[Step]:
        """The head's own steps, for the way this band brings its tails up."""
        return head.making("")


def all_bands() -> dict[str, type[BandStyle]]:
    """Every band style by name: one file each in this folder."""
    return styles_in("pliant_coil.core.bands", BandStyle)

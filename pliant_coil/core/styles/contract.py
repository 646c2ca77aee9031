"""The contract between band, head and finish. Nobody outside a style's file knows its name.

A head asks for an opening; a band is formed round it and hands on its wires' ends, the lanes that run through the head, and
a ledger of its shoulders; the head makes its work of them; what it doesn't use goes to the finish.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

from pliant_coil.core.styles.handed_on import Form, FormedBand, HammeredRing, HeadWork, Opening, Stack, Top, Warn, Wires
from pliant_coil.core.styles.parameters import Part, WireSpec
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.say import NOTHING, Say, say


class BandStyle(Part, ABC):
    """A style of band: its parameters, and how they become wires and their moves."""

    title: ClassVar[str]
    usual_wires: ClassVar[Mapping[str, WireSpec]]
    """The roles it needs, each with the wire that is usual for it."""
    main_role: ClassVar[str]
    """The role whose wire lies on the mandrel; empty where none does."""
    stretches_us: ClassVar[float] = 0.25
    """How many US sizes a finished one gives on a mandrel before its locks or joints suffer (common practice, no source)."""
    hides_splice: ClassVar[str] = ""
    """Where a new piece of wire goes on unseen when one runs out; empty where nothing hides it (common practice, no source)."""
    style: Any = ""

    @abstractmethod
    def tops(self) -> frozenset[Top]:
        """How it can be at the top, as it is set."""

    @abstractmethod
    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        """The band, formed on the mandrel round what the head asks for. Raises `Refusal` when it can't be made."""

    @abstractmethod
    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        """What is done at the bench to make it."""

    @abstractmethod
    def phrase(self) -> Say:
        """Its words in the ring's sentence."""

    def check(self, target_mm: float, wires: Wires) -> None:
        """Raise `Refusal` when it can't be made of these wires at all."""

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        """What its maker should know."""
        return []

    def roles(self) -> Mapping[str, WireSpec]:
        """The roles that it needs, as it is set."""
        return self.usual_wires

    def ends_each_side(self) -> int:
        """How many of its wires end on each side of a gap."""
        return 0

    def centre_line_mm(self, inside_mm: float, wires: Wires) -> float:
        """Radius of its wires' centre line on a form of this inside diameter."""
        wire = wires[self.main_role]
        return inside_mm / 2 + wire.centroid_mm

    def under_head_mm(self, wires: Wires) -> tuple[float, ...]:
        """Where strands pass under the middle of a head, along the finger."""
        return ()

    def stack(self, form_mm: float, wires: Wires) -> Stack | None:
        """Its rings side by side, formed at this diameter; None for a band of another kind."""
        return None

    def adjusts_mm(self, band: FormedBand) -> tuple[float, float] | None:
        """The inside diameters [mm] that its wearer can set it to; None for a closed band."""
        return None

    def gives_mm(self, band: FormedBand) -> float | None:
        """How much wider [mm] it can be pulled, all round, before it stays so; None for a closed band."""
        return None

    def hammered(self, band: FormedBand) -> HammeredRing | None:
        """What is read while its rings are hammered flat; None for bands that are not."""
        return None

    def start_mm(self, aim_mm: float) -> float:
        """A first guess of the mark that it is formed at."""
        return aim_mm

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        """Its parameters as version 2 writes them; what had another default then is written out."""
        return band


class HeadStyle(Part, ABC):
    """A style of head: its parameters, and what it makes of a band."""

    title: ClassVar[str]
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {}
    waits: ClassVar[bool] = False
    """Whether it leaves what the band hands on to a head to come."""
    usual_locks: ClassVar[int] = 2
    """Lock wraps each side where the maker says nothing."""
    least_locks: ClassVar[int] = 0
    hides_splice: ClassVar[str | None] = None
    """Where a new piece goes on unseen in its work; none of its own where the band says it, empty where nothing hides it."""
    style: Any = ""

    @abstractmethod
    def fits(self, band: BandStyle) -> Say:
        """Why it can't be made on this band; nothing where it can."""

    @abstractmethod
    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        """What it asks of the band. Raises `Refusal` when it can't be made at this size."""

    @abstractmethod
    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        """Its work on the band that was formed round its opening."""

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        """What is done at the bench to make it."""
        return []

    @abstractmethod
    def phrase(self, band: BandStyle) -> Say:
        """Its words in the ring's sentence."""

    def check(self, target_mm: float, wires: Wires) -> None:
        """Raise `Refusal` when it can't be made of these wires at all."""

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        """What its maker should know."""
        return []

    def roles(self, band: BandStyle) -> Mapping[str, WireSpec]:
        """The roles that it needs of its own on this band."""
        return self.usual_wires

    @classmethod
    def from_version_1(cls, head: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        """Its parameters as version 2 writes them."""
        return head


def lacks(band: BandStyle, *needed: Top) -> Say:
    """Why a head that needs these tops can't have this band; nothing where it can."""
    if Top.ALONE in band.tops():
        return Say("there is no band to make it on")
    missing = [top for top in needed if top not in band.tops()]
    return say("{band} band has no {missing} for it", band=band.title.lower(), missing=_TOPS[missing[0]]) if missing else NOTHING


_TOPS = {
    Top.THROUGH: "wire running through the top",
    Top.TAILS: "tails coming up at the top",
    Top.GAP: "ends left at the top",
    Top.ROOT: "two lanes to begin at a frame",
    Top.CLOSED: "closed top",
    Top.ENDS: "ends standing up beside its join",
}

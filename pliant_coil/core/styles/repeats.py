"""Whole repeats that fill a length: what is told of them, and their chart. Lengths in mm."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3


@dataclass(frozen=True, slots=True)
class Repeats:
    """How whole repeats fill a length: what is told of them and drawn as their chart."""

    name: str
    """The count that a solver may fix."""
    kind: Literal["weave", "bind", "braid"]
    program: str
    count: int
    repeat_mm: float
    made_mm: float
    target_mm: float
    wire_per_repeat_mm: float
    repeat_changes_mm: float
    """What one repeat more changes of the inside diameter; 0 where it only moves the gap."""
    chart: Callable[[], Chart]
    guide: Guide | None = None
    mirrored: bool = False
    runs: str = ""
    """For a binding: the runs as fitted, from the middle outwards."""


@dataclass(frozen=True, slots=True)
class ChartWire:
    """A wire that runs along a chart: its name, place and width."""

    name: str
    z_mm: float
    width_mm: float


@dataclass(frozen=True, slots=True)
class ChartPass:
    """A wrap on a chart: where along it, round which wires (numbered from 0)."""

    at_mm: float
    first: int
    last: int


@dataclass(frozen=True, slots=True)
class Chart:
    """One repeat, or all that is bound, as it is drawn enlarged."""

    wire_mm: float
    wires: tuple[ChartWire, ...] = ()
    passes: tuple[ChartPass, ...] = ()
    strands: tuple[tuple[Point3, ...], ...] = ()


@dataclass(frozen=True, slots=True)
class Guide:
    """A scrap of wire bent round the mandrel at a mark, marked at the gap, straightened: the length to weave."""

    wire_mm: float
    bent_at_mm: float
    """Inside diameter of the mandrel where it is bent."""
    length_mm: float

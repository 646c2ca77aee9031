"""What the gallery tells: each style as one ring, with its picture."""

from dataclasses import dataclass
from typing import Any, Literal

from pliant_coil.core.plan.told import Grams, Minutes, Mm, Text, Told

StyleKind = Literal["band", "head"]


@dataclass(kw_only=True, slots=True)
class GalleryWire(Told):
    """A wire that a gallery's ring needs."""

    role: str
    label: Text
    diameter_mm: Mm
    cut: Text
    cut_mm: Mm


@dataclass(kw_only=True, slots=True)
class PictureLine(Told):
    """A line of a picture: a wire's way, or a bead as [x, y, half length, half height]."""

    d: str
    width_mm: Mm
    metal: str
    colour: str | None = None
    bead: list[float] | None = None


@dataclass(kw_only=True, slots=True)
class Picture(Told):
    """A ring as lines in the order in which they cover each other, in mm; `box` is its view: left, top, width, height."""

    box: list[float]
    lines: list[PictureLine]


@dataclass(kw_only=True, slots=True)
class GalleryEntry(Told):
    """A style as one ring with its usual values."""

    kind: StyleKind
    style: str
    title: str
    ring: dict[str, Any]
    """The ring file to start from, its finger aside."""
    sentence: Text
    wires: list[GalleryWire]
    beads_mm: list[Mm]
    mass_g: Grams
    height: Text
    height_mm: Mm
    minutes: Minutes
    torch: bool
    steps: int
    picture: Picture


@dataclass(kw_only=True, slots=True)
class Gallery(Told):
    """Every style at one size."""

    entries: list[GalleryEntry]

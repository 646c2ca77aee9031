"""Every style as one ring with its usual values, at one size: what it takes, and its picture from its own moves."""

import math
from collections.abc import Iterator, Sequence
from functools import lru_cache
from typing import Any

from pliant_coil.core.making.fitting import bands_for, simplest_head
from pliant_coil.core.mechanics.curves import Point, Point3
from pliant_coil.core.moves.placed import Fate
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.gallery_model import Gallery, GalleryEntry, GalleryWire, Picture, PictureLine, StyleKind
from pliant_coil.core.plan.model import Plan, Strand
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import USUAL_BAND, USUAL_HEAD, all_bands, all_heads
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import listed

_ELEVATION = math.radians(48)
"""From how high a ring is looked at."""
_CLOSE_MM = 0.08
"""How far a picture's line may stand off its wire's own."""
_CHUNK = 7
"""Corners of a line that is painted at once; nearer ones cover farther ones."""

_Document = tuple[StyleKind, str, str, dict[str, Any]]


def gallery(inside_mm: float) -> Gallery:
    """All bands, then all heads, each planned at this inside diameter [mm]; what can't be made at it is left out."""
    return Gallery(entries=list(_entries(round(inside_mm, 3))))


@lru_cache(maxsize=8)
def _entries(inside_mm: float) -> tuple[GalleryEntry, ...]:
    found = []
    for kind, name, title, document in _documents():
        document = {**document, "finger": {"inside_circumference_mm": round(math.pi * inside_mm, 4)}}
        try:
            file = read_ring(document)
            told = plan(file, paths=True)
        except Refusal:
            continue
        found.append(_entry(kind, name, title, document, told))
    return tuple(found)


def _documents() -> list[_Document]:
    bands: list[_Document] = [
        ("band", name, style.title, {"band": {"style": name}, "head": {"style": head}})
        for name, style in all_bands().items()
        if (head := simplest_head(style()))
    ]
    heads: list[_Document] = []
    for name, style in all_heads().items():
        fitting = bands_for(style())
        if name != USUAL_HEAD and fitting:
            heads.append(("head", name, style.title, {"band": {"style": _usual_band(fitting)}, "head": {"style": name}}))
    return bands + heads


def _usual_band(fitting: Sequence[str]) -> str:
    """The registry's usual band where a head can be made on it, else the first one."""
    return USUAL_BAND if USUAL_BAND in fitting else fitting[0]


def _entry(kind: StyleKind, name: str, title: str, document: dict[str, Any], told: Plan) -> GalleryEntry:
    assert told.drawing is not None
    return GalleryEntry(
        kind=kind,
        style=name,
        title=title,
        ring=document,
        sentence=listed([phrase.text for phrase in told.sentence if phrase.part != "finger"]),
        wires=[GalleryWire(role=w.role, label=w.label, diameter_mm=w.width_mm, cut=w.cut, cut_mm=w.cut_mm) for w in told.wires],
        beads_mm=sorted({bead.diameter_mm for bead in told.beads}),
        mass_g=told.band.mass_g,
        height=told.band.height,
        height_mm=told.band.height_mm,
        minutes=told.minutes,
        torch=told.torch,
        steps=len(told.steps),
        picture=picture(told),
    )


def picture(told: Plan) -> Picture:
    """A ring seen from above and in front, as lines in the order in which they cover each other."""
    drawing = told.drawing
    assert drawing is not None
    wires = {(w.role, w.piece): w for w in told.wires}
    painted: list[tuple[float, PictureLine]] = []
    xs: list[float] = []
    ys: list[float] = []
    for strand in drawing.strands:
        wire = wires[strand.role, strand.piece]
        if wire.moves[strand.move].fate == Fate.REMOVED:
            continue
        for part in (part for shown in _shown(strand) for part in _chunks(_simpler(shown))):
            depth = sum(p[2] for p in part) / len(part)
            xs += [p[0] for p in part]
            ys += [p[1] for p in part]
            line = "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y, _ in part)
            painted.append((depth, PictureLine(d=line, width_mm=strand.height_mm, metal=wire.metal)))
    for bead in drawing.beads:
        x, y, depth = _seen((bead.x_mm, bead.y_mm, bead.z_mm))
        half = bead.length_mm / 2
        high = math.hypot(bead.height_mm * math.cos(_ELEVATION), bead.width_mm * math.sin(_ELEVATION)) / 2
        xs += [x - half, x + half]
        ys += [y - high, y + high]
        painted.append((depth, PictureLine(d="", width_mm=0, metal="", colour=bead.colour, bead=[round(v, 2) for v in (x, y, half, high)])))
    painted.sort(key=lambda pair: pair[0])
    left, top = min(xs) - 1, min(ys) - 1
    return Picture(
        box=[round(v, 2) for v in (left, top, max(xs) + 1 - left, max(ys) + 1 - top)],
        lines=[line for _, line in painted],
    )


def _shown(strand: Strand) -> Iterator[list[Point3]]:
    """The stretches of it that aren't inside a bead."""
    flat = [_seen(point) for point in strand.points]
    start = 0
    for k in (*strand.hidden, len(flat) - 1):
        if k > start:
            yield flat[start : k + 1]
        start = k + 1


def _chunks(points: list[Point3]) -> Iterator[list[Point3]]:
    """Short pieces of a line, each beginning where the last one ended."""
    for k in range(0, max(1, len(points) - 1), _CHUNK - 1):
        part = points[k : k + _CHUNK]
        if len(part) > 1:
            yield part


def _seen(point: Sequence[float]) -> Point3:
    """Across, down, and how near."""
    x, y, z = point
    c, s = math.cos(_ELEVATION), math.sin(_ELEVATION)
    return (x, -(y * c - z * s), y * s + z * c)


def _simpler(points: list[Point3]) -> list[Point3]:
    """The same line with corners left out that lie close to it (Douglas and Peucker)."""
    if len(points) < 3:
        return points
    keep = [False] * len(points)
    keep[0] = keep[-1] = True
    stack = [(0, len(points) - 1)]
    while stack:
        first, last = stack.pop()
        a, b = points[first], points[last]
        worst, where = 0.0, 0
        for k in range(first + 1, last):
            off = _off((points[k][0], points[k][1]), (a[0], a[1]), (b[0], b[1]))
            if off > worst:
                worst, where = off, k
        # Long straight parts are cut all the same: their depth changes along them.
        if worst > _CLOSE_MM or last - first > 40:
            where = where or (first + last) // 2
            keep[where] = True
            stack += [(first, where), (where, last)]
    return [p for p, kept in zip(points, keep, strict=True) if kept]


def _off(p: Point, a: Point, b: Point) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    length = math.hypot(dx, dy)
    if length < 1e-9:
        return math.dist(p, a)
    return abs(dx * (a[1] - p[1]) - dy * (a[0] - p[0])) / length

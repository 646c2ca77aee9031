"""Open frame: the base wire's middle bent into an outline; the band comes round to meet it, and its ends double it, woven to it."""

import math
from dataclasses import replace
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, Way, length_mm
from pliant_coil.core.mechanics.polygons import near_half, parallel, roundest, sharp_angles, turn_at
from pliant_coil.core.mechanics.program import read_program
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.figure import Figure
from pliant_coil.core.moves.placed import WIDEST_WIRES, Piece, Placed
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.moves.weaving import FrameWeaving
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.open_frame import steps
from pliant_coil.core.styles.outlines import CURVE_CORNERS, OutlineName, end_for_end, outline_corners
from pliant_coil.core.styles.parameters import choice, millimetres, number
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_PLAIN = "A1"


@dataclass(frozen=True)
class Frame:
    """An outline in its own plane, its middle at 0, the fork at −, the neck at + along the band; and the curve that doubles it."""

    outline: tuple[Point, ...]
    """Corners in order, from the neck's tip round by the near side (+ along the finger) and back."""
    offset: tuple[Point, ...]
    pitch_mm: float
    fork_mm: float
    neck_mm: float
    half: tuple[Point, ...]
    """The doubling curve's near half, from the fork to the neck."""
    inner: tuple[Point, ...]
    """The outline's near half, from the fork to the neck."""

    @property
    def span_mm(self) -> float:
        return self.fork_mm + self.neck_mm

    @property
    def half_mm(self) -> float:
        return length_mm(self.half)

    @property
    def around_mm(self) -> float:
        return length_mm((*self.outline, self.outline[0]))


class OpenFrame(HeadStyle):
    """A frame of the band's own wire, doubled all round."""

    title: ClassVar[str] = "Open frame"
    hides_splice = "at a corner, or where its halves meet"
    style: Literal["open-frame"] = choice("open-frame", "Head")
    outline: OutlineName = choice("diamond", "Outline")
    side_mm: float = millimetres(9.0, "Side", 4, 16, "Along the wire's middle, of a diamond, square, rectangle or polygon.")
    diameter_mm: float = millimetres(
        12.0, "Diameter", 6, 22, "Of a round outline, across a star's tips, or the length along the band of the others."
    )
    width_mm: float | None = millimetres(None, "Width", 3, 22, "Along the finger, of a rectangle, an oval, a marquise or a heart.")
    path: str = Field(
        "",
        title="Own outline",
        max_length=4000,
        description="The d of a closed SVG path, its x along the band, alike on both sides.",
        json_schema_extra={"rare": True},
    )
    points: int = number(5, "Points", 3, 8, "Of a star or a polygon.")
    corner_radius_mm: float = millimetres(0.3, "Bends, inside", 0, 3, rare=True)
    neck: Literal["crossed", "plain"] = choice(
        "crossed", "Neck", "Tails change sides as they leave the outline, or turn out on their own.", rare=True
    )
    frame_gap_mm: float | None = millimetres(None, "Gap to the doubling wire", 0.1, 2, "As wide as the weave wire unless given.", rare=True)
    frame_program: Literal["A2 AB2", "A3 AB1", "A1 AB1"] = choice("A2 AB2", "Frame's weave", "A the outer wire, B the outline.", rare=True)
    doubling_corner: Literal["pushed", "bent"] = choice("pushed", "Outer corners", rare=True)
    neck_at: Literal["tip", "opposite"] | None = choice(
        None, "Neck at", "The outline's tip unless given, or the point opposite.", rare=True
    )
    fork_at: Literal["tip", "opposite"] | None = choice(None, "Fork at", "Where the neck isn't.", rare=True)
    second_weave: Literal["rest", "new"] = choice(
        "rest", "Second half woven with", "The rest of the first wire, cut from it, or a new piece.", rare=True
    )

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.ROOT)

    def frame(self, wires: Wires) -> Frame:
        """The outline and its doubling for these wires."""
        gap = wires["weave"].size_mm if self.frame_gap_mm is None else self.frame_gap_mm
        pitch = wires["base"].size_mm + gap
        outline = self._corners()
        offset = parallel(outline, pitch)
        upper, fork, neck = near_half(offset, pitch / 2)
        inner, _, _ = near_half(outline, 0.0)
        return Frame(outline, offset, pitch, fork, neck, upper, inner)

    def _corners(self) -> tuple[Point, ...]:
        """Corners from the neck's tip (+ along the band) by the near side round."""
        usual = (
            0.6 * self.side_mm
            if self.outline == "rectangle"
            else self.diameter_mm * {"marquise": 0.45, "heart": 1.05}.get(self.outline, 0.7)
        )
        width = usual if self.width_mm is None else self.width_mm
        corners = outline_corners(self.outline, side=self.side_mm, across=self.diameter_mm, width=width, points=self.points, path=self.path)
        return end_for_end(corners) if self.neck_at == "opposite" or self.fork_at == "tip" else corners

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if self.neck_at is not None and self.neck_at == self.fork_at:
            refuse("head.fork_at", "neck and fork face opposite ways", "the other one, or neither")
        frame = self.frame(wires)
        radius = band.centre_line_mm(form.diameter_mm, wires)
        if frame.span_mm > 2 * math.pi * radius / 3 + 1e-9:
            share = 2 * math.pi * radius / 3 / frame.span_mm
            field = "head.side_mm" if self.outline in ("diamond", "square", "rectangle", "polygon") else "head.diameter_mm"
            most = (self.side_mm if field.endswith("side_mm") else self.diameter_mm) * share
            refuse(
                field,
                say("an outline {span} long covers more than a third of the ring", span=Length(frame.span_mm)),
                say("up to {most}", most=Length(math.floor(2 * most) / 2)),
            )
        wide = 2 * max(z for _, z in frame.outline) - wires["base"].size_mm
        if wide < 4 * wires["weave"].size_mm:
            refuse(
                "head.width_mm",
                "the fine wire hardly passes through so narrow a frame",
                say("{least} more", least=Thickness(4 * wires["weave"].size_mm - wide)),
            )
        if len(frame.outline) < CURVE_CORNERS // 2:
            # A rounded corner takes r·tan(turn/2) of both its sides.
            most = roundest(frame.outline)
            if self.corner_radius_mm + wires["base"].size_mm / 2 > most + 1e-9:
                inside = math.floor(10 * max(0.0, most - wires["base"].size_mm / 2)) / 10
                refuse("head.corner_radius_mm", "corners so round leave no sides", say("up to {most}", most=Thickness(inside)))
        sharpest = min(sharp_angles(frame.outline))
        if sharpest < math.radians(30):
            refuse("head.points", "the doubling wire can't follow so sharp a point", "fewer, blunter points")
        return Opening(root=True, span_mm=frame.span_mm, neck_mm=frame.neck_mm, facts=frame)

    def _weave(self, wires: Wires, frame: Frame, program: str) -> Weave:
        fine, base = wires["weave"].size_mm, wires["base"].size_mm
        return Weave(
            read_program(f"{program} AB1" if program == _PLAIN else program, 2, "head.frame_program"),
            2,
            base,
            fine,
            frame.pitch_mm - base,
            1.0,
        )

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        frame: Frame = opening.facts
        d = wires["base"].size_mm
        radius = band.radius_mm + (band.thickness_mm - d) / 2
        slot = band.slots[0]
        through = self._outlined(frame, radius, slot.left, slot.right, d)
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        for end in band.ends:
            if end.role == "weave":
                continue
            near = end.at[2] > 0
            half = frame.half if near else tuple((a, -z) for a, z in frame.half)
            # It butts the band's wire, which it meets at half a right angle.
            cut = Way.flat(half).part(0.0, frame.half_mm - d / math.sqrt(2))
            double = Figure("double", tuple((a, z) for a, z, _ in cut), 0.0, radius)
            name, backwards = "near" if near else "far", end.which == "first"
            begins = double.path()[0]
            # A band whose lanes lie further apart than the frame's comes in to it first.
            led = [Lead("to the fork", end.at, begins)] if math.dist(end.at, begins) > WIDEST_WIRES * d else []
            moves: list[tuple[str, Move]] = [*(("fork", move) for move in led), ("double", double)]
            onward[end.key] = tuple(Placed(f"{name}.{part}", move, backwards=backwards) for part, move in moves)
        counts = self._counts(frame, wires)
        tail = next(end for end in band.ends if end.role == "weave")
        onward[tail.key] = tuple(
            replace(p, backwards=tail.which == "first") for p in self._woven(frame, wires, radius, counts, "near", tail)
        )
        second = self._woven(frame, wires, radius, counts, "far", None)
        piece = Piece("weave.2", "weave", wires["weave"], second, use=Say("for the second half of the frame"))
        return HeadWork(
            through={0: through},
            onward=onward,
            pieces=(piece,),
            ledger=band.ledger,
            tied=True,
            height_mm=band.thickness_mm,
            facts=(frame, counts),
        )

    def _outlined(
        self, frame: Frame, radius: float, left: tuple[float, float, float], right: tuple[float, float, float], d: float
    ) -> tuple[Placed, ...]:
        """From the first lane through the neck round the outline and back through the neck to the second lane."""
        corners = frame.outline
        order = corners if left[2] > 0 else (corners[0], *reversed(corners[1:]))
        if self.neck == "crossed":
            # Each tail leaves on the other side: the outline is walked from the far side.
            order = (order[0], *reversed(order[1:]))
        outline = replace(self._bent("outline", (*order, order[0]), radius, d, frame), mark="middle", mark_share=0.5)
        path = outline.path()
        names: list[Move] = [Lead("neck", left, path[0]), outline, Lead("neck", path[-1], right)]
        return tuple(Placed(f"head.{name}", move) for name, move in zip(("neck1", "outline", "neck2"), names, strict=True))

    def _bent(self, label: str, corners: tuple[Point, ...], radius: float, d: float, frame: Frame) -> Figure:
        """The outline, or a part of it, with its corners as they are bent; a curve is followed as it is."""
        if len(frame.outline) >= CURVE_CORNERS // 2:
            return Figure(label, corners, 0.0, radius)
        return Figure(label, corners, self.corner_radius_mm + d / 2, radius, at_pliers_mm=d)

    def _counts(self, frame: Frame, wires: Wires) -> tuple[int, int, int]:
        """Wraps up to where the wires run side by side, repeats on a half, plain wraps at an outer corner."""
        w, p = wires["weave"].size_mm, frame.pitch_mm
        parting = max(2, math.ceil(p / w))
        weave = self._weave(wires, frame, self.frame_program)
        repeats = max(1, math.floor((frame.around_mm / 2 - 2 * p) / weave.cycle_mm))
        turn = math.pi - min(sharp_angles(frame.outline))
        sharp = turn > math.radians(20)
        corner = math.ceil(p * turn / (2 * w) if self.doubling_corner == "pushed" else p * math.tan(turn / 2) / w) if sharp else 0
        return parting, repeats, corner

    def outer_corners(self, frame: Frame) -> int:
        """Corners of a half that stand out, without those at neck and fork."""
        found = 0
        corners = frame.outline
        if len(corners) >= CURVE_CORNERS // 2:
            return 0
        for k, (_, z) in enumerate(corners):
            if z > 1e-6 and turn_at(corners, k) > math.radians(20):
                found += 1
        return found

    def _woven(
        self, frame: Frame, wires: Wires, radius: float, counts: tuple[int, int, int], side: str, tail: End | None
    ) -> tuple[Placed, ...]:
        """One half of the frame: wraps on the parted wire, repeats, plain wraps at the corners, the end on the outline."""
        parting, repeats, corner = counts
        bent = self._bent("inner", frame.inner, radius, wires["base"].size_mm, frame).flat()
        track = tuple(bent if side == "near" else [(a, -z) for a, z in bent])
        program, plain = self._weave(wires, frame, self.frame_program), self._weave(wires, frame, "A1")
        plain = replace(plain, groups=plain.groups[:1])
        corners = self.outer_corners(frame)
        moves: list[tuple[str, Move]] = []
        at = 0.0

        def lay(name: str, weave: Weave, count: int, label: str) -> None:
            nonlocal at
            if count:
                move = FrameWeaving(label, weave, count, radius, at, host="the frame", track=track)
                if side == "far":
                    move = replace(move, mirrored=True)
                moves.append((name, move))
                at += move.advance_mm

        lay("part", plain, parting + (2 if tail is None else 0), "one wire")
        parts = corners + 1
        for k in range(parts):
            share = repeats // parts + (1 if k < repeats % parts else 0)
            lay(f"weave{k + 1}", program, share, self.frame_program)
            if k < corners:
                lay(f"corner{k + 1}", plain, corner, "corner")
        lay("close", plain, 2, "close")
        led: list[tuple[str, Move]] = []
        if tail is not None:
            led = [("lead", Lead("to the frame", tail.at, _first(moves[0][1]), radius))]
        joined: list[tuple[str, Move]] = []
        for k, (name, move) in enumerate(moves):
            if k:
                joined.append((f"on{k}", Lead("on", _last(moves[k - 1][1]), _first(move))))
            joined.append((name, move))
        return tuple(Placed(f"{side}.{name}", move) for name, move in (*led, *joined))

    def phrase(self, band: BandStyle) -> Say:
        size = self.side_mm if self.outline in ("diamond", "square", "rectangle", "polygon") else self.diameter_mm
        return say(
            "an open {outline}, {size}", outline="outline of your own" if self.outline == "path" else self.outline, size=Thickness(size)
        )

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        frame: Frame = work.facts[0]
        if min(sharp_angles(frame.outline)) < math.radians(60) - 1e-6:
            return [
                Warn(
                    "frame-points",
                    Say("At points this sharp the doubling wire stands off: it needs plain wraps round the tip."),
                    "head.outline",
                )
            ]
        return []

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)


def _first(move: Move) -> Point3:
    assert isinstance(move, FrameWeaving)
    return move.begins


def _last(move: Move) -> Point3:
    assert isinstance(move, FrameWeaving)
    return move.ends

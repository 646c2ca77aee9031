"""Framed bead: a flat bead on the weave's own wire; the base wires run round its edge, woven to each other, and end in scrolls on its face."""

import math
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, dense
from pliant_coil.core.mechanics.framing import Edge, EdgeShape, Frame, band_lead
from pliant_coil.core.mechanics.program import read_program
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.figure import FigurePart
from pliant_coil.core.moves.loop import Scroll
from pliant_coil.core.moves.placed import WIDEST_WIRES, Piece, Placed
from pliant_coil.core.moves.stitch import Hitch
from pliant_coil.core.moves.straight import Lead, Straight, Through
from pliant_coil.core.moves.weaving import FrameWeaving
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.framed_bead import steps
from pliant_coil.core.styles.parameters import choice, millimetres, number
from pliant_coil.core.styles.stones import Gem, PlacedStone
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Length, Number, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_SHAPE_WORDS: dict[EdgeShape, str] = {"round": "round", "oval": "oval", "rectangle": "rectangular", "drop": "drop-shaped"}
_UPRIGHT, _TOO_FAR = math.radians(100), math.radians(115)


class FlatBead(Gem):
    """A flat bead drilled through its edge, along the band."""

    shape: EdgeShape = choice("round", "Face", "Its outline from above; a drop's tip points along the band.")
    diameter_mm: float = millimetres(12.0, "Bead's face", 6, 20, "Of a round one; of others what isn't given below.")
    length_mm: float | None = millimetres(None, "Length along the hole", 6, 24, rare=True)
    width_mm: float | None = millimetres(None, "Width along the finger", 6, 20, rare=True)
    corner_mm: float = millimetres(1.5, "Corner's rounding", 0.3, 8, "Of a rectangle's corners and a drop's tip.", rare=True)
    height_mm: float = millimetres(4.0, "Bead's thickness", 2, 8)
    hole_mm: float = millimetres(0.8, "Hole", 0.3, 3)

    @property
    def length(self) -> float:
        return self.diameter_mm if self.shape == "round" or self.length_mm is None else self.length_mm

    @property
    def width(self) -> float:
        return self.diameter_mm if self.shape == "round" or self.width_mm is None else self.width_mm

    @property
    def shorter(self) -> float:
        return min(self.length, self.width)

    def edge(self, *, turned: bool = False, shift_mm: float = 0.0) -> Edge:
        """Its outline, as the pair from the right meets it, or turned as the one from the left does."""
        return Edge(self.shape, self.length, self.width, self.corner_mm, turned=turned, shift_mm=shift_mm)


@dataclass(frozen=True)
class Facts:
    """The frame of the pair from the right and that of the pair from the left, each seen as if it came from the right."""

    right: Frame
    left: Frame
    weave: Weave
    shift_mm: float
    """How far the bead's middle lies to the right, so that both shoulders come up alike."""

    def frame(self, *, turned: bool) -> Frame:
        return self.left if turned else self.right

    def repeats(self, *, turned: bool) -> int:
        return max(3, math.floor(self.frame(turned=turned).arc_mm(inner=True) / self.weave.cycle_mm))


class FramedBead(HeadStyle):
    """A flat bead in a woven frame of the band's own ends."""

    title: ClassVar[str] = "Framed bead"
    style: Literal["framed-bead"] = choice("framed-bead", "Head")
    bead: FlatBead = Field(default_factory=FlatBead, title="Bead")
    frame_gap_mm: float | None = millimetres(
        None, "Gap in the frame", 0.15, 1, "Between its two wires; as wide as the weave wire unless given.", rare=True
    )
    shoulder_radius_mm: float | None = millimetres(None, "Shoulder's turn", 1, 5, rare=True)
    scrolls: Literal[4, 2, 0] = choice(4, "Scrolls", "On the bead's face: of all ends, of the inner ones, or none.")
    scroll_turns: float = number(1.25, "Turns of an inner scroll", 0.75, 2, rare=True)
    outer_scroll_turns: float = number(1.5, "Turns of an outer scroll", 0.75, 2, rare=True)
    scroll_eye_mm: float | None = millimetres(None, "Scroll's eye", 0.8, 3, "1.2 of the wire unless given.", rare=True)
    frame_program: str | None = Field(
        None, title="Frame's weave", max_length=40, description="A3 AB1 unless given, A the inner wire.", json_schema_extra={"rare": True}
    )
    second_weave: Literal["rest", "new"] = choice(
        "rest", "Second side woven with", "The rest of the first wire, cut from it, or a new piece.", rare=True
    )

    def fits(self, band: BandStyle) -> Say:
        missing = lacks(band, Top.GAP)
        if missing:
            return missing
        if "weave" not in band.roles() or band.ends_each_side() != 2:
            return Say("it takes a woven band of two base wires")
        return Say("")

    def check(self, target_mm: float, wires: Wires) -> None:
        b, d = self.bead, wires["base"].height_mm
        self._check_shape()
        if b.shorter < 6 * d - 1e-9:
            refuse(
                "head.bead.diameter_mm",
                say("{wire} won't go round so small a bead evenly", wire=wires["base"].words),
                say("{least} or more, or finer wire", least=Thickness(6 * d)),
            )
        if b.height_mm > 0.5 * b.shorter:
            refuse(
                "head.bead.height_mm",
                "the frame slides off the edge of so thick a bead",
                say("{most} or less; for a round bead, a nest", most=Thickness(b.shorter / 2)),
            )
        eye = self._eye(d)
        for field, turns in (("scroll_turns", self.scroll_turns), ("outer_scroll_turns", self.outer_scroll_turns)):
            across = eye + 2 * d + 2 * turns * d
            if (self.scrolls == 4 or (self.scrolls == 2 and field == "scroll_turns")) and across > 0.62 * b.shorter:
                most = max(0.75, (0.62 * b.shorter - eye - 2 * d) / (2 * d))
                refuse(
                    f"head.{field}",
                    say("two scrolls of {across} meet in the middle of the bead", across=Thickness(across)),
                    say("{most} turns, or finer wire", most=Number(math.floor(most * 4) / 4, 2)),
                )
        read_program(self.said_program, 2, "head.frame_program")

    def _check_shape(self) -> None:
        b = self.bead
        if b.shape == "rectangle" and 2 * b.corner_mm > b.shorter:
            refuse("head.bead.corner_mm", "corners so round leave no side", say("up to {most}", most=Thickness(b.shorter / 2)))
        if b.shape == "drop":
            if b.length < 1.15 * b.width:
                refuse("head.bead.length_mm", "so short a drop has no tip", say("at least {least}", least=Thickness(1.15 * b.width)))
            if b.corner_mm > b.width / 3:
                refuse("head.bead.corner_mm", "so round a tip makes it an oval", say("up to {most}", most=Thickness(b.width / 3)))

    @property
    def said_program(self) -> str:
        return self.frame_program or "A3 AB1"

    def _eye(self, d: float) -> float:
        return 1.2 * d if self.scroll_eye_mm is None else self.scroll_eye_mm

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        base, fine = wires["base"], wires["weave"]
        d, w = base.height_mm, fine.height_mm
        gap = w if self.frame_gap_mm is None else self.frame_gap_mm
        pitch = d + gap
        shoulder = 2 * d + pitch / 2 if self.shoulder_radius_mm is None else self.shoulder_radius_mm
        level = form.diameter_mm / 2 + self.bead.height_mm / 2
        b = self.bead

        def framed(*, turned: bool, shift_mm: float) -> Frame:
            return Frame(b.edge(turned=turned, shift_mm=shift_mm), w + d / 2, pitch, shoulder, d, level)

        # Both shoulders come up alike: a bead whose ends differ lies a little aside.
        shift = (framed(turned=True, shift_mm=0).meets_mm - framed(turned=False, shift_mm=0).meets_mm) / 2
        right, left = framed(turned=False, shift_mm=shift), framed(turned=True, shift_mm=-shift)
        radius = band.centre_line_mm(form.diameter_mm, wires)
        theta, lead = band_lead(right, radius)
        if b.length > 0.95 * form.diameter_mm or theta > _TOO_FAR:
            most = math.floor(0.8 * form.diameter_mm)
            refuse(
                "head.bead.diameter_mm",
                "so large a bead leaves too little of the ring round the finger",
                say("up to about {most}", most=Length(most)),
            )
        weave = Weave(read_program(self.said_program, 2, "head.frame_program"), 2, d, w, gap, 1.0)
        return Opening(gap_rad=theta, lead_mm=lead, corner_mm=d * math.tan(theta / 2), ties=True, facts=Facts(right, left, weave, shift))

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        facts: Facts = opening.facts
        theta = opening.gap_rad or 0.0
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        for end in band.ends:
            if end.role == "weave":
                continue
            turned, backwards = end.side == "left", end.which == "first"
            x, y, z = end.at
            start = (-x, y, -z) if turned else end.at
            # Turning towards +z, the wire on the other side is the inner one.
            inner = start[2] < 0
            moves = self._end(facts.frame(turned=turned), theta, start, opening.corner_mm, inner=inner)
            onward[end.key] = tuple(Placed(f"{end.name}.{name}", move, turned=turned, backwards=backwards) for name, move in moves)
        tail = next((end for end in band.ends if end.role == "weave"), None)
        fine = wires["weave"]
        if tail is not None:
            onward[tail.key] = self._first_half(facts, tail)
        second = Piece(
            "weave.2",
            "weave",
            fine,
            self._second_half(facts, far_left=tail is not None and tail.at[0] < 0),
            use=Say("for the second half of the frame"),
        )
        b = self.bead
        stone = PlacedStone(
            "bead",
            "head.bead.hole_mm",
            (facts.shift_mm, facts.right.level_mm, 0.0),
            b.length,
            b.width,
            b.height_mm,
            shape={"rectangle": "slab", "drop": "drop"}.get(b.shape, "disc"),
            hole_mm=b.hole_mm,
            passing=((fine, 1),),
            gem=b,
        )
        return HeadWork(
            onward=onward,
            pieces=(second,),
            stones=(stone,),
            ledger=band.ledger,
            tied=True,
            height_mm=b.height_mm + facts.right.wire_mm,
            facts=facts,
        )

    def _end(self, frame: Frame, theta: float, start: Point3, corner: float, *, inner: bool) -> list[tuple[str, Move]]:
        """A base wire's end on the right: bent into the frame's plane, round the bead, up to its face, and its scroll."""
        d = frame.wire_mm
        z = start[2]
        # The lead points up along the tangent; the bend turns it level, towards the bead.
        centre = (start[0] - d * math.sin(theta), start[1] - d * math.cos(theta), z)
        bend = Bend("bend", centre, d, theta, -theta, d, jaw=None)
        line = frame.line(inner)
        points = [(x, frame.level_mm, y) for x, y in line]
        trimmed = _after(points, corner)
        arc = FigurePart(
            "round the bead", lambda: dense(trimmed, 2.0), Say("round the shoulder and the bead's edge: the length of the curve")
        )
        end = trimmed[-1]
        before = trimmed[-2]
        face = frame.level_mm + self.bead.height_mm / 2 + d / 2
        reach = math.hypot(end[0], end[2])
        over = (end[0] * (reach - 2 * d) / reach, face, end[2] * (reach - 2 * d) / reach)
        bent, begins = bend.path()[-1], trimmed[0]
        # A band whose lanes lie further apart than the frame's comes in to it first.
        led = [("to-frame", Lead("to the frame", bent, begins))] if math.dist(bent, begins) > WIDEST_WIRES * d else []
        moves: list[tuple[str, Move]] = [("bend", bend), *led, ("frame", arc)]
        turns = self.scroll_turns if inner else self.outer_scroll_turns
        if self.scrolls == 4 or (self.scrolls == 2 and inner):
            moves.append(("lift", Lead("lift", end, over)))
            eye = self._eye(d)
            ahead = (end[0] - before[0], end[2] - before[2])
            size = math.hypot(*ahead)
            along: Point3 = (ahead[0] / size, 0.0, ahead[1] / size)
            # Towards the bead's middle, square to its own way.
            inwards = -1 if over[0] * -along[2] + over[2] * along[0] > 0 else 1
            towards: Point3 = (inwards * -along[2], 0.0, inwards * along[0])
            moves.append(("scroll", Scroll("scroll", eye / 2 + d / 2, d, turns, over, along, towards)))
        else:
            tip = (end[0] + 2 * d * (over[0] - end[0]) / (2 * d), end[1], end[2] + (over[2] - end[2]))
            moves.append(("tuck", Straight("tuck", end, tip)))
        return moves

    def _first_half(self, facts: Facts, tail: End) -> tuple[Placed, ...]:
        """The reel end: through the bead to the far pair, and round the bead with it."""
        # It comes from the tail's side and works the pair that comes up on the other.
        far_right = tail.at[0] < 0
        frame = facts.frame(turned=not far_right)
        reach, middle = self.bead.length / 2 + frame.off_mm, frame.edge.shift_mm
        through = Through("bead", (middle - reach, frame.level_mm, 0.0), (middle + reach, frame.level_mm, 0.0), mark="bead", mark_share=0.5)
        weave = self._frame_weave(facts, facts.repeats(turned=not far_right), turned=not far_right)
        backwards = tail.which == "first"
        x, y, z = tail.at
        start = tail.at if far_right else (-x, y, -z)
        moves: list[tuple[str, Move]] = [
            ("in", Lead("to the bead", start, through.start)),
            ("through", through),
            ("out", Lead("to the far pair", through.end, weave.begins)),
            ("frame", weave),
        ]
        return tuple(Placed(f"weave.{name}", move, turned=not far_right, backwards=backwards) for name, move in moves)

    def _frame_weave(self, facts: Facts, repeats: int, *, turned: bool) -> FrameWeaving:
        frame = facts.frame(turned=turned)
        return FrameWeaving(
            self.said_program,
            facts.weave,
            repeats,
            frame.level_mm,
            0.0,
            host="the frame's wires",
            track=frame.line(inner=True),
            first_on_track=True,
            outside_right=True,
            level_mm=frame.level_mm,
        )

    def _second_half(self, facts: Facts, *, far_left: bool) -> tuple[Placed, ...]:
        """The second side's fine wire: under the frame to the other pair, round the bead with it, the tie of head and band, and its end."""
        frame, weave = facts.frame(turned=far_left), facts.weave
        d, w = weave.base_mm, weave.wire_mm
        one, both = weave.loop_mm(1), weave.loop_mm(2)
        under = Hitch("under the frame", 2 * (frame.pitch_mm + d) + w, Say("under both pairs to the other side"))
        half = self._frame_weave(facts, self.second_repeats(facts, turned=far_left), turned=far_left)
        tie = Hitch(
            "tie to the shoulder",
            4 * both + 3 * one,
            Say("twice round both wires, once on the inner, round the band's pair and up between, once both, on the inner again"),
        )
        end = Hitch("end", both + 3 * one, Say("once round both, three on the inner wire"))
        return (
            Placed("weave.2.under", under),
            Placed("weave.2.frame", half, turned=far_left),
            Placed("weave.2.tie", tie),
            Placed("weave.2.end", end),
        )

    def second_repeats(self, facts: Facts, *, turned: bool) -> int:
        """Without the two whose place the tie and the end take."""
        return max(1, facts.repeats(turned=turned) - 2)

    def phrase(self, band: BandStyle) -> Say:
        b = self.bead
        if b.shape == "round":
            return say("a flat {size} bead framed", size=Thickness(b.diameter_mm))
        return say(
            "a flat {shape} bead, {long} by {wide}, framed", shape=_SHAPE_WORDS[b.shape], long=Thickness(b.length), wide=Thickness(b.width)
        )

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        facts: Facts = work.facts
        theta, _ = band_lead(facts.right, band.radius_mm)
        found = []
        if theta > _UPRIGHT:
            found.append(
                Warn(
                    "band-upright",
                    Say("The band stands straight up to so large a bead: the ring can turn on the finger."),
                    "head.bead.diameter_mm",
                )
            )
        if self.bead.height_mm < facts.right.wire_mm + facts.weave.wire_mm:
            found.append(Warn("frame-thicker", Say("The frame is thicker than the bead and stands above it."), "head.bead.height_mm"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)


def _after(points: list[Point3], cut_mm: float) -> list[Point3]:
    """A polyline without its first `cut_mm`."""
    gone = 0.0
    for k in range(1, len(points)):
        side = math.dist(points[k - 1], points[k])
        if gone + side > cut_mm:
            share = (cut_mm - gone) / side
            a, b = points[k - 1], points[k]
            return [(a[0] + (b[0] - a[0]) * share, a[1], a[2] + (b[2] - a[2]) * share), *points[k:]]
        gone += side
    return points[-2:]

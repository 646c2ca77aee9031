"""Outline: a heart, or loops in a row, bent in the middle of the band's own wire; both tails pass behind it and are the band."""

import math
import re
from collections.abc import Sequence
from functools import partial
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, turtle
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.moves.figure import FigurePart
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.parameters import choice, degrees, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task, look
from pliant_coil.core.words.figures import Article, Count, Degrees, Length, Thickness, Tolerance
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

Part = tuple[float, float]
"""A straight or an arc: its length [mm] and its turn [rad], to the left positive."""
_CRACKS = {"soft": 0.33, "half-hard": 0.25, "hard": 0.25}
_COAT_CRAZES = 0.25
_STEP = re.compile(r"(straight|left|right)\s+(\d+(?:\.\d+)?)(?:\s+(\d+(?:\.\d+)?))?")


@dataclass(frozen=True)
class _Sign:
    """Named parts in the sign's own plane, (along the band, away from the band's line), from the left exit to the right one."""

    parts: tuple[tuple[str, tuple[Point, ...]], ...]
    """Each with its points; the heights follow from where it lies in the sign."""
    lifted: tuple[tuple[float, float], ...]
    """Per part, height above the band's wire at its beginning and its end, in wires."""
    exit_mm: float
    width_mm: float
    height_mm: float
    below_mm: float
    """How far it reaches past the band's line towards its tip."""
    leg_mm: float = 0.0


class Outline(HeadStyle):
    """A sign bent in the middle of the band's wire."""

    title: ClassVar[str] = "Outline"
    style: Literal["outline"] = choice("outline", "Head")
    sign: Literal["heart", "loops", "own"] = choice("heart", "Sign")
    loops_count: int = number(2, "Loops in a row", 1, 3)
    program: str = Field(
        "",
        title="Own sign",
        max_length=300,
        description="One half from the middle outwards: straight 5, left 2.5 270 (radius and degrees), right 3 45.",
        json_schema_extra={"rare": True},
    )
    rod_mm: float = millimetres(4.0, "Rod of the lobes", 2, 8)
    tip_angle_deg: float = degrees(85.0, "Angle at the tip", 60, 110)
    lobe_gap_mm: float = millimetres(0.0, "Space between the lobes", 0, 2, "Touching lobes are firm; open ones spread in wear.")
    tip_bend_mm: float | None = millimetres(None, "Tip's bend", 0.4, 3, "Neutral radius; the wire's diameter unless given.", rare=True)
    lies: Literal["bowed", "flat"] = choice("bowed", "Lies", "Bowed to the band, or flat.", rare=True)
    tip_to: Literal["wrist", "nail"] = choice("wrist", "Tip towards the", rare=True)

    def fits(self, band: BandStyle) -> Say:
        if Top.CLOSED in band.tops():
            return Say("its rings are closed before a sign could be bent in them")
        return lacks(band, Top.THROUGH)

    def check(self, target_mm: float, wires: Wires) -> None:
        wire = wires["band"]
        strain = wire.height_mm / (self.rod_mm + wire.height_mm)
        most = _CRACKS[wire.temper]
        if strain > most:
            least = math.ceil(10 * wire.height_mm * (1 - most) / most) / 10
            refuse("head.rod_mm", say("{wire} cracks round so thin a rod", wire=wire.words), say("{least} or more", least=Thickness(least)))
        if self.sign == "own":
            self._own_parts()

    def shape(self, d: float) -> _Sign:
        """The sign in wire of this diameter. Raises `Refusal` for a program that doesn't come out level."""
        if self.sign == "heart":
            return self._heart(d)
        return self._loops(d) if self.sign == "loops" else self._own(d)

    def _heart(self, d: float) -> _Sign:
        r, phi, gap = (self.rod_mm + d) / 2, math.radians(self.tip_angle_deg) / 2, self.lobe_gap_mm
        rho = d if self.tip_bend_mm is None else self.tip_bend_mm
        leg = (r * (1 + math.cos(phi)) + (d + gap) / 2) / math.sin(phi)
        cut = rho * math.tan(math.pi / 2 - phi)
        line = leg * math.cos(phi) + r * math.sin(phi) - r
        rounded = rho * (1 / math.sin(phi) - 1)
        tip: list[Part] = [(rho * (math.pi / 2 - phi), math.pi / 2 - phi)]
        bottom = (0.0, rounded - line)
        half_tip = turtle(bottom, 0.0, tuple(tip))
        right_leg = turtle(half_tip[-1], math.pi / 2 - phi, ((leg - cut, 0.0),))
        sweep = 1.5 * math.pi + phi
        lobe = turtle(right_leg[-1], math.pi / 2 - phi, ((sweep * r, sweep),), 0.1)
        parts = (
            ("left.lobe", _mirrored(lobe)),
            ("left.leg", _mirrored(right_leg)),
            ("tip", (*_mirrored(half_tip), *half_tip[1:])),
            ("right.leg", tuple(right_leg)),
            ("right.lobe", tuple(lobe)),
        )
        exit_mm = r + (d + gap) / 2
        return _Sign(
            parts,
            ((0, 1), (1, 1), (1, 1), (1, 1), (1, 0)),
            exit_mm,
            2 * exit_mm + 2 * r + d,
            line + 2 * r + d - rounded,
            line - rounded + d / 2,
            leg,
        )

    def _loops(self, d: float) -> _Sign:
        r, k = (self.rod_mm + d) / 2, self.loops_count
        step = 2 * r + d + self.lobe_gap_mm
        down = 3 * d
        at = -(k - 1) * step / 2
        exit_mm = -at + down
        parts: list[tuple[str, tuple[Point, ...]]] = [("left.way", _level(-exit_mm, at))]
        lifted: list[tuple[float, float]] = [(0, 0)]
        for n in range(1, k + 1):
            parts.append((f"loop.{n}", tuple(turtle((at, 0.0), 0.0, ((2 * math.pi * r, 2 * math.pi),), 0.1))))
            lifted.append((0, 1))
            if n < k:
                parts.append((f"way.{n}", _level(at, at + step)))
                lifted.append((1, 0))
            at += step
        at -= step
        parts.append(("right.way", _level(at, exit_mm)))
        lifted.append((1, 0))
        return _Sign(tuple(parts), tuple(lifted), exit_mm, (k - 1) * step + 2 * r + d, 2 * r + d, 0.0)

    def _own_parts(self) -> tuple[Part, ...]:
        found = _STEP.findall(self.program)
        parts = tuple(
            (float(size), 0.0)
            if way == "straight"
            else (float(size) * math.radians(float(turn or 0)), (1 if way == "left" else -1) * math.radians(float(turn or 0)))
            for way, size, turn in found
        )
        turned = math.degrees(sum(turn for _, turn in parts)) % 360
        accepted = "such as left 1 45, straight 6, left 2.5 315"
        if not parts or len(parts) > 40:
            refuse("head.program", "no sign can be read from it", accepted)
        if min(turned, 360 - turned) > 1:
            refuse(
                "head.program",
                say("its last stretch isn't level with the band: all turns come to {sum}", sum=Degrees(math.radians(turned))),
                "turns that add up to 360°, or to none",
            )
        return parts

    def _own(self, d: float) -> _Sign:
        points = turtle((0.0, 0.0), 0.0, self._own_parts(), 0.1)
        drop = points[-1][1]
        half = [(x, y - drop) for x, y in points]
        if half[-1][0] <= d:
            refuse("head.program", "the tails would leave it on the wrong side", "a half that ends to the right of its middle")
        xs, ys = [x for x, _ in half], [y for _, y in half]
        wide = 2 * max(max(xs), -min(xs)) + d
        parts = (("left.half", _mirrored(half)), ("right.half", tuple(half)))
        return _Sign(parts, ((0, 1), (1, 0)), half[-1][0], wide, max(ys) - min(ys) + d, max(0.0, -min(ys)) + d / 2)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        wire = wires["band"]
        sign = self.shape(wire.height_mm)
        radius = band.centre_line_mm(form.diameter_mm, wires)
        if sign.width_mm > 0.95 * form.diameter_mm:
            refuse(
                "head.rod_mm", say("a sign {width} wide stands over the sides of this finger", width=Length(sign.width_mm)), "a thinner rod"
            )
        # Tails that go right round lock beyond the lobes.
        shoulder = (sign.width_mm / 2 + 1.5 * wire.height_mm) / radius
        return Opening(foot_rad=sign.exit_mm / radius, shoulder_rad=shoulder, across=True, facts=sign)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        sign: _Sign = opening.facts
        d, radius = band.strand_wire.height_mm, band.radius_mm
        slot = band.slots[0]
        flip = -1.0 if self.tip_to == "wrist" else 1.0
        found: list[Placed] = []
        end = len(sign.parts) - 1
        for k, ((name, points), (first, last)) in enumerate(zip(sign.parts, sign.lifted, strict=True)):
            half = "way" not in name
            way = partial(
                _laid, points, first * d, last * d, half=half, radius=radius, flat=radius + d if self.lies == "flat" else 0.0, flip=-flip
            )
            part = FigurePart(
                name.replace(".", " ").replace("left ", "").replace("right ", ""),
                partial(_joined, way, slot.left if k == 0 else None, slot.right if k == end else None),
                Say("straights and arcs of the sign: the length of the curve"),
                mark="middle" if k == len(sign.parts) // 2 else "",
                mark_share=0.0 if self.sign == "own" else 0.5,
            )
            found.append(Placed(f"head.{name}", part))
        return HeadWork(
            through={slot.lane: tuple(found)},
            tails=band.ends,
            ledger=band.ledger,
            tied=band.tied,
            height_mm=2 * d,
            facts=sign,
        )

    def phrase(self, band: BandStyle) -> Say:
        if self.sign == "heart":
            return say("a heart on {rod} rod", rod=Article(Thickness(self.rod_mm)))
        if self.sign == "loops":
            return say("{loops} in a row on {rod} rod", loops=Count(self.loops_count, "loop", "loops"), rod=Article(Thickness(self.rod_mm)))
        return Say("a sign of your own")

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        sign: _Sign = work.facts
        wire = band.strand_wire
        found = []
        if wire.metal.coated and wire.height_mm / (self.rod_mm + wire.height_mm) > _COAT_CRAZES:
            found.append(Warn("coat-crazes", Say("So thin a rod crazes the coat of this wire."), "head.rod_mm"))
        if self.sign == "heart" and self.tip_bend_mm is not None and self.tip_bend_mm < wire.height_mm - 1e-9:
            text = say("Pinch only until it stops, {least} or more: pressed on, the wire dents.", least=Thickness(wire.height_mm))
            found.append(Warn("tip-dents", text, "head.tip_bend_mm"))
        if sign.width_mm > 0.8 * band.inside_mm:
            text = say("The sign is {width} wide: on this finger it stands over the sides.", width=Length(sign.width_mm))
            found.append(Warn("sign-wide", text, "head.rod_mm"))
        if sign.below_mm > 7:
            found.append(
                Warn(
                    "tip-catches", say("Its tip reaches {mm} past the band and can catch.", mm=Length(sign.below_mm)), "head.tip_angle_deg"
                )
            )
        if self.lobe_gap_mm and wire.temper == "soft" and self.sign == "heart":
            found.append(
                Warn(
                    "sign-opens",
                    Say("Open lobes of soft wire spread in wear: close the gap, or bind the cleft with fine wire."),
                    "head.lobe_gap_mm",
                )
            )
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        sign: _Sign = work.facts
        placed = work.through[0]
        ids = tuple(p.id for p in placed)
        apart = say("{gap} between them", gap=Thickness(self.lobe_gap_mm)) if self.lobe_gap_mm else Say("touching")
        settle = Task(
            "settle",
            Phase.FLAT,
            Say("Press it flat with nylon pliers or a thumb; pull lobes apart a hair if they ride up."),
            checks=(
                Check(
                    say("{width} wide over all, within {off}.", width=Length(sign.width_mm), off=Tolerance(0.5)),
                    Say("Wider: press it together. Narrower: open it on the rod."),
                ),
            ),
            stage="sign",
        )
        if self.sign != "heart":
            says = (
                say(
                    "At the middle mark wind {n} on the {rod} rod, each a whole turn, one beside the other; both tails leave on one face.",
                    n=Count(self.loops_count, "loop", "loops"),
                    rod=Thickness(self.rod_mm),
                )
                if self.sign == "loops"
                else Say(
                    "Bend one half from the middle mark outwards on the card's view from above, then the other in mirror; both tails leave on one face."
                )
            )
            return [Task("sign", Phase.FLAT, says, makes=ids, checks=(look("Both halves alike; both tails on one face, level."),)), settle]
        tip = tuple(i for i in ids if i.endswith(("tip", "leg")))
        return [
            Task(
                "tip",
                Phase.FLAT,
                say(
                    "Chain-nose pliers at the middle mark, their jaws beside it: push both tails up to {angle}, and pinch the tip only until it stops.",
                    angle=Degrees(math.radians(self.tip_angle_deg)),
                ),
                makes=tip,
                checks=(look("Both legs alike.", "Too wide: press the legs together at the tip. Dented: start again."),),
                stage="sign",
            ),
            Task(
                "first-lobe",
                Phase.FLAT,
                say(
                    "Lay the {rod} rod against the inside of one leg, its near side {leg} from the tip; take the wire over its top and on round until it meets the leg. "
                    "Change hands and take the tail on, behind the leg, to straight out sideways.",
                    rod=Thickness(self.rod_mm),
                    leg=Length(sign.leg_mm),
                ),
                makes=("head.left.lobe",),
                checks=(
                    look(
                        "The lobe touches the middle line; the tail leaves square to it.", "Slide the rod along the leg before going round."
                    ),
                ),
                stage="sign",
            ),
            Task(
                "second-lobe",
                Phase.FLAT,
                Say("The other lobe in mirror, its tail on the same face of the sign."),
                makes=("head.right.lobe",),
                checks=(
                    look(
                        say("Both lobes equally high, {apart}, both tails on one face.", apart=apart),
                        "Tails on two faces: unwind the second lobe and go round the other way over.",
                    ),
                ),
                cautions=(cautions.KINK,),
                stage="sign",
            ),
            settle,
        ]


def _mirrored(points: Sequence[Point]) -> tuple[Point, ...]:
    """The left half of a right one, walked towards the middle."""
    return tuple((-x, y) for x, y in reversed(points))


def _level(first: float, last: float) -> tuple[Point, ...]:
    """Straight along the band's line."""
    return tuple(turtle((first, 0.0), 0.0, ((last - first, 0.0),)))


def _laid(points: Sequence[Point], first: float, last: float, *, half: bool, radius: float, flat: float, flip: float) -> list[Point3]:
    """Points of the sign on the band: bowed to it, or in a plane at `flat`.

    The height changes over the `half` of a lobe that lies at its exit, or all along a way between loops.
    """
    found: list[Point3] = []
    n = len(points) - 1
    for k, (u, v) in enumerate(points):
        share = k / n if n else 0.0
        gone = share if not half else min(1.0, 2 * share) if last > first else max(0.0, 2 * share - 1)
        height = first + (last - first) * (1 - math.cos(math.pi * gone)) / 2
        if flat:
            down = math.sqrt(max(0.0, radius**2 - u**2))
            top = max(first, last) or 1.0
            found.append((u, down + (flat - down) * height / top, flip * v))
        else:
            out = radius + height
            found.append(on_circle(out, u / out, flip * v))
    return found


def _joined(way: partial[list[Point3]], first: Point3 | None, last: Point3 | None) -> list[Point3]:
    """A part that begins, or ends, where the band's wire comes to it."""
    points = way()
    if first is not None:
        points[0] = first
    if last is not None:
        points[-1] = last
    return points

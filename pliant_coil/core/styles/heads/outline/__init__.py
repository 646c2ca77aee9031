"""Outline: a heart, or loops in a row, bent in the middle of the band's own wire; both tails pass behind it and are the band.

With its tip along the finger the tails leave it along the band. With its tip to the side they leave it along the finger: each is bent
round behind the sign, one to the left and one to the right, and slants back to the band's line.
"""

import math
from collections.abc import Sequence
from functools import partial
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.mechanics.curves import Point, Point3
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.moves.figure import FigurePart
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.outline import steps
from pliant_coil.core.styles.heads.outline.sign import Laid, Sign, heart, loops, on_its_side, own_parts, own_sign, upright
from pliant_coil.core.styles.parameters import choice, degrees, millimetres, number
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Article, Count, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_CRACKS = {"soft": 0.33, "half-hard": 0.25, "hard": 0.25}
_COAT_CRAZES = 0.25


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
    tip_to: Literal["wrist", "nail", "side"] = choice(
        "wrist", "Tip towards the", "To the side the tails leave along the finger and are bent round behind the sign.", rare=True
    )

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
            own_parts(self.program)

    def shape(self, d: float) -> Sign:
        """The sign in wire of this diameter. Raises `Refusal` for a program that doesn't come out level."""
        if self.sign == "heart":
            tip_bend = d if self.tip_bend_mm is None else self.tip_bend_mm
            return heart(d, rod_mm=self.rod_mm, tip_rad=math.radians(self.tip_angle_deg), gap_mm=self.lobe_gap_mm, tip_bend_mm=tip_bend)
        if self.sign == "loops":
            return loops(d, rod_mm=self.rod_mm, count=self.loops_count, gap_mm=self.lobe_gap_mm)
        return own_sign(d, self.program)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        wire = wires["band"]
        d = wire.height_mm
        sign = self.shape(d)
        if self.tip_to == "side":
            laid = on_its_side(sign, d, over=bool(band.under_head_mm(wires)))
        else:
            laid = upright(sign, 1 if self.tip_to == "wrist" else -1)
        radius = band.centre_line_mm(form.diameter_mm, wires)
        if laid.along_mm > 0.95 * form.diameter_mm:
            refuse(
                "head.rod_mm",
                say("a sign that takes {along} of the band stands over the sides of this finger", along=Length(laid.along_mm)),
                "a thinner rod",
            )
        if laid.foot_mm > 0.7 * form.diameter_mm:
            refuse(
                "head.tip_to",
                say("its tails would be the band only {foot} from its middle, half-way to the back", foot=Length(laid.foot_mm)),
                "wrist, nail or a smaller sign",
            )
        # Tails that go right round lock beyond the lobes.
        shoulder = (laid.reach_mm + 1.5 * d) / radius
        return Opening(foot_rad=laid.foot_mm / radius, shoulder_rad=shoulder, across=True, facts=laid)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        laid: Laid = opening.facts
        d, radius = band.strand_wire.height_mm, band.radius_mm
        slot = band.slots[0]
        found: list[Placed] = []
        end = len(laid.parts) - 1
        for k, ((name, points), (first, last)) in enumerate(zip(laid.parts, laid.lifted, strict=True)):
            # Tails that are led back lie on the mandrel, however the sign does.
            led = name.endswith(("bent-back", "down"))
            half = not led and "way" not in name
            way = partial(
                _laid,
                points,
                first * d,
                last * d,
                half=half,
                radius=radius,
                flat=radius + (1 + laid.base) * d if self.lies == "flat" and not led else 0.0,
            )
            part = FigurePart(
                name.removeprefix("left.").removeprefix("right.").replace(".", " ").replace("-", " "),
                partial(_joined, way, slot.left if k == 0 else None, slot.right if k == end else None),
                Say("straights and arcs of the sign: the length of the curve"),
                mark="middle" if k == len(laid.parts) // 2 else "",
                mark_share=0.0 if self.sign == "own" else 0.5,
            )
            found.append(Placed(f"head.{name}", part))
        return HeadWork(
            through={slot.lane: tuple(found)},
            tails=band.ends,
            ledger=band.ledger,
            tied=band.tied,
            height_mm=(2 + laid.base) * d,
            facts=laid,
        )

    def phrase(self, band: BandStyle) -> Say:
        if self.sign == "heart":
            lying = "a heart on its side, on {rod} rod" if self.tip_to == "side" else "a heart on {rod} rod"
            return say(lying, rod=Article(Thickness(self.rod_mm)))
        if self.sign == "loops":
            return say("{loops} in a row on {rod} rod", loops=Count(self.loops_count, "loop", "loops"), rod=Article(Thickness(self.rod_mm)))
        return Say("a sign of your own")

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        laid: Laid = work.facts
        wire = band.strand_wire
        found = []
        if wire.metal.coated and wire.height_mm / (self.rod_mm + wire.height_mm) > _COAT_CRAZES:
            found.append(Warn("coat-crazes", Say("So thin a rod crazes the coat of this wire."), "head.rod_mm"))
        if self.sign == "heart" and self.tip_bend_mm is not None and self.tip_bend_mm < wire.height_mm - 1e-9:
            text = say("Pinch only until it stops, {least} or more: pressed on, the wire dents.", least=Thickness(wire.height_mm))
            found.append(Warn("tip-dents", text, "head.tip_bend_mm"))
        if laid.along_mm > 0.8 * band.inside_mm:
            text = say("The sign takes {along} of the band: on this finger it stands over the sides.", along=Length(laid.along_mm))
            found.append(Warn("sign-wide", text, "head.rod_mm"))
        if laid.beside_mm > 7:
            text = say("It reaches {mm} past the band's line and can catch.", mm=Length(laid.beside_mm))
            found.append(Warn("tip-catches", text, "head.tip_angle_deg"))
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
        return steps.tasks(self, band, work)


def _laid(points: Sequence[Point], first: float, last: float, *, half: bool, radius: float, flat: float) -> list[Point3]:
    """Points of the sign, (along the band, along the finger), on the band: bowed to it, or in a plane at `flat`.

    The height changes over the `half` of a lobe that lies at its exit, or all along a way between loops.
    """
    found: list[Point3] = []
    n = len(points) - 1
    for k, (x, z) in enumerate(points):
        share = k / n if n else 0.0
        gone = share if not half else min(1.0, 2 * share) if last > first else max(0.0, 2 * share - 1)
        height = first + (last - first) * (1 - math.cos(math.pi * gone)) / 2
        if flat:
            down = math.sqrt(max(0.0, radius**2 - x**2))
            found.append((x, down + (flat - down) * height / (flat - radius), z))
        else:
            out = radius + height
            found.append(on_circle(out, x / out, z))
    return found


def _joined(way: partial[list[Point3]], first: Point3 | None, last: Point3 | None) -> list[Point3]:
    """A part that begins, or ends, where the band's wire comes to it."""
    points = way()
    if first is not None:
        points[0] = first
    if last is not None:
        points[-1] = last
    return points

"""A wire's end that runs out under a stone, stands up at its edge, and turns over it: a prong, or a claw folded over a rough stone."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, length_mm, round_circle
from pliant_coil.core.moves.base import Counted, Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Thickness
from pliant_coil.core.words.say import Say, say

_BEND_STEPS = 6


@dataclass(frozen=True)
class Prong(Move):
    """From `start` along `run_mm` to `foot` under the stone's edge, up `wall_mm`, over the edge by a lip.

    The foot and the bend over the edge have the neutral radius `bend_mm`; the lip is part of a turn, `lip_turns`, of the
    neutral radius `lip_radius_mm`. The run has come up to the stone's back where the foot begins, so for one that rises the length
    is a little more than run + wall + ρ − 2(2 − π/2)ρ + lip. `wire_mm` stands for the jaw.
    """

    start: Point3
    foot: Point3
    run_mm: float
    wall_mm: float
    bend_mm: float
    lip_radius_mm: float
    lip_turns: float
    wire_mm: float
    kind: ClassVar[str] = "prong"
    seconds: ClassVar[float] = 120.0
    hand: ClassVar[HandKind] = "prong"
    counted: ClassVar[Counted | None] = None

    @property
    def lip_mm(self) -> float:
        return 2 * math.pi * self.lip_radius_mm * self.lip_turns

    @property
    def length_mm(self) -> float:
        return self._to_the_foot_mm + math.pi * self.bend_mm + self.wall_mm - 2 * self.bend_mm + self.lip_mm

    @property
    def _to_the_foot_mm(self) -> float:
        """From the start to where the first bend begins, level with the foot."""
        level = math.hypot(self.foot[0] - self.start[0], self.foot[2] - self.start[2])
        return math.hypot(level - self.bend_mm, self.foot[1] - self.start[1])

    @property
    def above_foot_mm(self) -> float:
        """What stands above the first bend when it is trimmed: wall and lip."""
        return self.length_mm - self._to_the_foot_mm - self.bend_mm

    @property
    def jaw_mm(self) -> float:
        return max(0.0, self._to_the_foot_mm - self.wire_mm)

    def arithmetic(self) -> Say:
        return say(
            "{run} under the stone + {wall} up its side, between two bends of π/2 × {bend} each, + {lip} of lip",
            run=Thickness(self._to_the_foot_mm),
            wall=Thickness(self.wall_mm - 2 * self.bend_mm),
            bend=Thickness(self.bend_mm),
            lip=Thickness(self.lip_mm),
        )

    def path(self) -> list[Point3]:
        x1, y1, z1 = self.foot
        level = math.hypot(x1 - self.start[0], z1 - self.start[2]) or 1.0
        out_x, out_z = (x1 - self.start[0]) / level, (z1 - self.start[2]) / level
        rho = self.bend_mm
        points = [self.start]
        # The first bend: the run has come up to the stone's back, along which it turns straight up.
        for k in range(_BEND_STEPS + 1):
            turn = math.pi / 2 * k / _BEND_STEPS
            back, up = rho * (1 - math.sin(turn)), rho * (1 - math.cos(turn))
            points.append((x1 - out_x * back, y1 + up, z1 - out_z * back))
        # The wall, then the bend inwards over the edge.
        top = y1 + self.wall_mm
        for k in range(_BEND_STEPS + 1):
            turn = math.pi / 2 * k / _BEND_STEPS
            inwards, y = rho * (1 - math.cos(turn)), top - rho + rho * math.sin(turn)
            points.append((x1 - out_x * inwards, y, z1 - out_z * inwards))
        # The lip curls upwards and back on itself, on the stone's face.
        at = (x1 - out_x * rho, top, z1 - out_z * rho)
        steps = max(4, round(20 * self.lip_turns))
        for k in range(1, steps + 1):
            turn = 2 * math.pi * self.lip_turns * k / steps
            on, y = self.lip_radius_mm * math.sin(turn), self.lip_radius_mm * (1 - math.cos(turn))
            points.append((at[0] - out_x * on, at[1] + y, at[2] - out_z * on))
        return points


@dataclass(frozen=True)
class Claw(Move):
    """From `start` under the stone to where its edge begins to round (`edge`), up and over its rounded edge, and on its top by `lip_mm`.

    `bend_mm` is the neutral radius round the stone's edges, `wall_mm` what is straight between them. Length: leg +
    π·(ρ + d/2) + (T − 2ρ) + lip.
    """

    start: Point3
    edge: Point3
    bend_mm: float
    wall_mm: float
    lip_mm: float
    wire_mm: float
    kind: ClassVar[str] = "claw"
    seconds: ClassVar[float] = 120.0
    hand: ClassVar[HandKind] = "prong"

    @property
    def leg_mm(self) -> float:
        return length_mm(self._leg())

    def _leg(self) -> list[Point3]:
        """From the base, which lies on the band's circle, to the stone's edge."""
        return round_circle(self.start, self.edge, math.hypot(self.start[0], self.start[1]))

    @property
    def length_mm(self) -> float:
        return self.leg_mm + math.pi * self.bend_mm + self.wall_mm + self.lip_mm

    @property
    def jaw_mm(self) -> float:
        return max(0.0, self.leg_mm - self.wire_mm)

    def arithmetic(self) -> Say:
        return say(
            "{leg} under the stone + π × {bend} round its edges + {wall} up its side + {lip} on top",
            leg=Thickness(self.leg_mm),
            bend=Thickness(self.bend_mm),
            wall=Thickness(self.wall_mm),
            lip=Thickness(self.lip_mm),
        )

    def path(self) -> list[Point3]:
        x, y, z = self.edge
        out = 1.0 if x >= self.start[0] else -1.0
        points = self._leg()[:-1]
        for k in range(_BEND_STEPS + 1):
            turn = math.pi / 2 * k / _BEND_STEPS
            points.append((x + out * self.bend_mm * math.sin(turn), y + self.bend_mm * (1 - math.cos(turn)), z))
        top = y + self.bend_mm + self.wall_mm
        for k in range(_BEND_STEPS + 1):
            turn = math.pi / 2 * k / _BEND_STEPS
            points.append((x + out * self.bend_mm * math.cos(turn), top + self.bend_mm * math.sin(turn), z))
        return [*points, (x - out * self.lip_mm, top + self.bend_mm, z)]

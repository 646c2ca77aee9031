"""A bend at pliers, or against a bead."""

import math
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, steps_for
from pliant_coil.core.moves.base import Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Degrees, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Bend(Move):
    """In the ring's plane, about `centre`, the neutral line `radius_mm` away, from `from_rad` over `sweep_rad`.

    Angles as in the ring: from the top, clockwise positive. `wire_mm` is the wire's diameter: a bend lands about
    that far past the jaw (common practice, no source), so the jaw stands that much short of it.
    """

    centre: Point3
    radius_mm: float
    from_rad: float
    sweep_rad: float
    wire_mm: float
    jaw: Literal["before", "after"] | None = "before"
    """On which side the pliers hold it: before its start or past its end; None where it is bent by hand, or against what is there already."""
    kind: ClassVar[str] = "bend"
    hand: ClassVar[HandKind] = "straight"

    @property
    def length_mm(self) -> float:
        return self.radius_mm * abs(self.sweep_rad)

    @property
    def jaw_mm(self) -> float | None:
        if self.jaw is None:
            return None
        return -self.wire_mm if self.jaw == "before" else self.length_mm + self.wire_mm

    def arithmetic(self) -> Say:
        return say(
            "{angle} with the neutral line {radius} from the corner", angle=Degrees(abs(self.sweep_rad)), radius=Thickness(self.radius_mm)
        )

    def path(self) -> list[Point3]:
        x, y, z = self.centre
        steps = steps_for(self.radius_mm, self.sweep_rad, least=4)
        angles = [self.from_rad + self.sweep_rad * k / steps for k in range(steps + 1)]
        return [(x + self.radius_mm * math.sin(a), y + self.radius_mm * math.cos(a), z) for a in angles]

"""A wrap round a hoop that is left standing out as a long fold, and the fold twisted."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.base import Counted
from pliant_coil.core.moves.hoop_wrap import HoopWrap
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Length, Thickness
from pliant_coil.core.words.say import Say, say

_PER_LAY = 10


@dataclass(frozen=True)
class Spike(HoopWrap):
    """A fold of `height_mm` when twisted, one full turn of its two wires every `lay_mm`.

    Length: ℓ + 2·height·√(1 + (πw/lay)²), each wire a helix of the wire's own radius; before it is twisted the fold is that much longer.
    """

    height_mm: float = 4.0
    lay_mm: float = 2.0
    kind: ClassVar[str] = "spike"
    seconds: ClassVar[float] = 75.0
    hand: ClassVar[HandKind] = "spike"
    counted: ClassVar[Counted | None] = Counted("spike", step=1, least=1)

    @property
    def fold_mm(self) -> float:
        """Height of the fold before it is twisted."""
        return self.height_mm * math.hypot(1, math.pi * self.profile.width_mm / self.lay_mm)

    @property
    def full_turns(self) -> float:
        """Full turns of the twist."""
        return self.height_mm / self.lay_mm

    @property
    def length_mm(self) -> float:
        return self.wraps * (math.hypot(self.loop_mm, self.pitch_mm) + 2 * self.fold_mm)

    def arithmetic(self) -> Say:
        return say(
            "{loop} round the hoop + 2 × {fold}, which twisted every {lay} stands {height} high",
            loop=Thickness(math.hypot(self.loop_mm, self.pitch_mm)),
            fold=Length(self.fold_mm),
            lay=Thickness(self.lay_mm),
            height=Length(self.height_mm),
        )

    def path(self) -> list[Point3]:
        loop = self._loop
        n = len(loop)
        out = self.bundle.rounding_mm + self.profile.centroid_mm
        widest = max(u for u, _ in loop)
        far = [k for k in range(n) if loop[k][0] > widest - 1e-9]
        half = self.profile.width_mm / 2
        omega = 2 * math.pi / self.lay_mm
        # Where the loop would pass the hoop's outside it goes out along the spike and comes back, its two wires close together: at half pace.
        paces = [math.dist(loop[k], loop[(k + 1) % n]) * (0.5 if far[0] <= k < far[-1] else 1.0) for k in range(n)]
        around = sum(paces)
        points: list[Point3] = []
        gone = 0.0
        for k in range(n + 1):
            at = self.from_rad + self.step_rad * gone / around
            if not far[0] < k < far[-1]:
                points.append(self.hoop.at(at, *loop[k % n]))
            if k == far[0]:
                back = at + self.step_rad * sum(paces[far[0] : far[-1]]) / around
                points += self._stem(at, (at + back) / 2, out, half, omega, 1)
                points += self._stem(back, (at + back) / 2, out, half, omega, -1)[::-1]
            gone += paces[k % n] if k < n else 0.0
        return points

    def _stem(self, base: float, tip: float, out: float, half: float, omega: float, sign: int) -> list[Point3]:
        """One of the two wires, from the hoop to the tip."""
        steps = max(4, math.ceil(self.full_turns * _PER_LAY))
        # The corners stand a little outside the helix, so that its sides are as long as the arcs.
        turn = omega * self.height_mm / steps
        r = half * (turn / 2) / math.sin(turn / 2)
        first = sign if self._goes_up else -sign
        found = []
        for k in range(steps + 1):
            s = self.height_mm * k / steps
            at = tip + (base - tip) * (1 - s / self.height_mm)
            aside = first * r * math.sin(omega * s)
            found.append(self.hoop.at(at + aside / (self.hoop.radius_mm + out + s), out + s, first * r * math.cos(omega * s)))
        return found

    @property
    def _goes_up(self) -> bool:
        """Whether the loop reaches its outside at its upper edge."""
        loop = self._loop
        out = max(u for u, _ in loop)
        far = [v for u, v in loop if u > out - 1e-9]
        return far[0] >= far[-1]

"""A face of a bundle's ends: coils laid side by side across a join, hooked round its feet, in an oval. Derivations in docs/handbook.md."""

import math

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.trade.profiles import Profile


@dataclass(frozen=True)
class Face:
    """A face of a bundle's ends: all in mm, the join reaching ±`half_rad` (docs/handbook.md)."""

    square_mm: float
    bind: Profile
    strands: int
    half_rad: float
    inside_mm: float

    @property
    def coil_mm(self) -> float:
        """q: outside of a square wound round by the binder."""
        return self.square_mm + 2 * self.bind.height_mm

    @property
    def joined_mm(self) -> float:
        """T: how thick the joined band is."""
        return 2 * self.square_mm + 2 * self.bind.height_mm

    @property
    def radius_mm(self) -> float:
        """R_a: of the coils' middle line."""
        return self.inside_mm / 2 + self.joined_mm + self.coil_mm / 2

    @property
    def foot_mm(self) -> float:
        """How wide the joined band is."""
        return self.strands * self.square_mm + 2 * self.bind.height_mm

    def across_mm(self) -> float:
        """From foot to foot."""
        return 2 * self.half_rad * self.radius_mm

    def hook_mm(self, hook_rad: float, outside: bool) -> float:
        """Round the other foot; a second end follows the first outside."""
        return hook_rad * (self.foot_mm + self.coil_mm + (self.coil_mm + self.square_mm if outside else 0.0)) / 2

    @property
    def _oval(self) -> tuple[float, float]:
        """Half-axes of the oval along its edge."""
        return self.half_rad * self.radius_mm + self.foot_mm / 2, self.coil_mm + self.square_mm / 2

    def oval_mm(self) -> float:
        """Half of that oval."""
        return half_ellipse_mm(*self._oval)

    def half_oval(self, parts: int = 48) -> list[Point]:
        """The same as corners, (along the band, along the finger), from one end to the other."""
        a, b = self._oval
        return [(-a * math.cos(math.pi * k / parts), b * math.sin(math.pi * k / parts)) for k in range(parts + 1)]

    def squares_at(self, aside_mm: float, squares: int, outwards: int) -> Bundle:
        """So many squares side by side, the first with its middle there along the finger, the others beyond it, to be wound round."""
        half = self.square_mm / 2
        ends = (aside_mm - outwards * half, aside_mm + outwards * (2 * squares - 1) * half)
        return Bundle(tuple((out, z) for out in (-half, half) for z in ends), 0.0)

    def foot_round_mm(self) -> float:
        """Once round the foot, through the ring."""
        return 2 * (self.strands * self.square_mm + self.joined_mm) + 2 * math.pi * self.bind.centroid_mm

    @property
    def rise_mm(self) -> float:
        """A quarter bend at the foot."""
        return math.pi / 2 * self.coil_mm / 2

    def coils_that_fit(self, hook_rad: float) -> int:
        """Coils of the binder side by side on a sweep, from its rise to the end of its hook."""
        return math.floor((self.rise_mm + self.across_mm() + self.hook_mm(hook_rad, outside=False)) / self.bind.width_mm)

    def straight_mm(self) -> float:
        """Beside the coils, from foot to foot."""
        return 2 * self.half_rad * (self.radius_mm - self.coil_mm / 2 + self.square_mm / 2)

    def loop_mm(self, squares: int) -> float:
        """A coil of the binder round so many squares, with its advance."""
        return math.hypot(self.squares_at(0.0, squares, 1).loop_mm(self.bind.centroid_mm), self.bind.width_mm)


def half_ellipse_mm(a: float, b: float) -> float:
    """Half of an ellipse's perimeter (Ramanujan's second formula)."""
    h = ((a - b) / (a + b)) ** 2
    return math.pi * (a + b) * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h))) / 2

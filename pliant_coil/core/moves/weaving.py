"""Weave: one wire's way round the base wires of a woven band."""

from dataclasses import replace
from typing import ClassVar, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import CHORD_MM, Point, Point3, Way, dense
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves.base import Counted, Move, on_band, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, listed, say


@dataclass(frozen=True)
class Weaving(Move):
    """`cycles` of `weave` along the base wires, whose neutral line runs `radius_mm` from the axis.

    The stretch begins `from_mm` along the band, counted from its bottom, clockwise positive; `backwards` goes the
    other way: `mirrored` leans the other way too, otherwise the lean stays. `half` is 0 or 1 for one half of a folded wire.
    """

    weave: Weave
    cycles: int
    radius_mm: float
    from_mm: float
    backwards: bool = False
    mirrored: bool = False
    half: int | None = None
    straight_from_mm: float | None = None
    """How far from the band's bottom the base wires leave the circle as tangents."""
    kind: ClassVar[str] = "weave"
    seconds: ClassVar[float] = 7.0
    """For each wrap of its cycles."""
    hand: ClassVar[HandKind] = "weave"
    counted: ClassVar[Counted | None] = Counted("cycle", most=400)

    @property
    def cycle_wire_mm(self) -> float:
        """Wire of one cycle."""
        if self.half is None:
            return self.weave.wire_per_cycle_mm
        return self.weave.half_mm(self.weave.groups[self.half])

    @property
    def length_mm(self) -> float:
        return self.cycles * self.cycle_wire_mm

    @property
    def takes_s(self) -> float:
        groups = self.weave.groups if self.half is None else (self.weave.groups[self.half],)
        return self.cycles * sum(group.wraps for group in groups) * self.seconds

    @property
    def count(self) -> float:
        return self.cycles

    @property
    def advance_mm(self) -> float:
        return self.cycles * self.weave.cycle_mm

    def arithmetic(self) -> Say:
        groups = self.weave.groups if self.half is None else (self.weave.groups[self.half],)
        wraps = [say("{n} × {loop} on {name}", n=g.wraps, loop=Thickness(self.weave.wrap_mm(g.wires)), name=g.name) for g in groups]
        if self.half is not None and self.weave.past_mm:
            wraps.append(say("{past} past the other half’s", past=Thickness(self.weave.past_mm)))
        return say(
            "{cycles} × {each} a repeat ({wraps})",
            cycles=Number(self.cycles),
            each=Thickness(self.cycle_wire_mm),
            wraps=listed(wraps, " + "),
        )

    def _cycle(self) -> list[Point3]:
        return self.weave.cycle_points() if self.half is None else self.weave.half_points(self.half)

    @cached_property
    def _pressed_mm(self) -> float:
        """How far under the base wires' middle the mandrel presses it, whichever side was on top."""
        return min(out for _, _, out in self._cycle())

    def _laid(self, k: int, point: Point3) -> Point3:
        """A point of cycle `k` on the band."""
        s, z, out = point
        sense = -1 if self.backwards else 1
        # Going the other way without mirroring: the work was turned like a page, so what was on top is underneath.
        flip = -1 if self.backwards and not self.mirrored else 1
        along = self.from_mm + sense * (k * self.weave.cycle_mm + s)
        return on_band(self.radius_mm, along, max(flip * out, self._pressed_mm), z, self.straight_from_mm)

    @property
    def begins(self) -> Point3:
        return self._laid(0, self._cycle()[0])

    @property
    def ends(self) -> Point3:
        return self._laid(self.cycles - 1, self._cycle()[-1])

    def path(self) -> list[Point3]:
        cycle = self._cycle()
        return [self._laid(k, point) for k in range(self.cycles) for point in cycle]

    def _counted(self, count: float) -> Self:
        return replace(self, cycles=round(count))

    def _after(self, done: float) -> Self:
        on = (-1 if self.backwards else 1) * done * self.weave.cycle_mm
        return replace(self, cycles=round(self.cycles - done), from_mm=self.from_mm + on)


@dataclass(frozen=True)
class FrameWeaving(Weaving):
    """The same along a frame: on `track`, (along the band from the frame's middle, along the finger), the inner wire's own line.

    The other wire runs a pitch outside it, to the left of the track or to its right; the weave advances on the track. It begins
    `from_mm` along it.
    """

    track: tuple[Point, ...] = ()
    first_on_track: bool = False
    """Whether the first letter's wire is the one on the track, and the other runs outside it."""
    outside_right: bool = False
    level_mm: float | None = None
    """Height of a frame that lies flat; laid on the band's circle where it is None."""

    def _flat(self, k: int, point: Point3) -> Point3:
        """A point of cycle `k` on the unrolled band: along it, away from it, along the finger."""
        s, z, out = point
        (a, b, _), (da, db, _) = self._way.at(self.from_mm + k * self.weave.cycle_mm + s)
        aside = self.weave.pitch_mm / 2 + (z if self.first_on_track else -z)
        aside = -aside if self.outside_right else aside
        return (a - db * aside, out, b + da * aside)

    def _rolled(self, flat: Point3) -> Point3:
        along, out, z = flat
        if self.level_mm is not None:
            return (along, self.level_mm + out, z)
        return on_circle(self.radius_mm + out, along / self.radius_mm, z)

    def _laid(self, k: int, point: Point3) -> Point3:
        return self._rolled(self._flat(k, point))

    def path(self) -> list[Point3]:
        cycle = self._cycle()
        # What goes straight across from one wire to the other follows the finger too.
        return [self._rolled(flat) for flat in dense([self._flat(k, point) for k in range(self.cycles) for point in cycle], CHORD_MM)]

    @cached_property
    def _way(self) -> Way:
        return Way.flat(self.track)

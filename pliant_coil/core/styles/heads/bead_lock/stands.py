"""How a bead, or several, stands on the wire: one on legs, a row along the finger; and how tails come past it."""

import math
from functools import partial
from typing import Protocol

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.bead_row import BeadRow, Strung, bowed_past_mm
from pliant_coil.core.moves.nest import StandingBead
from pliant_coil.core.moves.passing import pass_beside, pass_over, pass_over_row, pass_under
from pliant_coil.core.moves.placed import Placed, named
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.styles.beads import drilled, standing
from pliant_coil.core.styles.handed_on import Slot, Wires
from pliant_coil.core.styles.stones import Bead, PlacedStone


class Stand(Protocol):
    """What holds the beads up, between where the band leaves its circle and where the locks may begin."""

    @property
    def foot_rad(self) -> float:
        """Where the band leaves its circle, from the top."""

    @property
    def shoulder_rad(self) -> float:
        """Where locks may begin, from the top."""

    @property
    def top_mm(self) -> float:
        """Of the highest bead, from the ring's axis."""

    def through(self, slot: Slot) -> tuple[Placed, ...]:
        """The band's wire through the beads."""

    def stones(self, slot: Slot, wires: Wires) -> tuple[PlacedStone, ...]:
        """The beads where they stand."""

    def beside(self, start: Point3, end: Point3, face: int) -> Move:
        """A tail from foot to foot past one face, −1 the nearer one."""

    def over(self, start: Point3, end: Point3) -> Move:
        """A tail from foot to foot over the top."""

    def under(self, start: Point3, end: Point3) -> Move:
        """A tail from foot to foot under it: on the mandrel, or on the strands that pass there too."""


@dataclass(frozen=True)
class OnLegs:
    """One bead, its hole's ends on a leg each."""

    bead: Bead
    seat: Seat
    under_mm: float
    """The circle on which a tail passes under it."""

    @property
    def foot_rad(self) -> float:
        return self.seat.bends_rad

    @property
    def shoulder_rad(self) -> float:
        return self.seat.shoulder_rad

    @property
    def top_mm(self) -> float:
        return self.seat.axis_y_mm + self.bead.height / 2

    def through(self, slot: Slot) -> tuple[Placed, ...]:
        return named("head", self.seat.moves(slot.left[2], slot.right[2], "bead", "bead"))

    def stones(self, slot: Slot, wires: Wires) -> tuple[PlacedStone, ...]:
        return (drilled(self.bead, (0.0, self.seat.axis_y_mm, 0.0), wires),)

    @cached_property
    def _standing(self) -> StandingBead:
        return standing(self.seat, self.bead)

    def beside(self, start: Point3, end: Point3, face: int) -> Move:
        bead = self._standing
        foot = self.seat.axis_y_mm - bead.reach_mm / math.sqrt(2)
        drop = max(0.0, foot - self.seat.shoulder_y_mm)
        body = partial(bead.body, -math.pi / 4)
        return pass_beside("past the bead", start, end, body=body, drop_mm=drop, radius_mm=self.seat.radius_mm, face=face)

    def over(self, start: Point3, end: Point3) -> Move:
        d = self.seat.wire_mm
        a, b = self.seat.leg_x_mm + d, self.bead.height / 2 + d / 2
        return pass_over("over", start, end, centre_y_mm=self.seat.axis_y_mm, a_mm=a, b_mm=b)

    def under(self, start: Point3, end: Point3) -> Move:
        return pass_under("under", start, end, radius_mm=self.under_mm)


@dataclass(frozen=True)
class InARow:
    """Several beads along the finger: the wire runs from hole to hole and on to the band as a tangent, without legs."""

    beads: tuple[Bead, ...]
    strung: Strung
    wire_mm: float
    under_mm: float
    """The circle on which a tail passes under them."""

    @property
    def foot_rad(self) -> float:
        return self.strung.angle_rad / 2

    @property
    def shoulder_rad(self) -> float:
        return self.foot_rad + 1.5 * self.wire_mm / self.strung.radius_mm

    @property
    def top_mm(self) -> float:
        return self.strung.inside_mm + max(bead.height for bead in self.beads)

    def _row(self, slot: Slot) -> BeadRow:
        return BeadRow("beads", self.strung, slot.left, slot.right, mark="beads", mark_share=0.5)

    def through(self, slot: Slot) -> tuple[Placed, ...]:
        return (Placed("head.row", self._row(slot)),)

    def stones(self, slot: Slot, wires: Wires) -> tuple[PlacedStone, ...]:
        return tuple(
            drilled(bead, middle, wires, f"head.beads.{k}.hole_mm")
            for k, (bead, middle) in enumerate(zip(self.beads, self._row(slot).middles(), strict=True))
        )

    def beside(self, start: Point3, end: Point3, face: int) -> Move:
        # Led round the feet of the row, on the finger.
        bare = Strung((self.wire_mm,), self.strung.radius_mm - self.wire_mm / 2, self.strung.radius_mm)
        bow = bowed_past_mm(max(bead.width for bead in self.beads), self.wire_mm)
        return BeadRow("past the beads", bare, start, end, 0.0, face * bow)

    def over(self, start: Point3, end: Point3) -> Move:
        angles = self.strung.places()
        tops = [
            (rho * math.sin(angle), rho * math.cos(angle), (bead.height + self.wire_mm) / 2)
            for bead, (angle, rho) in zip(self.beads, angles, strict=True)
        ]
        return pass_over_row("over", start, end, tops)

    def under(self, start: Point3, end: Point3) -> Move:
        return pass_under("under", start, end, radius_mm=self.under_mm)

"""Braided: wires folded round a starting eye into strands, braided flat, reduced pair by pair, closed through the eye."""

import math
from collections.abc import Mapping
from dataclasses import replace
from functools import partial
from typing import Any, ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.braiding import Braid, angle_from_width_rad
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.base import Cause, Obstacle
from pliant_coil.core.moves.grip import Fold
from pliant_coil.core.moves.loop import Eye
from pliant_coil.core.moves.placed import PLAIN, EndCare, Piece, Placed, Worked
from pliant_coil.core.moves.strand import Strand
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.bands.braided import steps
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import Form, FormedBand, Joined, Opening, SizedBy, Top, Warn, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.repeats import Chart, Repeats
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.figures import Length, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

RIM = Cause("rim-inside", "the last strands round the eye's rim")
MEASURED_MM = 20.0
"""Braid after which the maker measures what a strand has taken."""


@dataclass(frozen=True)
class Rim(Wrap):
    """A strand's wraps round the eye's rim: they stand a wire's width into the band beside the joint."""

    at_rad: float = 0.0

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        if self.cause is None or self.inside_mm <= 0:
            return ()
        return (Obstacle(self.cause, self.at_rad, self.at_rad, self.inside_mm),)


@dataclass(frozen=True)
class Joint:
    """A braid on one size: its middle line, where its joint lies, its lengths [mm]."""

    braid: Braid
    radius_mm: float
    at_rad: float
    thickness_mm: float
    length_mm: float
    taper_mm: float
    measured: float

    @property
    def moves_each_side(self) -> float:
        """Crossings from one side: one a bight."""
        return self.length_mm / self.braid.bight_mm


class Braided(BandStyle):
    """A flat braid round the finger from an eye back to it."""

    title: ClassVar[str] = "Braided"
    hides_splice = "one strand only, under a crossing at the back; never two close together"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="0.6 mm")}
    main_role: ClassVar[str] = "band"
    stretches_us: ClassVar[float] = 0.5
    style: Literal["braided"] = choice("braided", "Band")
    strands: int = number(6, "Strands", 3, 8)
    angle_deg: float = degrees(30.0, "Lean of the strands", 15, 50, "To the band's length.")
    width_mm: float | None = millimetres(
        None, "Measured width", 0.5, 20, "Your own braid's width over 20 mm (0.79 in); the lean follows from it."
    )
    eye_mm: float | None = millimetres(None, "Starting eye, inside", 1, 12, "Three wires wide unless given.")
    pressed_share: float = number(0.0, "Pressed flat by", 0, 0.15, "Share of the thickness.", rare=True)
    reduced_mm: float | None = millimetres(
        None, "Reduced over", 0, 40, "Where strands are dropped pair by pair; solved unless given.", rare=True
    )
    reduce_wraps: int = number(1, "Rounds of a dropped strand", 1, 2, rare=True)
    rim_wraps: int = number(1, "Rounds on the eye's rim", 1, 2, rare=True)
    joint_at: Literal["back", "top"] = choice("back", "Joint lies", rare=True)
    first_20_took_mm: float | None = millimetres(
        None, "Your sample took", 15, 60, "Wire that one strand took for 20 mm (0.79 in) of braid.", rare=True
    )

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.CLOSED})

    def eye(self, wire_mm: float) -> float:
        return 3 * wire_mm if self.eye_mm is None else self.eye_mm

    def braid(self, wire_mm: float) -> Braid:
        """The braid at the lean that is set, or that the maker's width says."""
        angle: float | None = math.radians(self.angle_deg)
        if self.width_mm is not None:
            angle = angle_from_width_rad(self.strands, wire_mm, self.width_mm)
        if angle is None or angle < math.radians(5):
            least = Braid(self.strands, wire_mm, math.radians(5)).width_mm
            refuse(
                "band.width_mm",
                say("{strands} strands of {wire} can't be braided so narrow", strands=number_words(self.strands), wire=Thickness(wire_mm)),
                say("at least {least}", least=Thickness(math.ceil(least * 10) / 10)),
            )
        return Braid(self.strands, wire_mm, angle)

    def check(self, target_mm: float, wires: Wires) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a braid of {wire.profile.name} wire isn't reckoned here", "round")
        braid = self.braid(wire.size_mm)
        if self.eye(wire.size_mm) < 2.2 * wire.size_mm - 1e-9:
            refuse(
                "band.eye_mm", "two strands don't go through so small an eye", say("at least {least}", least=Thickness(2.2 * wire.size_mm))
            )
        if braid.period_mm > math.pi * target_mm - self.eye(wire.size_mm):
            refuse(
                "wires.band.diameter",
                say("{strands} strands of this wire don't even go across and back once on this finger", strands=number_words(self.strands)),
                "a finer wire, or fewer strands",
            )
        if self.first_20_took_mm is not None:
            reckoned = MEASURED_MM * braid.wire_per_mm
            if not 0.8 <= self.first_20_took_mm / reckoned <= 1.6:
                refuse(
                    "band.first_20_took_mm",
                    say("that is far from the {reckoned} reckoned for this braid", reckoned=Length(reckoned)),
                    "measure one strand, not all, or give the width you braid",
                )

    def joint(self, inside_mm: float, wire_mm: float) -> Joint:
        """L = π(D + T) − τ − (δ + d)."""
        braid = self.braid(wire_mm)
        n, d = self.strands, wire_mm
        thickness = 2 * d * (1 - self.pressed_share)
        pairs = max(0, math.ceil(n / 2) - 1)
        taper = pairs * d + max(0, pairs - 1) * braid.bight_mm if self.reduced_mm is None else self.reduced_mm
        length = math.pi * (inside_mm + thickness) - taper - (self.eye(d) + d)
        measured = 1.0 if self.first_20_took_mm is None else self.first_20_took_mm / (MEASURED_MM * braid.wire_per_mm)
        return Joint(braid, inside_mm / 2 + thickness / 2, math.pi if self.joint_at == "back" else 0.0, thickness, length, taper, measured)

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        d = wire.size_mm
        joint = self.joint(form.diameter_mm, d)
        if joint.length_mm < 2 * joint.braid.bight_mm:
            refuse("band.eye_mm", "the eye and the taper leave no braid at this size", "a smaller eye, or a finer wire")
        pieces = self._pieces(form, joint, wires)
        return FormedBand(
            form=form,
            pieces=tuple(pieces),
            inside_mm=form.diameter_mm,
            strands=self.strands,
            width_mm=joint.braid.width_mm,
            thickness_mm=joint.thickness_mm,
            strand_z=lambda _: (0.0,),
            strand_wire=wire,
            strand_height_mm=joint.thickness_mm,
            joined=Joined.BAND,
            sized_by=SizedBy.MARK,
            repeats=self._repeats(joint),
            tied=True,
            facts=joint,
        )

    def _pieces(self, form: Form, joint: Joint, wires: Wires) -> list[Piece]:
        """All are cut alike: nobody knows beforehand which strands remain to the end."""
        n, wire = self.strands, wires["band"]
        half = n // 2
        pieces = []
        for k in range(half):
            first, last = self._strand(joint, k, wire.size_mm), self._strand(joint, k + half, wire.size_mm)
            ways = (_begins(first[0]), _begins(last[0]))
            # The first wire goes right round the jaw, its legs crossed; the others half round its two legs.
            inside = 2 * self.eye(wire.size_mm) + wire.size_mm if k == 0 else wire.size_mm * (1 + 2 / math.pi)
            fold = Fold("fold" if k else "eye", inside, wire.size_mm, ways, mark="fold", mark_share=0.5)
            name = f"strand.{k + 1}"
            moves = (
                *(_named(p, f"{name}.first", backwards=True) for p in reversed(first)),
                Placed(f"{name}.fold", fold),
                *(_named(p, f"{name}.last") for p in last),
            )
            pieces.append(Piece(name, "band", wire, moves))
        if n % 2:
            alone = self._strand(joint, n - 1, wire.size_mm)
            at = _begins(alone[0])
            eye = Eye(
                "eye", self.eye(wire.size_mm), wire.size_mm, at, (0.0, 0.0, 1.0), (math.sin(joint.at_rad), math.cos(joint.at_rad), 0.0)
            )
            name = f"strand.{half + 1}"
            moves = (Placed(f"{name}.eye", eye, backwards=True), *(_named(p, f"{name}.last") for p in alone))
            pieces.append(Piece(name, "band", wire, moves, ends=(EndCare.CUT, EndCare.DRAWN)))
        return pieces

    def _strand(self, joint: Joint, k: int, d: float) -> list[Placed]:
        """One strand from the eye round to it again, and its last wraps: on its neighbour, or on the rim."""
        clear = (self.eye(d) + d) / 2 / joint.radius_mm
        along = joint.length_mm + joint.taper_mm
        strand = Strand("strand", joint.braid, joint.radius_mm, joint.at_rad + clear, along, k / self.strands, joint.measured)
        x, y, z = strand.ends
        out = math.hypot(x, y) - joint.radius_mm
        # All end in a wrap of one wire: which ones stay to go round the rim shows only at the end; two of them do.
        stays = k in (0, self.strands // 2)
        angle = math.atan2(x, y)
        inwards = -d if z > 0 else d
        side = -1 if k == 0 else 1
        rim = Rim(
            "rim" if stays else "drop",
            self.rim_wraps if stays else self.reduce_wraps,
            Bundle(((z + inwards, out),), d / 2),
            Profile("round", d),
            joint.radius_mm,
            angle,
            start=(z, out),
            inside_mm=d if stays else 0.0,
            cause=RIM,
            host="the eye's rim" if stays else "its neighbour",
            at_rad=joint.at_rad + side * (self.eye(d) / 2 + d) / joint.radius_mm,
            pitch_mm=0.0,
        )
        pressed = 2 * d - joint.thickness_mm
        worked = Worked("pressed", d, d - pressed) if pressed else PLAIN
        return [Placed("strand", strand, worked=worked), Placed("wrap", rim, worked=worked)]

    def _repeats(self, joint: Joint) -> Repeats:
        braid = joint.braid
        over = (self.strands - 1) // 2
        return Repeats(
            name="moves",
            kind="braid",
            program=f"over {over}, over {self.strands - 1 - over}",
            count=math.floor(joint.moves_each_side),
            repeat_mm=braid.bight_mm,
            made_mm=joint.length_mm,
            target_mm=joint.length_mm,
            wire_per_repeat_mm=braid.bight_mm * braid.wire_per_mm * joint.measured,
            repeat_changes_mm=braid.bight_mm / math.pi,
            chart=partial(_chart, braid),
        )

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        joint: Joint = band.facts
        wire = band.pieces[0].wire
        found = []
        if wire.temper != "soft":
            found.append(
                Warn("strands-crack", Say("Harder than soft, strands crack where they are wrapped: use soft wire."), "wires.band.temper")
            )
        if wire.size_mm >= 0.9:
            found.append(
                Warn("hard-on-hands", Say("Braiding wire this thick is hard on the hands: a vise and pliers help."), "wires.band.diameter")
            )
        lean = math.degrees(joint.braid.angle_rad)
        if not 22 <= lean <= 45:
            says = "loose" if lean > 45 else "pulled thin"
            text = say("At {width} wide the braid is {says}: measure it again.", width=Thickness(joint.braid.width_mm), says=says)
            found.append(Warn("braid-lean", text, "band.width_mm" if self.width_mm else "band.angle_deg"))
        return found

    def phrase(self) -> Say:
        return say("braided from {strands} strands", strands=number_words(self.strands))

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        return steps.tasks(self, band, opening)

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        if band.pop("closing_mm", None) is not None:
            band.setdefault("rim_wraps", 1)
        band.setdefault("eye_mm", 4)
        band.setdefault("reduced_mm", 12)
        band.setdefault("joint_at", "top")
        return band


def _begins(placed: Placed) -> Point3:
    assert isinstance(placed.move, Strand)
    return placed.move.begins


def _named(placed: Placed, prefix: str, *, backwards: bool = False) -> Placed:
    return replace(placed, id=f"{prefix}.{placed.id}", backwards=backwards)


def _chart(braid: Braid) -> Chart:
    return Chart(braid.wire_mm, strands=braid.repeat())

"""A ring file made into a ring that can be formed: its wires read, its finger found, its band and head fitted to each other."""

import math
from dataclasses import field
from typing import Any

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.ring_file.document import OwnRoom, RingFile, TakenDefaults
from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.finishes.wraps import Finish
from pliant_coil.core.styles.handed_on import Form, Warn
from pliant_coil.core.styles.parameters import WireSpec, read_wire
from pliant_coil.core.styles.registry import all_heads
from pliant_coil.core.trade.sizes import US_STEP_MM, between_finger_and_knuckle, in_range, read_size
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.refusal import Refusal, fault, refuse
from pliant_coil.core.words.say import NOTHING, Say, say

_ROOM_US = {"none": 0.0, "quarter": 0.25, "half": 0.5}


@dataclass(frozen=True)
class Ring:
    """A ring that can be formed at any diameter."""

    file: RingFile
    target_mm: float
    """Inside diameter that the finger asks for."""
    target_reason: Say
    asked_in: str
    """Code of the size system that the finger was given in; empty for a measured one."""
    wires: dict[str, Wire]
    from_reel: frozenset[str]
    """Roles whose wire is worked from the reel."""
    doubts: tuple[Warn, ...] = field(default=())

    @property
    def band(self) -> BandStyle:
        return self.file.band

    @property
    def head(self) -> HeadStyle:
        return self.file.head

    @property
    def finish(self) -> Finish:
        return self.file.finish

    @property
    def locks(self) -> int:
        """Lock wraps each side: as given, or the head's own usual."""
        given = self.finish.wraps_each_side
        return self.head.usual_locks if given is None else given

    @property
    def room_us(self) -> float:
        """US sizes that the maker adds for a wide band."""
        room = self.file.sizing.room_for_width
        return room.us_sizes if isinstance(room, OwnRoom) else _ROOM_US[room]

    @property
    def aim_mm(self) -> float:
        """Inside diameter that the ring shall have."""
        return self.target_mm + self.room_us * US_STEP_MM

    def at(self, diameter_mm: float, **counts: int) -> Form:
        """A form of this ring."""
        return Form(diameter_mm, self.locks, counts)

    @property
    def main_role(self) -> str:
        """The role of the wire that lies on the mandrel; of the first one, where none does."""
        return self.band.main_role or next(iter(self.wires))

    @property
    def main_wire(self) -> Wire:
        """The wire that lies on the mandrel."""
        return self.wires[self.main_role]


def make_ring(file: RingFile) -> Ring:
    """The ring that `file` describes. Raises `Refusal` for what can't be made."""
    band, head = file.band, file.head
    reason = head.fits(band)
    if reason:
        fitting = ", ".join(style.title for style in all_heads().values() if not style().fits(band))
        refuse("head.style", say("{head} can't be made here: {reason}", head=head.title.lower(), reason=reason), f"on this band: {fitting}")
    target, why, asked_in = _finger(file)
    roles = usual_wires(band, head)
    specs = {role: file.wire(role, usual) for role, usual in roles.items()}
    wires = {role: read_wire(spec, role) for role, spec in specs.items()}
    # Wires for roles that this ring doesn't use are checked like the others.
    for role, spec in file.wires.items():
        if role not in roles:
            read_wire(WireSpec().with_asked(spec), role)
    band.check(target, wires)
    head.check(target, wires)
    doubts = tuple(Warn("gauge-ambiguous", wire.doubt, f"wires.{role}.diameter") for role, wire in wires.items() if wire.doubt)
    return Ring(file, target, why, asked_in, wires, frozenset(role for role, spec in specs.items() if spec.from_reel), doubts)


def usual_wires(band: BandStyle, head: HeadStyle) -> dict[str, WireSpec]:
    """The wire that is usual for every role, in the order of work: the band's, then what the head needs of its own."""
    own = band.roles()
    return {**own, **{role: spec for role, spec in head.roles(band).items() if role not in own}}


def taken_defaults(file: RingFile) -> TakenDefaults:
    """What `file` takes for all that its maker didn't ask of the wires."""
    wires: dict[Any, WireSpec] = {role: file.usual_wire(role, usual) for role, usual in usual_wires(file.band, file.head).items()}
    return TakenDefaults(band=file.band.style, head=file.head.style, wires=wires)


def with_defaults_taken(file: RingFile) -> RingFile:
    """The file as it is kept or handed on: what was asked, and beside it what was taken."""
    return file.model_copy(update={"taken": taken_defaults(file)})


def _finger(file: RingFile) -> tuple[float, Say, str]:
    """Inside diameter [mm], the reason where one is due, and the system that it was given in."""
    finger = file.finger
    measured = (finger.around_finger_mm, finger.around_knuckle_mm)
    given = [
        name for name, value in (("size", finger.size), ("inside_circumference_mm", finger.inside_circumference_mm)) if value is not None
    ]
    if any(m is not None for m in measured):
        given.append("around_finger_mm")
    if len(given) != 1:
        said = "no size is given" if not given else f"the size is given {len(given)} times"
        refuse("finger", said, "size, or inside_circumference_mm, or around_finger_mm with around_knuckle_mm")
    if finger.size is not None:
        asked = read_size(finger.size)
        return asked.inside_diameter_mm, NOTHING, asked.system
    if finger.inside_circumference_mm is not None:
        return in_range(finger.inside_circumference_mm / math.pi, "finger.inside_circumference_mm"), NOTHING, ""
    if measured[0] is None or measured[1] is None:
        missing = "around_finger_mm" if measured[0] is None else "around_knuckle_mm"
        raise Refusal(fault(f"finger.{missing}", "is missing", "both, measured round the finger and round the knuckle"))
    proposal = between_finger_and_knuckle(measured[0], measured[1])
    return proposal.inside_diameter_mm, proposal.reason, ""

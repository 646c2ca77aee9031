"""A ring file made into a ring: its wires read, its finger found, its band and head fitted to each other."""

import math
from dataclasses import dataclass, field

from pliant_coil.core.heads.base import all_heads
from pliant_coil.core.recipe import RingFile
from pliant_coil.core.refusal import Fault, Refusal, refuse
from pliant_coil.core.sizes import SYSTEMS, between_finger_and_knuckle, in_range, read_size
from pliant_coil.core.wires import FormedRing, RoleWire, read_wire


@dataclass(frozen=True)
class Ring:
    """A ring that can be formed at any diameter."""

    file: RingFile
    target_mm: float
    """Inside diameter that the finger asks for."""
    target_reason: str
    size_system: str
    """The code of the system that the finger was given in; US for plain lengths."""
    wires: dict[str, RoleWire]
    # The solver, the schools and the plan ask for some diameters again.
    _made: dict[float, FormedRing] = field(default_factory=dict, repr=False, compare=False)

    def formed(self, form_diameter_mm: float) -> FormedRing:
        """The whole ring with its band formed on this diameter of the mandrel."""
        made = self._made.get(form_diameter_mm)
        if made is None:
            made = self.file.band.form(form_diameter_mm, self.wires, self.file.head, self.file.finish)
            self._made[form_diameter_mm] = made
        return made

    @property
    def main_wire(self) -> RoleWire:
        """The wire that lies on the mandrel."""
        return self.wires[self.file.band.main_role]


def make_ring(file: RingFile) -> Ring:
    """The ring that `file` describes. Raises `Refusal` for what can't be made."""
    band, head = file.band, file.head
    if band.style not in head.bands:
        fitting = ", ".join(name for name, kind in all_heads().items() if band.style in kind.bands)
        refuse("head.style", f"a {head.title.lower()} can't be made on a {band.title.lower()} band", f"{fitting} on this band")
    target, reason, system = _finger(file)
    roles = {**head.usual_wires, **band.usual_wires}
    wires = {role: read_wire(file.wire(role), role) for role in roles}
    band.check(target, wires, head, file.finish)
    return Ring(file, target, reason, system if system in SYSTEMS else "us", wires)


def _finger(file: RingFile) -> tuple[float, str, str]:
    """Inside diameter [mm], the reason where one is due, and the size system."""
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
        read = read_size(finger.size)
        return read.inside_diameter_mm, "", read.system
    if finger.inside_circumference_mm is not None:
        return in_range(finger.inside_circumference_mm / math.pi, "finger.inside_circumference_mm"), "", "circumference"
    if measured[0] is None or measured[1] is None:
        missing = "around_finger_mm" if measured[0] is None else "around_knuckle_mm"
        raise Refusal(Fault(f"finger.{missing}", "is missing", "both, measured round the finger and round the knuckle"))
    proposal = between_finger_and_knuckle(measured[0], measured[1])
    return proposal.inside_diameter_mm, proposal.reason, "us"

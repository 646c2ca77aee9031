"""What the core answers when it can't accept something: a value of the trade, raised once, shown as it is."""

from dataclasses import dataclass
from typing import NoReturn


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing that is wrong: the field (dotted, as in the ring file), the reason, and what would do."""

    field: str
    reason: str
    accepted: str = ""

    def __str__(self) -> str:
        said = f"{self.field}: {self.reason}" if self.field else self.reason
        return f"{said} ({self.accepted})" if self.accepted else said


class Refusal(ValueError):
    """Input that can't be planned, with every fault that was found in it."""

    def __init__(self, *faults: Fault) -> None:
        super().__init__("; ".join(map(str, faults)))
        self.faults = faults

    def at(self, field: str) -> "Refusal":
        """The same refusal with its fields placed under `field`, for a part that doesn't know where it stands."""
        return Refusal(*(Fault(".".join(filter(None, (field, f.field))), f.reason, f.accepted) for f in self.faults))


def refuse(field: str, reason: str, accepted: str = "") -> NoReturn:
    """Raise a `Refusal` for a single field."""
    raise Refusal(Fault(field, reason, accepted))

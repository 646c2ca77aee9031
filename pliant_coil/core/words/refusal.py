"""What the core answers when it can't accept something: a value of the trade, raised once, written at the edge."""

from typing import NoReturn

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.words.say import NOTHING, Reader, Say, write


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing that is wrong: the field (dotted, as in the ring file), the reason, and what would do."""

    field: str
    reason: Say
    accepted: Say = NOTHING

    def written(self, reader: Reader) -> str:
        """`field: reason (what would do)`."""
        reason, accepted = write(self.reason, reader), write(self.accepted, reader)
        said = f"{self.field}: {reason}" if self.field else reason
        return f"{said} ({accepted})" if accepted else said

    def __str__(self) -> str:
        return self.written(Reader())


class Refusal(ValueError):
    """Input that can't be planned, with every fault that was found in it."""

    def __init__(self, *faults: Fault) -> None:
        super().__init__("; ".join(map(str, faults)))
        self.faults = faults

    def at(self, field: str) -> "Refusal":
        """The same refusal with its fields placed under `field`, for a part that doesn't know where it stands."""
        return Refusal(*(Fault(".".join(filter(None, (field, f.field))), f.reason, f.accepted) for f in self.faults))


def _as_say(text: Say | str) -> Say:
    # Plain words may hold braces that somebody typed: they are no template.
    return text if isinstance(text, Say) else (Say("{text}", {"text": text}) if text else NOTHING)


def fault(field: str, reason: Say | str, accepted: Say | str = "") -> Fault:
    """A fault from texts or plain words."""
    return Fault(field, _as_say(reason), _as_say(accepted))


def refuse(field: str, reason: Say | str, accepted: Say | str = "") -> NoReturn:
    """Raise a `Refusal` for a single field."""
    raise Refusal(fault(field, reason, accepted))

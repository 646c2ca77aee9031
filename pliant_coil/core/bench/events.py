"""What happens at the bench, as it is told: an event each, never changed afterwards. What was wrong is taken back by another event."""

from datetime import UTC, datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, TypeAdapter, ValidationError

Name = Annotated[str, Field(min_length=1, max_length=80)]
Words = Annotated[str, Field(max_length=2000)]
Millimetres = Annotated[float, Field(ge=0, le=5000, allow_inf_nan=False)]
Inside = Annotated[float, Field(ge=10, le=26, allow_inf_nan=False)]
"""An inside diameter that a finger may have [mm]."""
Times = Annotated[float, Field(ge=-999, le=999, allow_inf_nan=False)]


class _Event(BaseModel):
    """What every event carries: its sender's name for it, the device and its clock, and the last number that the device had seen."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    id: UUID
    device: Name
    at: AwareDatetime
    seen: int = Field(0, ge=0)


class StepOn(_Event):
    """A step is done: the next one is at hand."""

    kind: Literal["step_on"] = "step_on"
    task: Name


class StepBack(_Event):
    """Back to a step."""

    kind: Literal["step_back"] = "step_back"
    task: Name


class Count(_Event):
    """So many more of a move, or fewer."""

    kind: Literal["count"] = "count"
    move: Name
    n: Times


class CountSet(_Event):
    """So many of a move stand there, whatever was counted before."""

    kind: Literal["count_set"] = "count_set"
    move: Name
    n: Annotated[float, Field(ge=0, le=999, allow_inf_nan=False)]


class Late(_Event):
    """What was counted without knowing of a count that was set: added, or left."""

    kind: Literal["late"] = "late"
    move: Name
    add: bool


class Reading(_Event):
    """What a mandrel, a rule or a caliper says: a size by inside diameter, a length as it is."""

    kind: Literal["reading"] = "reading"
    what: Literal["size", "tail", "length", "wire"]
    task: Name
    side: Literal["left", "right", ""] = ""
    piece: Annotated[str, Field(max_length=80)] = ""
    """Whose tail or cut it is."""
    value_mm: Millimetres
    typed: Words = ""
    by: Literal["hand", "device"] = "hand"


class Chosen(_Event):
    """What was decided on a reading."""

    kind: Literal["chosen"] = "chosen"
    reading: UUID
    choice: Name
    form_mm: Inside | None = None
    """Where it is formed now, where that changed."""


class CutTo(_Event):
    """A piece was cut to this length."""

    kind: Literal["cut"] = "cut"
    piece: Name
    length_mm: Millimetres


class Spliced(_Event):
    """A wire ran out, and a new piece of this length goes on with it."""

    kind: Literal["spliced"] = "spliced"
    piece: Name
    length_mm: Millimetres
    task: Name


class Note(_Event):
    """Something to remember."""

    kind: Literal["note"] = "note"
    task: Name
    text: Words


class Paused(_Event):
    """The timer rests until the next event."""

    kind: Literal["paused"] = "paused"


class Help(_Event):
    """Somebody waits for help, or has had it."""

    kind: Literal["help", "helped"]
    task: Name


class Ended(_Event):
    """The ring is finished, spoiled or set aside: why, and what was left of each piece."""

    kind: Literal["finished", "spoiled", "set_aside"]
    why: Words = ""
    left_mm: dict[Name, Millimetres] = Field(default_factory=dict)
    size_mm: Inside | None = None
    """Inside diameter of the finished ring."""
    mandrel: Annotated[str, Field(max_length=80)] = ""
    """On which mandrel it was formed and read."""


class CameBack(_Event):
    """A finished ring is on the bench again: what it reads, the size that is wanted of it [inside diameter], and why."""

    kind: Literal["came_back"] = "came_back"
    why: Words = ""
    reads_mm: Inside | None = None
    wanted_mm: Inside | None = None


class Mended(_Event):
    """One thing was done to a ring that came back, and what it read before that."""

    kind: Literal["mended"] = "mended"
    way: Name
    reads_mm: Inside | None = None
    wanted_mm: Inside | None = None


class LeftOut(_Event):
    """The ring says nothing of its maker's hand, and why; with no reason it does again."""

    kind: Literal["left_out"] = "left_out"
    why: Annotated[str, Field(max_length=200)] = ""


class Reopened(_Event):
    """Taken up again."""

    kind: Literal["reopened"] = "reopened"


class TakenBack(_Event):
    """An event of before doesn't count."""

    kind: Literal["taken_back"] = "taken_back"
    event: UUID


Event = Annotated[
    StepOn
    | StepBack
    | Count
    | CountSet
    | Late
    | Reading
    | Chosen
    | CutTo
    | Spliced
    | Note
    | Paused
    | Help
    | Ended
    | CameBack
    | Mended
    | LeftOut
    | Reopened
    | TakenBack,
    Field(discriminator="kind"),
]


_EVENT: TypeAdapter[Event] = TypeAdapter(Event)
_MEASURED = ("form_mm", "reads_mm", "wanted_mm", "size_mm")
"""What an event can do without: a figure that can't be one."""


def read_event(document: dict[str, Any]) -> Event | None:
    """An event as it was stored, by whatever version; None for one that can't be read any more.

    Earlier versions took times without a zone, which were UTC's, and sizes that no finger has, which say nothing.
    """
    told = dict(document)
    at = told.get("at")
    if isinstance(at, str):
        try:
            read = datetime.fromisoformat(at)
        except ValueError:
            return None
        told["at"] = read if read.tzinfo else read.replace(tzinfo=UTC)
    try:
        return _EVENT.validate_python(told)
    except ValidationError as error:
        wrong = {str(detail["loc"][-1]) for detail in error.errors(include_url=False)}
        if not wrong <= set(_MEASURED):
            return None
        return _EVENT.validate_python({name: value for name, value in told.items() if name not in wrong})

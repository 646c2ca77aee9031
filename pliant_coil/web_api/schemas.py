"""What the API takes and gives, beside the ring file and the plan."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field

from pliant_coil.core.bench.events import Event
from pliant_coil.core.bench.logbook import RecordTold
from pliant_coil.core.bench.mandrels import MandrelTold
from pliant_coil.core.bench.progress import State
from pliant_coil.core.bench.told import FirstPlanTold, ProgressTold, TailEndTold
from pliant_coil.core.plan.model import Plan, Size
from pliant_coil.core.plan.told import Text as Said
from pliant_coil.core.plan.told import Told
from pliant_coil.core.ring_file.document import AnyBand, AnyHead, RingFile, TakenDefaults, Text


class Health(BaseModel):
    """Whether the server and its record book answer."""

    status: Literal["ok", "no-database"]


class Version(BaseModel):
    """Which version serves."""

    version: str


class RefusedFile(BaseModel):
    """A file of an archive that couldn't be taken in."""

    name: str
    reason: str


class ImportTold(BaseModel):
    """What has come out of an archive by now: of `files` so many are `read`."""

    files: int
    read: int
    rings: int
    records: int
    photos: int
    known: int
    """What was there already."""
    refused: list[RefusedFile]
    """Told at the end."""
    done: bool


class RingListed(BaseModel):
    """A ring in a list."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    title: str
    sentence: str
    band_style: str
    head_style: str
    inside_circumference_mm: float
    revision: int
    updated_at: datetime


class RingList(BaseModel):
    """A page of rings."""

    rings: list[RingListed]
    total: int


class RingTold(BaseModel):
    """A saved ring."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    revision: int
    updated_at: datetime
    file: RingFile
    saved_by: str


class RingSave(BaseModel):
    """A new revision, and the one it was made from."""

    model_config = ConfigDict(extra="forbid")

    file: RingFile
    base_revision: int = Field(ge=1, le=2_000_000_000)


class RingConflict(BaseModel):
    """Somebody else saved meanwhile; nothing was overwritten."""

    reason: str
    current: RingTold


class RevisionTold(BaseModel):
    """One revision of a ring."""

    number: int
    created_at: datetime
    saved_by: str


class JobBegun(BaseModel):
    """A ring that was taken to the bench."""

    id: UUID


@dataclass(kw_only=True, slots=True)
class JobListed(Told):
    """A ring at the bench in a list; its record once it has ended."""

    id: UUID
    title: str
    sentence: str
    state: State
    number: int
    created_at: datetime
    updated_at: datetime
    ended_at: datetime | None
    begun_by: str
    batch_id: UUID | None
    for_whom: str
    record: RecordTold | None
    photo: UUID | None = None
    """Its first photo, in a list."""


@dataclass(kw_only=True, slots=True)
class JobList(Told):
    """A page of rings at the bench."""

    jobs: list[JobListed]
    total: int


@dataclass(kw_only=True, slots=True)
class JobAtBench(Told):
    """A ring at the bench, with all that stands beside the work."""

    job: JobListed
    file: RingFile
    plan: Plan
    first_plan: FirstPlanTold | None
    """What was planned before a reading changed it."""
    progress: ProgressTold
    tails: list[TailEndTold]
    asks_tails: bool
    """Its tails are asked for now, before they are locked: few rings have told arcs from wraps yet."""
    left_over: Said
    """Of a ring that has ended: which of its wires' rests serve the same ring again."""
    hides_splice: str
    """Where a new piece of wire goes on unseen; empty where it shows everywhere."""
    hammered_at: str
    """The step at which rings are hammered flat and read on the way; empty where none are."""


class Events(BaseModel):
    """What happened at a bench, in its order."""

    model_config = ConfigDict(extra="forbid")

    events: list[Event] = Field(min_length=1, max_length=500)


class FactorTold(BaseModel):
    """What is known of one kind of move: more than planned, as a share, with its 95 % interval."""

    kind: str
    share: float
    low: float
    high: float
    rings: int
    used: bool


class RingNamed(BaseModel):
    """A ring of the logbook, and why it doesn't count."""

    id: UUID
    title: str
    why: str = ""


@dataclass(kw_only=True, slots=True)
class HandTold(Told):
    """A maker's hand, as the finished rings show it."""

    rings: int
    odd: list[RingNamed]
    """Rings that looked odd and hardly count: was it so?"""
    left_out: list[RingNamed]
    changed: bool
    """The last rings came out other than those before: other pliers, another wire?"""
    factors: list[FactorTold]
    mandrels: list[MandrelTold]


class Mishap(BaseModel):
    """A screen that failed to draw, as the browser tells it."""

    message: Annotated[str, Field(max_length=500)]
    address: Annotated[str, Field(max_length=200)] = ""


@dataclass(kw_only=True, slots=True)
class SizeRead(Told):
    """A size as it was read."""

    system: str
    size: Size
    on_mandrel_mm: float
    """What the reader's own mandrel measures where a mark says this: what is meant by a reading."""
    reason: str = ""


class SizeMark(BaseModel):
    """A mark in use."""

    label: str
    inside_diameter_mm: float


class SizeScale(BaseModel):
    """A size system for rulers and pickers: its marks with their inside diameters."""

    code: str
    name: str
    rule: str
    source: str
    marks: list[SizeMark]


class StyleTold(BaseModel):
    """A style, and the JSON Schema of its parameters."""

    kind: Literal["band", "head"]
    style: str
    title: str
    usual: bool
    """Whether a ring file that names none of its kind means this one."""
    parameters: dict[str, Any]


class ChoicesAsked(BaseModel):
    """What of a ring decides which styles go together: its band and head as they are set, and what was taken for them."""

    model_config = ConfigDict(extra="forbid")

    band: AnyBand
    head: AnyHead
    taken: TakenDefaults | None = None


@dataclass(kw_only=True, slots=True)
class StyleChoice(Told):
    """A style, and how it goes with the ring."""

    style: str
    title: str
    settings: dict[str, Any]
    """What of it has to be set for that; empty where it goes as it usually is, and where it doesn't go."""
    other_settings: dict[str, Any]
    """What has to be set of the ring's band for a head, of its head for a band."""
    reason: Said
    """Why it doesn't go; empty where it does."""
    head_instead: str = ""
    """Of a band on which the ring's head doesn't go: the head that it takes then."""


@dataclass(kw_only=True, slots=True)
class StyleChoices(Told):
    """What can be chosen for a ring as it is set."""

    bands: list[StyleChoice]
    heads: list[StyleChoice]
    taken: TakenDefaults
    """What its wires are unless they are asked otherwise."""
    wraps_each_side: int
    """Lock wraps that the head usually has."""


class WeaveProgram(BaseModel):
    """A weave program for so many base wires."""

    model_config = ConfigDict(extra="forbid")

    program: Text = Field(max_length=80)
    base_wires: int = Field(ge=2, le=4)


class WeaveProgramTold(BaseModel):
    """A program to choose, usual or the workshop's own."""

    program: str
    base_wires: int
    name: str
    own: bool

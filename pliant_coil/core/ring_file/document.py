"""The ring file: one small JSON document that describes a ring, and how it is read.

Unknown fields and bad values are refused with the field, the reason and what would be accepted. Older versions are
migrated forward on reading (`versions`), so nothing that was saved ever stops opening.
"""

import json
import re
from typing import TYPE_CHECKING, Annotated, Any, Final, Literal

from pydantic import BeforeValidator, ConfigDict, Field, ValidationError, model_validator

from pliant_coil.core.ring_file.by_style import ByStyle
from pliant_coil.core.ring_file.faults import as_refusal
from pliant_coil.core.ring_file.versions import VERSION, brought_forward
from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.finishes.wraps import Finish
from pliant_coil.core.styles.parameters import STORED, AskedWire, Part, WireSpec, millimetres, number
from pliant_coil.core.styles.registry import all_bands, all_heads, band_named, head_named, usual_band, usual_head
from pliant_coil.core.trade.schools import School
from pliant_coil.core.words.refusal import refuse

FORMAT: Final = "pliant-coil/ring"
LARGEST_FILE = 200_000
"""Characters; a ring file has a few hundred."""

_UNPRINTABLE = re.compile(r"[\x00-\x08\x0b-\x1f\x7f\ud800-\udfff]")


def _printable(value: object) -> object:
    # Neither a database nor a printer takes control characters or halves of a surrogate pair.
    return _UNPRINTABLE.sub(" ", value) if isinstance(value, str) else value


Text = Annotated[str, BeforeValidator(_printable)]


if TYPE_CHECKING:
    AnyBand = BandStyle
    AnyHead = HeadStyle
else:
    AnyBand = Annotated[Any, ByStyle(BandStyle, band_named, all_bands)]
    AnyHead = Annotated[Any, ByStyle(HeadStyle, head_named, all_heads)]


class Finger(Part):
    """Whose finger: a size as people type it, a circumference, or a finger and its knuckle."""

    size: Text | None = Field(None, title="Size", max_length=80, description="US 6 1/2, UK M 1/2, EU 54, JP 13, CH 14, DE 17.3, 54.4 mm")
    inside_circumference_mm: float | None = Field(None, gt=0, json_schema_extra={"unit": "mm"})
    around_finger_mm: float | None = Field(None, title="Around the finger", gt=0, json_schema_extra={"unit": "mm"})
    around_knuckle_mm: float | None = Field(None, title="Around the knuckle", gt=0, json_schema_extra={"unit": "mm"})


Role = Literal["band", "base", "weave", "bind", "tie", "coil", "sew"]
Tape = Literal["1 mm", "5 mm", "1/8 in", "1/4 in"]


class OwnStart(Part):
    """The maker's own start mark."""

    start: Text = Field(max_length=80, description="A size, as for the finger.")


class OwnRoom(Part):
    """Room for a wide band, in US sizes."""

    us_sizes: float = number(0.25, "US sizes", 0, 2)


class OwnTail(Part):
    """What is left at each end to hold."""

    mm: float = millimetres(12.0, "Tail", 0, 60)


class Sizing(Part):
    """How the start mark is chosen, and how generously wire is cut."""

    school: School | OwnStart = Field("geometry", title="Where to start")
    room_for_width: Literal["none", "quarter", "half"] | OwnRoom = Field(
        "none", title="Room for a wide band", description="Wide bands wear tighter: a quarter or half a size more, when you want it."
    )
    risk_of_running_out: float = number(0.02, "Risk of running out", 0.0001, 0.5)
    tape: Tape = Field("5 mm", title="Tape")
    tail: Literal["pliers", "fingers"] | OwnTail = Field("pliers", title="Ends held by")


class TakenDefaults(Part):
    """What was usual when the ring was kept, for all that its maker didn't ask: a later change of what is usual doesn't change the ring."""

    band: str = Field(max_length=40, description="The band for which it was taken; another one takes anew.")
    head: str = Field(max_length=40, description="The head for which it was taken; another one takes anew.")
    wires: dict[Role, WireSpec] = Field(default_factory=dict)
    """The whole wire of every role, as it is without what was asked."""


class RingFile(Part):
    """A ring, as it is saved, sent and planned."""

    # Only the styles' models wait until a document names them.
    model_config = ConfigDict(defer_build=False)

    format: Literal["pliant-coil/ring"] = FORMAT
    version: Literal[3] = VERSION
    title: Text = Field("", title="Title", max_length=120)
    notes: Text = Field("", title="Notes", max_length=4000)
    finger: Finger = Field(default_factory=lambda: Finger(size="US 7"))
    wires: dict[Role, AskedWire] = Field(default_factory=dict)
    """What was asked of each wire."""
    taken: TakenDefaults | None = Field(None, title="Taken as usual")
    band: AnyBand = Field(default_factory=usual_band)
    head: AnyHead = Field(default_factory=usual_head)
    finish: Finish = Field(default_factory=Finish)
    sizing: Sizing = Field(default_factory=Sizing)

    @model_validator(mode="before")
    @classmethod
    def _brought_forward(cls, document: Any) -> Any:
        return brought_forward(document)

    def usual_wire(self, role: str, usual: WireSpec) -> WireSpec:
        """The wire of `role` without what was asked: as it was taken when the ring was kept, or as its band and head usually take it."""
        taken = self.taken
        if taken is None or (taken.band, taken.head) != (self.band.style, self.head.style):
            return usual
        return next((spec for named, spec in taken.wires.items() if named == role), usual)

    def wire(self, role: str, usual: WireSpec) -> WireSpec:
        """The wire of `role`: what was asked of it, the rest as it is taken."""
        asked = next((spec for named, spec in self.wires.items() if named == role), None)
        return self.usual_wire(role, usual).with_asked(asked)


def read_ring(document: object, *, stored: bool = False) -> RingFile:
    """The ring that a parsed JSON document describes. Raises `Refusal` with every field that is wrong.

    A `stored` one is opened by its own version's rules: bounds that are tighter today don't lock anybody out of it.
    """
    if not isinstance(document, dict):
        refuse("", "a ring file is a JSON object", '{"format": "pliant-coil/ring", "version": 3, ...}')
    try:
        return RingFile.model_validate(document, context=STORED if stored else None)
    except ValidationError as error:
        raise as_refusal(error, RingFile) from None


def read_ring_text(text: str | bytes) -> RingFile:
    """The ring in a ring file's text. Raises `Refusal` for broken JSON with the line and column."""
    if len(text) > LARGEST_FILE:
        refuse("", f"that is {len(text)} characters long", f"a ring file of up to {LARGEST_FILE} characters")
    try:
        document = json.loads(text)
    except json.JSONDecodeError as error:
        refuse("", f"this isn't JSON: {error.msg} at line {error.lineno}, column {error.colno}", "a ring file")
    except (UnicodeDecodeError, RecursionError):
        refuse("", "this isn't a text file in UTF-8 that can be read", "a ring file")
    return read_ring(document)


def ring_schema() -> dict[str, Any]:
    """The JSON Schema of the ring file."""
    schema = RingFile.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Pliant Coil ring file"
    return schema

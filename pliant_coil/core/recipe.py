"""The ring file: one small JSON document that describes a ring, and how it is read.

Unknown fields and bad values are refused with the field, the reason and what would be accepted. Older versions are
migrated forward on reading (`_FORWARD`), so nothing that was saved ever stops opening.
"""

import json
import re
from collections.abc import Callable
from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Final, Literal

from pydantic import BeforeValidator, Field, ValidationError, model_validator

from pliant_coil.core.bands.base import BandStyle, all_bands
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle, all_heads
from pliant_coil.core.recipe_faults import as_refusal
from pliant_coil.core.refusal import refuse
from pliant_coil.core.wires import Part, Role, WireSpec

FORMAT: Final = "pliant-coil/ring"
VERSION: Final = 1
LARGEST_FILE = 200_000
"""Characters; a ring file has a few hundred."""

_UNPRINTABLE = re.compile(r"[\x00-\x08\x0b-\x1f\x7f\ud800-\udfff]")


def _printable(value: object) -> object:
    # Neither a database nor a printer takes control characters or halves of a surrogate pair.
    return _UNPRINTABLE.sub(" ", value) if isinstance(value, str) else value


Text = Annotated[str, BeforeValidator(_printable)]


def _one_of(styles: dict[str, type[Any]]) -> Any:
    """The union of all registered styles, told apart by `style`."""
    kinds = list(styles.values())
    if len(kinds) == 1:
        return kinds[0]
    return Annotated[reduce(or_, kinds), Field(discriminator="style")]


if TYPE_CHECKING:
    AnyBand = BandStyle
    AnyHead = HeadStyle
else:
    AnyBand = _one_of(all_bands())
    AnyHead = _one_of(all_heads())


class Finger(Part):
    """Whose finger: a size as people type it, a circumference, or a finger and its knuckle."""

    size: Text | None = Field(None, title="Size", max_length=80, description="US 6 1/2, UK M 1/2, EU 54, JP 13, CH 14, DE 17.3, 54.4 mm")
    inside_circumference_mm: float | None = Field(None, gt=0, json_schema_extra={"unit": "mm"})
    around_finger_mm: float | None = Field(None, title="Around the finger", gt=0, json_schema_extra={"unit": "mm"})
    around_knuckle_mm: float | None = Field(None, title="Around the knuckle", gt=0, json_schema_extra={"unit": "mm"})


School = Literal["geometry", "at-size", "one-up", "two-up", "half-up", "down"]
Tape = Literal["1 mm", "5 mm", "1/8 in", "1/4 in"]


class OwnStart(Part):
    """The maker's own start mark."""

    start: Text = Field(max_length=80, description="A size, as for the finger.")


class Sizing(Part):
    """How the start mark is chosen, and how generously wire is cut."""

    school: School | OwnStart = Field("geometry", title="Where to start")
    risk_of_running_out: float = Field(0.02, title="Risk of running out", ge=0.0001, le=0.5)
    tape: Tape = Field("1 mm", title="Tape")
    grip: Literal["hand", "pliers"] = Field("hand", title="Held by")


class RingFile(Part):
    """A ring, as it is saved, sent and planned."""

    format: Literal["pliant-coil/ring"] = FORMAT
    version: Literal[1] = VERSION
    title: Text = Field("", title="Title", max_length=120)
    notes: Text = Field("", title="Notes", max_length=4000)
    finger: Finger = Field(default_factory=lambda: Finger(size="US 7"))
    wires: dict[Role, WireSpec] = Field(default_factory=dict)
    band: AnyBand = Field(default_factory=lambda: all_bands()["turned"]())
    head: AnyHead = Field(default_factory=lambda: all_heads()["none"]())
    finish: Finish = Field(default_factory=Finish)
    sizing: Sizing = Field(default_factory=Sizing)

    @model_validator(mode="before")
    @classmethod
    def _brought_forward(cls, document: Any) -> Any:
        while isinstance(document, dict) and (step := _FORWARD.get(_version(document))):
            document = step(document)
        return document

    def wire(self, role: str) -> WireSpec:
        """The wire in `role`: what the file says of it, the rest as is usual for the head or the band."""
        usual: WireSpec = {**self.head.usual_wires, **self.band.usual_wires}[role]
        given = next((spec for named, spec in self.wires.items() if named == role), None)
        if given is None:
            return usual
        return usual.model_copy(update={name: getattr(given, name) for name in given.model_fields_set})


_FORWARD: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {}
"""Per old version, what brings a document one version on. Version 1 is the first."""


def _version(document: dict[str, Any]) -> int:
    version = document.get("version", VERSION)
    return version if isinstance(version, int) else VERSION


def read_ring(document: object) -> RingFile:
    """The ring that a parsed JSON document describes. Raises `Refusal` with every field that is wrong."""
    if not isinstance(document, dict):
        refuse("", "a ring file is a JSON object", '{"format": "pliant-coil/ring", "version": 1, ...}')
    try:
        return RingFile.model_validate(document)
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

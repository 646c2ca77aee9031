"""What the ring file's parts are made of: bounds that are checked when a ring is planned, lengths that may be typed with units.

Bounds are the style's own rules of today. A ring that was saved is opened without them (`STORED`), so that a bound that
gets tighter later never locks anybody out; planning it then says which field asks for another value.
"""

from functools import lru_cache
from typing import Annotated, Any, Final

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, ValidationInfo, field_validator, model_serializer, model_validator
from pydantic_core import PydanticCustomError

from pliant_coil.core.trade.gauges import read_diameter
from pliant_coil.core.trade.measures import read_length_mm
from pliant_coil.core.trade.metals import METALS, MetalCode, Temper
from pliant_coil.core.trade.profiles import Profile, ProfileName
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Thickness
from pliant_coil.core.words.refusal import Refusal, refuse
from pliant_coil.core.words.say import say

STORED: Final = {"stored": True}
"""The validation context in which a saved ring is opened."""


class Part(BaseModel):
    """A part of the ring file: unknown fields and numbers that aren't numbers are refused, and it never changes."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True, defer_build=True)

    @model_validator(mode="before")
    @classmethod
    def _lengths_as_typed(cls, given: Any) -> Any:
        """Lengths may be typed with their unit; what can't be read is left for the field's own refusal."""
        if not isinstance(given, dict) or not any(isinstance(value, str) for value in given.values()):
            return given
        return {name: _as_length(cls, name, value) for name, value in given.items()}

    @field_validator("*", mode="after")
    @classmethod
    def _within_bounds(cls, value: Any, info: ValidationInfo) -> Any:
        declared = _declared(cls, info.field_name)
        least, most = declared.get("minimum"), declared.get("maximum")
        if (
            not isinstance(least, int | float)
            or not isinstance(most, int | float)
            or isinstance(value, bool)
            or not isinstance(value, int | float)
            or (info.context or {}).get("stored")
        ):
            return value
        if not least <= value <= most:
            raise PydanticCustomError("bounds", "out of range", {"least": least, "most": most, "unit": declared.get("unit", "")})
        return value


@lru_cache(maxsize=1024)
def _declared(cls: type[BaseModel], name: str | None) -> dict[str, Any]:
    field = cls.model_fields.get(name or "")
    extra = field.json_schema_extra if field else None
    return extra if isinstance(extra, dict) else {}


def _as_length(cls: type[BaseModel], name: str, value: object) -> object:
    if isinstance(value, str) and _declared(cls, name).get("unit") == "mm":
        try:
            return read_length_mm(value)
        except Refusal:
            return value
    return value


def _field(default: Any, title: str, bounds: tuple[float, float], unit: str, help: str, *, rare: bool, bare: bool = False) -> Any:
    extra: dict[str, Any] = {"minimum": bounds[0], "maximum": bounds[1], "unit": unit}
    if not unit:
        del extra["unit"]
    extra |= {name: True for name, meant in (("rare", rare), ("bare", bare)) if meant}
    return Field(default, title=title, description=help or None, json_schema_extra=extra)


def millimetres(
    default: float | str | None, title: str, least: float, most: float, help: str = "", *, rare: bool = False, bare: bool = False
) -> Any:
    """A length of the ring file [mm]; `rare` ones stand behind the common ones, `bare` ones are asked while no head says them."""
    return _field(default, title, (least, most), "mm", help, rare=rare, bare=bare)


def degrees(default: float | None, title: str, least: float, most: float, help: str = "", *, rare: bool = False) -> Any:
    """An angle of the ring file [°]."""
    return _field(default, title, (least, most), "°", help, rare=rare)


def number(default: float | None, title: str, least: float, most: float, help: str = "", *, rare: bool = False) -> Any:
    """A count, a share or a ratio of the ring file."""
    return _field(default, title, (least, most), "", help, rare=rare)


def choice(default: Any, title: str, help: str = "", *, rare: bool = False) -> Any:
    """One of several."""
    return Field(default, title=title, description=help or None, json_schema_extra={"rare": True} if rare else None)


def _as_text(value: object) -> object:
    return str(value) if isinstance(value, int | float) and not isinstance(value, bool) else value


_DIAMETER_HELP = "Gauge or diameter: 20 AWG, 21 SWG, 0.8 mm, 1/32 in. For flat strip, its thickness."
_STRIP_HELP = "Width of a flat strip; other sections don't use it."
_REEL_HELP = "Nothing is cut first; the plan says where to stop."
_Diameter = Annotated[str, BeforeValidator(_as_text)]


class WireSpec(Part):
    """A whole wire, as a style usually takes it for one of its roles."""

    diameter: _Diameter = Field("0.8 mm", title="Wire", max_length=80, description=_DIAMETER_HELP)
    profile: ProfileName = Field("round", title="Section")
    strip_width_mm: float = millimetres(2.0, "Strip width", 0.1, 12, _STRIP_HELP)
    metal: MetalCode = Field("copper", title="Metal")
    temper: Temper = Field("soft", title="Temper")
    from_reel: bool = Field(False, title="Work from the reel", description=_REEL_HELP)

    def with_asked(self, asked: "AskedWire | None") -> "WireSpec":
        """This wire with what the maker asked for in place of what is usual."""
        return self.model_copy(update=asked.given()) if asked else self


class AskedWire(Part):
    """A wire as far as the maker names it; the rest is taken as it is usual for the role."""

    diameter: _Diameter | None = Field(None, title="Wire", max_length=80, description=_DIAMETER_HELP)
    profile: ProfileName | None = Field(None, title="Section")
    strip_width_mm: float | None = millimetres(None, "Strip width", 0.1, 12, _STRIP_HELP)
    metal: MetalCode | None = Field(None, title="Metal")
    temper: Temper | None = Field(None, title="Temper")
    from_reel: bool | None = Field(None, title="Work from the reel", description=_REEL_HELP)

    def given(self) -> dict[str, Any]:
        """The fields that were named, with their values."""
        return {name: value for name in type(self).model_fields if (value := getattr(self, name)) is not None}

    @model_serializer(mode="plain")
    def _as_asked(self) -> dict[str, Any]:
        # What wasn't asked isn't written: null would look like an answer.
        return self.given()


def read_wire(spec: WireSpec, role: str) -> Wire:
    """The wire that `spec` names. Raises `Refusal` at `wires.<role>.<field>`."""
    return _wire(spec.diameter, spec.profile, spec.strip_width_mm, spec.metal, spec.temper, f"wires.{role}")


@lru_cache(maxsize=128)
def _wire(diameter: str, section: ProfileName, strip_width_mm: float, metal: MetalCode, temper: Temper, where: str) -> Wire:
    """Kept with all that it reckons of itself: while everything else of a ring is changed, its wires stay."""
    read = read_diameter(diameter, f"{where}.diameter")
    flat = section == "flat"
    if flat and strip_width_mm < read.diameter_mm:
        refuse(
            f"{where}.strip_width_mm",
            say(
                "a strip {width} wide and {thick} thick would stand on its edge",
                width=Thickness(strip_width_mm),
                thick=Thickness(read.diameter_mm),
            ),
            "a width larger than the thickness, which is the diameter's field",
        )
    profile = Profile(section, read.diameter_mm, strip_width_mm if flat else 0.0)
    return Wire(METALS[metal], temper, profile, read.label, read.doubt)

"""A part of the ring file that is one of the registered styles, told apart by its `style`.

Only the model of the style that stands in a document is built: with every style's a terminal would wait for a second.
"""

from collections.abc import Callable, Mapping
from functools import reduce
from operator import or_
from typing import Annotated, Any

from pydantic import BaseModel, Field, GetCoreSchemaHandler, GetJsonSchemaHandler, TypeAdapter
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from pliant_coil.core.frozen import dataclass


@dataclass(frozen=True)
class ByStyle:
    """Annotates a field: a kind of style, the one of a name, and all of them, found when they are asked for."""

    kind: type[BaseModel]
    named: Callable[[str], type[BaseModel] | None]
    styles: Callable[[], Mapping[str, type[BaseModel]]]

    def read(self, given: Any, info: core_schema.ValidationInfo) -> BaseModel:
        """The style's own model of `given`. Raises `ValidationError` at the style's fields."""
        if isinstance(given, self.kind):
            return given
        if not isinstance(given, Mapping):
            raise PydanticCustomError("model_type", "isn't an object")
        if "style" not in given:
            raise PydanticCustomError("style_missing", "names no style", {"styles": ", ".join(self.styles())})
        name = given["style"]
        style = self.named(name) if isinstance(name, str) else None
        if style is None:
            raise PydanticCustomError(
                "style_unknown", "no such style", {"style": name if isinstance(name, str) else "", "styles": ", ".join(self.styles())}
            )
        return style.model_validate(given, context=info.context)

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.with_info_plain_validator_function(
            self.read, serialization=core_schema.plain_serializer_function_ser_schema(_dumped, info_arg=True)
        )

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        kinds = list(self.styles().values())
        union: Any = kinds[0] if len(kinds) == 1 else Annotated[reduce(or_, kinds), Field(discriminator="style")]
        return handler(TypeAdapter(union).core_schema)


def _dumped(part: BaseModel, info: core_schema.SerializationInfo) -> dict[str, Any]:
    return part.model_dump(
        mode=info.mode,
        context=info.context,
        exclude_unset=info.exclude_unset,
        exclude_defaults=info.exclude_defaults,
        exclude_none=info.exclude_none,
    )

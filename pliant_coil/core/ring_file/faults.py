"""A validation error of the ring file, said in the trade's words."""

from typing import Any

from pydantic import BaseModel, ValidationError
from pydantic_core import ErrorDetails

from pliant_coil.core.words.figures import Length, Number
from pliant_coil.core.words.refusal import Fault, Refusal, fault
from pliant_coil.core.words.say import say

MOST_FAULTS = 12
"""Told at once; a document with more is better looked at from its first ones."""


def as_refusal(error: ValidationError, model: type[BaseModel]) -> Refusal:
    """The refusal for a Pydantic `error` on `model`, field by field; the input's own text is never repeated."""
    faults: dict[str, Fault] = {}
    for detail in error.errors(include_url=False, include_input=False)[:MOST_FAULTS]:
        found = fault_from(detail, model)
        faults.setdefault(found.field, found)
    return Refusal(*faults.values())


def fault_from(detail: ErrorDetails | dict[str, Any], model: type[BaseModel] | None = None) -> Fault:
    """One error as a fault with its dotted field."""
    steps = [str(step) for step in detail["loc"]]
    kind, context = detail["type"], detail.get("ctx", {})
    field = ".".join(_without_tags(steps))[:120]
    match kind:
        case "extra_forbidden":
            return fault(field, "isn't a field of the ring file", _siblings(steps, model))
        case "missing":
            return fault(field, "is missing")
        case "literal_error" | "enum":
            return fault(field, "isn't one of the choices", str(context.get("expected", "")).replace("'", ""))
        case "style_unknown":
            named = f" “{context['style'][:40]}”" if context["style"] else " of that name"
            return fault(f"{field}.style", f"there is no style{named}", context["styles"])
        case "style_missing":
            return fault(f"{field}.style", "is missing", context["styles"])
        case "greater_than" | "greater_than_equal" | "less_than" | "less_than_equal":
            bound = next(context[key] for key in ("gt", "ge", "lt", "le") if key in context)
            side = {"greater_than": "more than", "greater_than_equal": "at least", "less_than": "less than", "less_than_equal": "at most"}[
                kind
            ]
            return fault(field, "is out of range", f"{side} {bound:g}")
        case "bounds":
            least, most = (Length(context[k]) if context["unit"] == "mm" else Number(context[k], 4) for k in ("least", "most"))
            degrees = "°" if context["unit"] == "°" else ""
            return fault(field, "is out of range", say(f"{{least}}{degrees} to {{most}}{degrees}", least=least, most=most))
        case "string_too_long":
            return fault(field, "is too long", f"up to {context['max_length']} characters")
        case "finite_number":
            return fault(field, "isn't a number that can be measured", "a plain number")
        case "float_type" | "float_parsing":
            return fault(field, "isn't a number", "a number")
        case "int_type" | "int_parsing" | "int_from_float":
            return fault(field, "isn't a whole number", "a whole number")
        case "string_type":
            return fault(field, "isn't text", "text in quotes")
        case "bool_type" | "bool_parsing":
            return fault(field, "isn't yes or no", "true or false")
        case "tuple_type" | "list_type":
            return fault(field, "isn't a list", "a list in brackets")
        case "model_type" | "dict_type" | "model_attributes_type":
            return fault(field, "isn't an object", "an object in braces")
    # What the reading library would say is no sentence for a maker.
    return fault(field, "can't be read")


def _without_tags(steps: list[str]) -> list[str]:
    """The path in the document: without the type names that the validator adds."""
    return [step for step in steps if "[" not in step and not step[:1].isupper()]


def _siblings(steps: list[str], model: type[BaseModel] | None) -> str:
    """The fields that could have stood there, for the outermost object; inner ones are listed by the schema."""
    if model is None or len(steps) != 1:
        return ""
    return ", ".join(model.model_fields)

"""Rings from anywhere within their parameters' bounds, drawn from the styles' own schemas: what a maker could type, not what one usually does."""

import math
import random
from collections.abc import Iterator
from typing import Any

from pliant_coil.core.styles.registry import all_bands, all_heads

_SIZES = ("US 3", "US 4 1/2", "US 6", "US 7", "US 8 1/4", "US 10", "US 12", "US 13")
_SET = 0.3
"""Share of a style's parameters that are set; the rest stay as usual."""


def rings(seed: int) -> Iterator[dict[str, Any]]:
    """Endlessly: band and head that fit, some of their parameters anywhere within bounds, wires up to a quarter thicker or thinner."""
    rnd = random.Random(seed)
    bands, heads = all_bands(), all_heads()
    schemas = {name: style.model_json_schema() for name, style in (*bands.items(), *heads.items())}
    pairs = [(b, h) for b, band in bands.items() for h, head in heads.items() if not head().fits(band()) or b == "woven"]
    while True:
        band, head = rnd.choice(pairs)
        document: dict[str, Any] = {
            "finger": {"size": rnd.choice(_SIZES)},
            "band": {"style": band, **_some(schemas[band], schemas[band].get("$defs", {}), rnd)},
            "head": {"style": head, **_some(schemas[head], schemas[head].get("$defs", {}), rnd)},
        }
        if rnd.random() < 0.4:
            usual = {**bands[band].usual_wires, **heads[head].usual_wires}
            document["wires"] = {role: {"diameter": _near(spec.diameter, rnd)} for role, spec in usual.items() if rnd.random() < 0.5}
        if rnd.random() < 0.3:
            document["finish"] = {"wraps_each_side": rnd.randint(1, 4), "ends": rnd.choice(["hidden", "loop", "scroll"])}
        yield document


def _near(diameter: str, rnd: random.Random) -> str:
    number, unit = diameter.split()
    mm = float(number) if unit == "mm" else 0.127 * 92 ** ((36 - int(number)) / 39)
    return f"{mm * rnd.uniform(0.75, 1.25):.2f} mm"


def _some(schema: dict[str, Any], parts: dict[str, Any], rnd: random.Random) -> dict[str, Any]:
    found = {}
    for name, field in schema["properties"].items():
        if name != "style" and rnd.random() < _SET:
            value = _value(field, parts, rnd)
            if value is not None:
                found[name] = value
    return found


def _value(field: dict[str, Any], parts: dict[str, Any], rnd: random.Random) -> Any:
    """A value that the field's schema takes; None where it is left out."""
    if "$ref" in field:
        return _some(parts[field["$ref"].rsplit("/", 1)[-1]], parts, rnd)
    if "anyOf" in field:
        bounds: dict[str, Any] = {key: field[key] for key in ("minimum", "maximum") if key in field}
        return _value({**rnd.choice(field["anyOf"]), **bounds}, parts, rnd)
    if "const" in field:
        return field["const"]
    if "enum" in field:
        return rnd.choice(field["enum"])
    kind = field.get("type")
    if kind == "array":
        items = (_value(field["items"], parts, rnd) for _ in range(rnd.randint(2, 4)))
        return [item for item in items if item is not None]
    if kind == "boolean":
        return rnd.random() < 0.5
    if "minimum" not in field or "maximum" not in field:
        return None
    least, most = float(field["minimum"]), float(field["maximum"])
    return rnd.randint(math.ceil(least), math.floor(most)) if kind == "integer" else round(rnd.uniform(least, most), 2)

"""Finding the styles: every file of a folder that defines one is a style, and nothing else has to name it."""

import importlib
import pkgutil
from functools import cache
from typing import Any, TypeVar, get_args

from pliant_coil.core.styles.contract import BandStyle, HeadStyle

Style = TypeVar("Style", BandStyle, HeadStyle)


@cache
def _modules(package: str) -> tuple[Any, ...]:
    found = importlib.import_module(package)
    names = sorted(info.name for info in pkgutil.iter_modules(found.__path__))
    return tuple(importlib.import_module(f"{package}.{name}") for name in names)


def _styles_in(package: str, kind: type[Style]) -> dict[str, type[Style]]:
    found: dict[str, type[Style]] = {}
    for module in _modules(package):
        for item in vars(module).values():
            if isinstance(item, type) and issubclass(item, kind) and item.__module__ == module.__name__:
                (name,) = get_args(item.model_fields["style"].annotation)
                found[name] = item
    return found


@cache
def all_bands() -> dict[str, type[BandStyle]]:
    """Every band style by name."""
    return _styles_in("pliant_coil.core.styles.bands", BandStyle)


@cache
def all_heads() -> dict[str, type[HeadStyle]]:
    """Every head style by name."""
    return _styles_in("pliant_coil.core.styles.heads", HeadStyle)


def usual_name(styles: dict[str, Any]) -> str:
    """The name of the style that a ring file means when it names none."""
    return next(name for name, style in styles.items() if style.usual)


def usual_style(styles: dict[str, Any]) -> Any:
    """The style that a ring file means when it names none."""
    return styles[usual_name(styles)]

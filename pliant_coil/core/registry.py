"""Finding the styles: every file of a folder that defines one is a style, and nothing else has to name it."""

import importlib
import pkgutil
from functools import cache
from typing import Any, TypeVar, get_args

from pliant_coil.core.wires import Part

Style = TypeVar("Style", bound=Part)


@cache
def _modules(package: str) -> tuple[Any, ...]:
    found = importlib.import_module(package)
    names = sorted(info.name for info in pkgutil.iter_modules(found.__path__))
    return tuple(importlib.import_module(f"{package}.{name}") for name in names)


def styles_in(package: str, kind: type[Style]) -> dict[str, type[Style]]:
    """The concrete styles of `kind` in the modules of `package`, by the one value of their `style` field."""
    found: dict[str, type[Style]] = {}
    for module in _modules(package):
        for item in vars(module).values():
            if isinstance(item, type) and issubclass(item, kind) and item.__module__ == module.__name__ and item is not kind:
                (name,) = get_args(item.model_fields["style"].annotation)
                found[name] = item
    return found

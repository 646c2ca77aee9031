"""Finding the styles: every file of a folder that defines one is a style, and nothing else has to name it.

A file is named after its style, so that one style can be had without loading the rest.
"""

import importlib
import pkgutil
from functools import cache
from typing import TypeVar

from pliant_coil.core.styles import bands, heads
from pliant_coil.core.styles.contract import BandStyle, HeadStyle

Style = TypeVar("Style", BandStyle, HeadStyle)


USUAL_BAND, USUAL_HEAD = bands.USUAL, heads.USUAL
"""What a ring file means that names none."""
_BANDS, _HEADS = "pliant_coil.core.styles.bands", "pliant_coil.core.styles.heads"


@cache
def _names(package: str) -> tuple[str, ...]:
    return tuple(sorted(info.name for info in pkgutil.iter_modules(importlib.import_module(package).__path__)))


def _style_in(module_name: str, kind: type[Style]) -> type[Style]:
    module = importlib.import_module(module_name)
    return next(
        item for item in vars(module).values() if isinstance(item, type) and issubclass(item, kind) and item.__module__ == module_name
    )


def _styles_in(package: str, kind: type[Style]) -> dict[str, type[Style]]:
    return {name.replace("_", "-"): _style_in(f"{package}.{name}", kind) for name in _names(package)}


def _named(package: str, name: str, kind: type[Style]) -> type[Style] | None:
    file = name.replace("-", "_")
    return _style_in(f"{package}.{file}", kind) if file in _names(package) and "_" not in name else None


@cache
def band_named(name: str) -> type[BandStyle] | None:
    """The band style of this name, or None."""
    return _named(_BANDS, name, BandStyle)


@cache
def head_named(name: str) -> type[HeadStyle] | None:
    """The head style of this name, or None."""
    return _named(_HEADS, name, HeadStyle)


@cache
def all_bands() -> dict[str, type[BandStyle]]:
    """Every band style by name."""
    return _styles_in(_BANDS, BandStyle)


@cache
def all_heads() -> dict[str, type[HeadStyle]]:
    """Every head style by name."""
    return _styles_in(_HEADS, HeadStyle)


@cache
def usual_band() -> BandStyle:
    """The band that a ring file means when it names none, as it usually is; a style's parameters never change."""
    return _style_in(f"{_BANDS}.{USUAL_BAND}", BandStyle)()


@cache
def usual_head() -> HeadStyle:
    """The head that a ring file means when it names none."""
    return _style_in(f"{_HEADS}.{USUAL_HEAD}", HeadStyle)()

"""Which bands and heads can be made together: as they usually are, as they are set, and what would have to be set for it."""

from collections.abc import Callable, Mapping
from functools import cache
from typing import Any, TypeVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.registry import USUAL_HEAD, all_bands, all_heads
from pliant_coil.core.words.say import NOTHING, Say

Style = TypeVar("Style", BandStyle, HeadStyle)
Other = TypeVar("Other", BandStyle, HeadStyle)


@dataclass(frozen=True)
class Fit:
    """How a style goes with the one that is there."""

    style: type[BandStyle] | type[HeadStyle]
    settings: Mapping[str, Any]
    """What of it has to be set for that; empty where it goes as it usually is, and where it doesn't go at all."""
    other_settings: Mapping[str, Any]
    """What has to be set of the one that is there; empty like those."""
    reason: Say
    """Why it doesn't go; empty where it does."""


def fitting_heads(band: BandStyle) -> list[Fit]:
    """Every head, and how it can be made on this band."""
    return [_fit(style, band, lambda head, on: head.fits(on)) for style in all_heads().values()]


def fitting_bands(head: HeadStyle) -> list[Fit]:
    """Every band, and how this head can be made on it."""
    return [_fit(style, head, lambda band, made: made.fits(band)) for style in all_bands().values()]


def heads_for(band: BandStyle) -> list[str]:
    """The heads that can be made on a band as they usually are."""
    return [name for name, style in all_heads().items() if not style().fits(band)]


def simplest_head(band: BandStyle) -> str:
    """The head with which a band shows most of itself: none, where it can be without one."""
    fitting = heads_for(band)
    return USUAL_HEAD if USUAL_HEAD in fitting else fitting[0]


def bands_for(head: HeadStyle) -> list[str]:
    """The bands, as they usually are, that a head can be made on."""
    return [name for name, style in all_bands().items() if not head.fits(style())]


def _fit(style: type[Style], other: Other, why_not: Callable[[Style, Other], Say]) -> Fit:
    """The smallest change that lets both go together: none, one setting of the style that is chosen, or one of the other."""
    usual = style()
    reason = why_not(usual, other)
    if reason:
        for settings in _choices(style):
            if not why_not(style.model_validate({"style": usual.style, **settings}), other):
                return Fit(style, settings, {}, NOTHING)
        for settings in _choices(type(other)):
            if not why_not(usual, other.model_copy(update=settings)):
                return Fit(style, {}, settings, NOTHING)
    return Fit(style, {}, {}, reason)


@cache
def _choices(style: type[BandStyle] | type[HeadStyle]) -> list[dict[str, Any]]:
    """Every field of a style that is one of a few words or yes and no, with each of its values but the usual one."""
    found: list[dict[str, Any]] = []
    for name, schema in style.model_json_schema()["properties"].items():
        values = [True, False] if schema.get("type") == "boolean" else schema.get("enum", [])
        found += [{name: value} for value in values if value != schema.get("default")]
    return found

"""What there is to choose from: styles with their parameters, what goes with a ring that is being set, and the ring file's schema."""

from functools import lru_cache
from typing import Any

from fastapi import APIRouter, Response

from pliant_coil.core.making.fitting import Fit, fitting_bands, fitting_heads, simplest_head
from pliant_coil.core.making.ring import taken_defaults
from pliant_coil.core.ring_file.document import RingFile, ring_schema
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.registry import USUAL_BAND, USUAL_HEAD, all_bands, all_heads
from pliant_coil.web_api.problems import REFUSED
from pliant_coil.web_api.readers import TheReader, Written
from pliant_coil.web_api.schemas import ChoicesAsked, StyleChoice, StyleChoices, StyleTold

router = APIRouter(tags=["styles"])


@router.get("/styles")
async def styles() -> list[StyleTold]:
    """Every band and head style with its parameters."""
    return _styles()


@router.post("/styles/choices", response_model=StyleChoices, responses=REFUSED)
def choices(asked: ChoicesAsked, reader: TheReader) -> Response:
    """Which bands and heads go with a ring as it is set, what would have to be set for it, and what its wires are unless asked otherwise."""
    file = RingFile(band=asked.band, head=asked.head, taken=asked.taken)
    told = StyleChoices(
        bands=[_band_choice(style, fit) for style, fit in zip(all_bands().values(), fitting_bands(file.head), strict=True)],
        heads=[_choice(fit) for fit in fitting_heads(file.band)],
        taken=taken_defaults(file),
        wraps_each_side=file.head.usual_locks,
    )
    return Written(told.json(reader))


def _band_choice(style: type[BandStyle], fit: Fit) -> StyleChoice:
    choice = _choice(fit)
    choice.head_instead = simplest_head(style()) if fit.reason else ""
    return choice


def _choice(fit: Fit) -> StyleChoice:
    return StyleChoice(
        style=fit.style().style,
        title=fit.style.title,
        settings=dict(fit.settings),
        other_settings=dict(fit.other_settings),
        reason=fit.reason,
    )


@router.get("/schema/ring")
async def schema() -> dict[str, Any]:
    """The JSON Schema of the ring file."""
    return _schema()


@lru_cache(maxsize=1)
def _schema() -> dict[str, Any]:
    return ring_schema()


@lru_cache(maxsize=1)
def _styles() -> list[StyleTold]:
    bands = [
        StyleTold(kind="band", style=name, title=s.title, usual=name == USUAL_BAND, parameters=s.model_json_schema())
        for name, s in all_bands().items()
    ]
    heads = [
        StyleTold(kind="head", style=name, title=s.title, usual=name == USUAL_HEAD, parameters=s.model_json_schema())
        for name, s in all_heads().items()
    ]
    return bands + heads

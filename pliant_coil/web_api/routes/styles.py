"""What there is to choose from: styles with their parameters, and the ring file's schema."""

from functools import lru_cache
from typing import Any

from fastapi import APIRouter

from pliant_coil.core.making.ring import bands_for, heads_for
from pliant_coil.core.ring_file.document import ring_schema
from pliant_coil.core.styles.registry import USUAL_BAND, USUAL_HEAD, all_bands, all_heads
from pliant_coil.web_api.schemas import StyleTold

router = APIRouter(tags=["styles"])


@router.get("/styles")
async def styles() -> list[StyleTold]:
    """Every band and head style with its parameters."""
    return _styles()


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
        StyleTold(
            kind="band",
            style=name,
            title=s.title,
            usual=name == USUAL_BAND,
            bands=[],
            heads=heads_for(s()),
            usual_wires=_wires(s.usual_wires),
            parameters=s.model_json_schema(),
        )
        for name, s in all_bands().items()
    ]
    heads = [
        StyleTold(
            kind="head",
            style=name,
            title=s.title,
            usual=name == USUAL_HEAD,
            bands=bands_for(s()),
            heads=[],
            usual_wires=_wires(s.usual_wires),
            parameters=s.model_json_schema(),
        )
        for name, s in all_heads().items()
    ]
    return bands + heads


def _wires(usual: Any) -> dict[str, Any]:
    return {role: spec.model_dump(mode="json") for role, spec in usual.items()}

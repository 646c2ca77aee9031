"""Ring files of older versions, brought forward on reading. What had another default then is written out, so that it keeps its plan."""

import copy
from typing import Any, Final

from pliant_coil.core.styles.registry import USUAL_BAND, USUAL_HEAD, all_bands, all_heads

VERSION: Final = 3
_TAILS = {"hand": "fingers", "pliers": "pliers"}


def brought_forward(document: Any) -> Any:
    """The document as the newest version writes it; anything but an older ring file as it is."""
    if not isinstance(document, dict):
        return document
    match _version(document):
        case 1:
            return _from_2(_from_1(copy.deepcopy(document)))
        case 2:
            return _from_2(dict(document))
    return document


def _version(document: dict[str, Any]) -> int:
    version = document.get("version")
    if isinstance(version, int):
        return version
    # A file without a version that uses a name of version 1 is one.
    parts = [document.get(key) for key in ("finish", "sizing", "band")]
    old = {"short_tail", "grip", "top_gap_mm", "closing_mm"}
    return 1 if any(isinstance(part, dict) and old & part.keys() for part in parts) else VERSION


def _from_1(document: dict[str, Any]) -> dict[str, Any]:
    document["version"] = 2
    for part, styles, usual in (("band", all_bands(), USUAL_BAND), ("head", all_heads(), USUAL_HEAD)):
        given = document.get(part)
        if given is None:
            given = {"style": usual}
        if isinstance(given, dict):
            name = given.get("style", "")
            style = styles.get(name) if isinstance(name, str) else None
            document[part] = style.from_version_1(given, document) if style else given
    finish = document.setdefault("finish", {})
    if isinstance(finish, dict):
        finish.pop("short_tail", None)
        finish.setdefault("wraps_each_side", 2)
    sizing = document.setdefault("sizing", {})
    if isinstance(sizing, dict):
        sizing.setdefault("tape", "1 mm")
        grip = sizing.pop("grip", "hand")
        sizing["tail"] = _TAILS.get(grip, grip) if isinstance(grip, str) else grip
    return document


def _from_2(document: dict[str, Any]) -> dict[str, Any]:
    # What version 2 says of a wire counts as asked, also where it was a default that was written out: it is what its maker saw.
    document["version"] = VERSION
    return document

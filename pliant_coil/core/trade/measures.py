"""Numbers as makers type them: mixed fractions, lengths with their units, the tape's next mark."""

import math
import re

from pliant_coil.core.words.figures import MM_PER_INCH
from pliant_coil.core.words.refusal import refuse

LONGEST_TEXT = 80
"""Characters; nobody types a longer measure, and nothing longer is worth parsing."""

_GLYPHS = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3",
    "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5", "⅙": "1/6", "⅚": "5/6",
}  # fmt: skip
_WRITTEN_OUT = str.maketrans({glyph: f" {fraction}" for glyph, fraction in _GLYPHS.items()})
# The fraction slash and the quotes come from phones' keyboards.
_TYPED = _WRITTEN_OUT | str.maketrans({"\u2044": "/", "″": '"', "”": '"', "’": "'"})
_WORDS = {"AND A HALF": " 1/2", "AND A QUARTER": " 1/4", "AND THREE QUARTERS": " 3/4", "HALF": " 1/2"}
_IN_WORDS = re.compile(rf"\b(?:{'|'.join(_WORDS)})\b")
# A whole number and a fraction stand apart (`7 1/4`, `7-1/4`): `13/16` is thirteen sixteenths, not one and three sixteenths.
_MIXED = re.compile(r"(?:(\d{1,4}(?:[.,]\d{0,6})?|[.,]\d{1,6})(?=$|[\s-]))?(?:(?:^|(?<=[^\s])(?:\s+|-))(\d{1,3})\s*/\s*(\d{1,3}))?")


def plain_fractions(text: str) -> str:
    """`text` with fraction glyphs written out: `6½` as `6 1/2`."""
    return text.translate(_WRITTEN_OUT)


def tidy(text: str, field: str) -> str:
    """`text` in capitals with single spaces, fraction glyphs and words written as `1/2`.

    Raises `Refusal` at `field` when the text is empty or longer than `LONGEST_TEXT`.
    """
    if len(text) > LONGEST_TEXT:
        refuse(field, f"that is {len(text)} characters long", f"a measure of up to {LONGEST_TEXT} characters")
    tidied = _IN_WORDS.sub(lambda words: _WORDS[words[0]], text.translate(_TYPED).upper())
    return " ".join(tidied.split())


def mixed_number(text: str) -> float | None:
    """The value of `7`, `7.25`, `7,25`, `7 1/4`, `7-1/4` or `3/4`; None for anything else."""
    match = _MIXED.fullmatch(text.strip())
    if not match or not match.group(0):
        return None
    whole, top, bottom = match.groups()
    value = float(whole.replace(",", ".")) if whole else 0.0
    if top:
        if int(bottom) == 0 or int(top) >= int(bottom) or (whole and ("." in whole or "," in whole)):
            return None
        value += int(top) / int(bottom)
    return value


def round_up(value: float, step: float) -> float:
    """`value` raised to the next multiple of `step`; a value on a multiple stays, within a millionth of a step."""
    return math.ceil(value / step - 1e-6) * step


_LENGTH = re.compile(r"(.+?) ?(MM|CM|IN|INCH|INCHES|\")?")


def read_length_mm(text: str, field: str = "") -> float:
    """A length as makers type it [mm]: `7`, `7 mm`, `0.7 cm`, `1/4 in`, `1 3/8"`. Raises `Refusal` at `field`."""
    said = tidy(text, field)
    length = _LENGTH.fullmatch(said)
    value = mixed_number(length.group(1)) if length else None
    if length is None or value is None:
        refuse(field, f"“{text.strip()}” isn't a length that can be read", "try 7 mm, 7.5 or 1/4 in")
    return value * {None: 1.0, "MM": 1.0, "CM": 10.0}.get(length.group(2), MM_PER_INCH)

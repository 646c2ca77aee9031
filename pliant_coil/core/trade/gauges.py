"""Wire diameters: gauge numbers, shelf sizes and plain lengths, read as makers write them. Lengths are in mm.

Sources: ASTM B258 (American wire gauge, by its formula), BS 3737 (British standard gauge, by its table).
"""

import math
import re

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.trade.measures import mixed_number, tidy
from pliant_coil.core.words.figures import MM_PER_INCH, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import NOTHING, Say, listed, say

DIAMETER_RANGE_MM = (0.15, 3.3)
"""Wires this trade bends by hand: 34 to 8 AWG. Others are refused."""
EXAMPLES = "try 20 AWG, 21 SWG, 0.8 mm or 0.032 in"

_SWG_THOUSANDTHS = (
    324, 300, 276, 252, 232, 212, 192, 176, 160, 144, 128, 116, 104, 92, 80, 72, 64, 56, 48, 40, 36, 32, 28, 24, 22,
    20, 18, 16.4, 14.8, 13.6, 12.4, 11.6, 10.8, 10, 9.2, 8.4, 7.6, 6.8, 6, 5.2, 4.8,
)  # fmt: skip
"""BS 3737, diameters in thousandths of an inch for gauge 0 to 40 (values from memory, checked against `fluids`)."""

_SHELF_MM = {16: (1.25, 1.3), 18: (1.0,), 20: (0.8,), 22: (0.65,), 24: (0.5,), 26: (0.4,), 28: (0.3,)}
"""What is sold under a gauge number where wire is sold by the millimetre (common practice, no source)."""


def awg_mm(number: float) -> float:
    """Diameter [mm] of American wire gauge `number`, -3 (0000) to 40: 0.127 · 92^((36−n)/39), ASTM B258."""
    if not -3 <= number <= 40:
        refuse("", f"there is no American gauge {number:g}", "0000 (written -3) to 40")
    return float(0.127 * 92 ** ((36 - number) / 39))


def swg_mm(number: int) -> float:
    """Diameter [mm] of British standard gauge `number`, 0 to 40, BS 3737."""
    if not 0 <= number < len(_SWG_THOUSANDTHS):
        refuse("", f"there is no British standard gauge {number}", "0 to 40")
    return _SWG_THOUSANDTHS[number] * MM_PER_INCH / 1000


def nearest_awg(diameter_mm: float) -> int:
    """The American gauge number whose diameter is nearest, in ratio, to `diameter_mm`."""
    return round(36 - 39 * math.log(diameter_mm / 0.127, 92))


def nearest_swg(diameter_mm: float) -> int:
    """The British standard gauge number whose diameter is nearest to `diameter_mm`."""
    return min(range(len(_SWG_THOUSANDTHS)), key=lambda n: abs(swg_mm(n) - diameter_mm))


@dataclass(frozen=True, slots=True)
class WireDiameter:
    """A diameter read from text; `doubt` says what else the text may mean, empty when it can mean one thing only."""

    diameter_mm: float
    label: str
    doubt: Say = NOTHING


_GAUGE = re.compile(r"(\d{1,2}|-3) ?(AWG|B&S|SWG|BSG|ISWG|GA\.?|GAUGE|G)?")
_PREFIXED = re.compile(r"(AWG|B&S|SWG|GAUGE) ?(\d{1,2})")
_LENGTH = re.compile(r"(.+?) ?(MM|IN|INCH|\")?")


def read_diameter(text: str, field: str) -> WireDiameter:
    """Read a wire diameter: `20 AWG`, `21 SWG`, `20 ga`, `20`, `0.8 mm`, `0.8`, `0.032 in`, `1/32 in`.

    A number with no standard named is taken as American gauge, and `doubt` says so. Raises `Refusal` at `field`
    for what can't be read or lies outside `DIAMETER_RANGE_MM`.
    """
    said = tidy(text, field)
    if prefixed := _PREFIXED.fullmatch(said):
        said = f"{prefixed.group(2)} {prefixed.group(1)}"
    if gauge := _GAUGE.fullmatch(said):
        number, standard = int(gauge.group(1)), gauge.group(2) or ""
        if number >= 4 or standard:
            return _by_number(number, standard, field)
    length = _LENGTH.fullmatch(said)
    value = mixed_number(length.group(1)) if length else None
    if value is None or length is None:
        refuse(field, f"“{text.strip()}” isn't a wire diameter that can be read", EXAMPLES)
    inches = length.group(2) not in (None, "MM")
    return WireDiameter(_usable(value * MM_PER_INCH if inches else value, text, field), f"{value:g} {'in' if inches else 'mm'}")


def _by_number(number: int, standard: str, field: str) -> WireDiameter:
    british = standard in ("SWG", "BSG", "ISWG")
    if number > 40:
        refuse(field, f"there is no gauge {number}", "8 to 34, the wires that are bent by hand")
    diameter = _usable(swg_mm(number) if british else awg_mm(number), f"{number} {standard}", field)
    if standard in ("AWG", "B&S") or british:
        return WireDiameter(diameter, f"{number} {'SWG' if british else 'AWG'}")
    metric = [Thickness(mm) for mm in _SHELF_MM.get(number, ())]
    shelf = say(", and sold by the millimetre it is {shelf}", shelf=listed(metric, " or ")) if metric else NOTHING
    doubt = say(
        "Gauge {number} is read as American, {american}. British standard gauge {number} is {british}{shelf}. Say which, or give the diameter.",
        number=number,
        american=Thickness(awg_mm(number)),
        british=Thickness(swg_mm(number)),
        shelf=shelf,
    )
    return WireDiameter(diameter, f"{number} ga", doubt)


def _usable(diameter_mm: float, text: str, field: str) -> float:
    low, high = DIAMETER_RANGE_MM
    if not low <= diameter_mm <= high:
        refuse(field, f"“{text.strip()}” is {diameter_mm:.3g} mm: no wire for rings made by hand", f"{low:g} to {high:g} mm, 34 to 8 AWG")
    return diameter_mm

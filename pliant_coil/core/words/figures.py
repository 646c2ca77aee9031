"""How figures are written: lengths in the reader's units, fractions as fractions, counts with their plurals.

Never more digits than the tape can show. Sizes are written in `trade.sizes`, which knows the systems.
"""

import math

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.words.say import Figure, Reader, write

MM_PER_INCH = 25.4
_TIMES = ("not at all", "once", "twice", "three times", "four times", "five times", "six times", "seven times", "eight times")
_WITH_DECIMALS = ("%.0f", "%.1f", "%.2f", "%.3f", "%.4f")
"""Formats that stand ready: a plan writes a hundred figures."""
_NUMBERS = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine")


def fraction_text(value: float, parts: int) -> str:
    """`value` to the nearest 1/`parts`, as a mixed fraction in lowest terms: `8 1/4`, `3/8`, `7`."""
    steps = round(value * parts)
    whole, rest = divmod(abs(steps), parts)
    sign = "-" if steps < 0 else ""
    if not rest:
        return f"{sign}{whole}"
    shared = math.gcd(rest, parts)
    part = f"{rest // shared}/{parts // shared}"
    return f"{sign}{whole} {part}" if whole else f"{sign}{part}"


def trimmed(value: float, decimals: int) -> str:
    """`value` with at most so many decimals and no zeros at their end."""
    text = _WITH_DECIMALS[decimals] % value
    return text.rstrip("0").rstrip(".") if decimals else text


def times_words(count: int) -> str:
    """`once`, `twice`, `three times` … for 0 to 8; figures beyond."""
    return _TIMES[count] if 0 <= count < len(_TIMES) else f"{count} times"


def number_words(count: int) -> str:
    """`one`, `two` … up to nine; figures beyond."""
    return _NUMBERS[count] if 0 <= count < len(_NUMBERS) else str(count)


def length_text(mm: float, units: str) -> str:
    """A length as a ruler shows it: tenths of a millimetre below 20 mm, else whole ones; sixteenths of an inch, finer for small ones."""
    if units == "mm":
        return f"{mm:.1f} mm".replace(".0 mm", " mm") if -19.95 < mm < 19.95 else f"{mm:.0f} mm"
    inches = mm / MM_PER_INCH
    if abs(inches) >= 1:
        return f"{fraction_text(inches, 16)} in"
    if abs(inches) >= 0.12:
        return f"{fraction_text(inches, 32)} in"
    return f"{inches:.3f} in"


@dataclass(frozen=True, slots=True)
class Length(Figure):
    """A length [mm] that is measured with a ruler."""

    mm: float

    def written(self, reader: Reader) -> str:
        return length_text(self.mm, reader.units)


@dataclass(frozen=True, slots=True)
class Thickness(Figure):
    """A thickness or a small diameter [mm], as a caliper shows it: hundredths of a millimetre, thousandths of an inch."""

    mm: float

    def written(self, reader: Reader) -> str:
        return f"{trimmed(self.mm, 2)} mm" if reader.units == "mm" else f"{self.mm / MM_PER_INCH:.3f} in"


@dataclass(frozen=True, slots=True)
class Tolerance(Figure):
    """How far a length may be off [mm]: tenths of a millimetre, or the nearest 1/64 inch."""

    mm: float

    def written(self, reader: Reader) -> str:
        if reader.units == "mm":
            return f"{trimmed(self.mm, 1)} mm"
        return f"{fraction_text(max(self.mm / MM_PER_INCH, 1 / 64), 64)} in"


@dataclass(frozen=True, slots=True)
class CutLength(Figure):
    """A length [mm] to cut, in both units; the inches are raised to the next 1/`parts`, so that the piece is never shorter."""

    mm: float
    parts: int = 8

    def written(self, reader: Reader) -> str:
        metric = f"{trimmed(self.mm, 1)} mm"
        inches = f"{inches_up(self.mm, self.parts)} in"
        return f"{metric} ({inches})" if reader.units == "mm" else f"{inches} ({metric})"


def inches_up(mm: float, parts: int = 8) -> str:
    """`mm` raised to the next 1/`parts` inch, as a fraction: `8 1/4`."""
    return fraction_text(math.ceil(mm / MM_PER_INCH * parts - 1e-6) / parts, parts)


@dataclass(frozen=True, slots=True)
class Count(Figure):
    """How many of a thing: `one coil`, `3 coils`."""

    number: int
    one: str
    many: str

    def written(self, reader: Reader) -> str:
        return f"{number_words(1)} {self.one}" if self.number == 1 else f"{self.number} {self.many}"


@dataclass(frozen=True, slots=True)
class Times(Figure):
    """How often: `once`, `twice`, `12 times`."""

    number: float

    def written(self, reader: Reader) -> str:
        whole = round(self.number)
        if abs(self.number - whole) < 1e-9:
            return times_words(whole)
        return f"{fraction_text(self.number, 4)} times"


@dataclass(frozen=True, slots=True)
class Article(Figure):
    """A figure with `a` or `an` before it, as it is spoken: `an 8 mm`, `a 7 mm`."""

    figure: Figure

    def written(self, reader: Reader) -> str:
        text = write(self.figure, reader)
        digits = text.split(" ")[0].split("/")[0].split(".")[0]
        spoken_with_vowel = digits.startswith("8") or digits in ("11", "18")
        return f"{'an' if spoken_with_vowel else 'a'} {text}"


@dataclass(frozen=True, slots=True)
class Degrees(Figure):
    """An angle [rad]."""

    rad: float

    def written(self, reader: Reader) -> str:
        return f"{math.degrees(self.rad):.0f}°"


@dataclass(frozen=True, slots=True)
class Share(Figure):
    """A share, 0 to 1, in per cent with so many decimals."""

    share: float
    decimals: int = 0

    def written(self, reader: Reader) -> str:
        return f"{100 * self.share:.{self.decimals}f} %"


@dataclass(frozen=True, slots=True)
class Number(Figure):
    """A plain number with at most so many decimals."""

    value: float
    decimals: int = 1

    def written(self, reader: Reader) -> str:
        return trimmed(self.value, self.decimals)


@dataclass(frozen=True, slots=True)
class Newtons(Figure):
    """A force [N]."""

    newtons: float

    def written(self, reader: Reader) -> str:
        return f"{self.newtons:.1f} N"

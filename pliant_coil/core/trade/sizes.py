"""Ring sizes: every system goes through the inside circumference C = πD.

Sources: ISO 8653 (metric), BS 6820 (UK letters), JIS S 4700 (Japan); the US, Swiss and German rules are the
trade's. Lengths are in mm.
"""

import math
import re
from collections.abc import Callable
from functools import lru_cache

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.trade.measures import mixed_number, tidy
from pliant_coil.core.words.figures import MM_PER_INCH, Length, fraction_text, trimmed
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Figure, Reader, Say, say

US_STEP_MM = 0.8128
"""Inside diameter per US size, 0.032 in."""
CIRCUMFERENCE_RANGE_MM = (36.5, 77.5)
"""What the trade makes: US 0 to 16. Sizes outside it are refused."""
EXAMPLES = "try US 6 1/2, UK M 1/2, EU 54, JP 13, CH 14, DE 17.3 or 54.4 mm"


@dataclass(frozen=True, slots=True, eq=False)
class SizeSystem:
    """One way of numbering ring sizes: `number` for an inside diameter and back, and the marks in use."""

    code: str
    name: str
    to_number: Callable[[float], float]
    to_diameter_mm: Callable[[float], float]
    mark_step: float
    lowest: float
    highest: float
    rule: str
    source: str

    def has(self, number: float) -> bool:
        """Whether rings are made in this size; half a mark of grace, for the systems' scales don't end on the same finger."""
        return self.lowest - self.mark_step / 2 <= number <= self.highest + self.mark_step / 2

    def label(self, number: float) -> str:
        """A number of this system as makers write it: `6 1/2`, `M 1/2`, `Z+2`, `54`, `17.25`."""
        return _label(self, number)


@lru_cache(maxsize=512)
def _label(system: SizeSystem, number: float) -> str:
    # A system has some dozens of marks, and every size that is told names one.
    if system.code == "uk":
        return _letter(number)
    if system.code == "de":
        return trimmed(number, 2)
    return fraction_text(number, round(1 / system.mark_step))


ON_THE_MARK_MM = 0.035
"""Diameter within which nobody sees a ring stand off a mandrel's mark: 0.6 mm along a usual one (common practice, no source)."""


@dataclass(frozen=True)
class SizeMark:
    """The nearest mark in use of a system, and what is left over of the inside diameter (mm, signed)."""

    system: SizeSystem
    label: str | None
    remainder_mm: float

    @cached_property
    def text(self) -> str:
        """As a hand finds it on the mandrel, never silently rounded: `US 7 1/4`, `just past US 7 1/4`."""
        name = self.system.code.upper()
        if self.label is None:
            return f"below {name} {self.system.label(self.system.lowest)}"
        if abs(self.remainder_mm) < ON_THE_MARK_MM:
            return f"{name} {self.label}"
        return f"just {'past' if self.remainder_mm > 0 else 'short of'} {name} {self.label}"


@dataclass(frozen=True, slots=True)
class ReadSize:
    """What somebody's text was read as."""

    inside_diameter_mm: float
    system: str
    """A system's code, or `circumference` or `diameter` for a plain length."""


def _letter(k: float) -> str:
    halves = round((k + 2) * 2)
    whole, half = divmod(halves, 2)
    letter = chr(ord("A") + whole) if whole <= 25 else f"Z+{whole - 25}"
    return f"{letter} 1/2" if half else letter


SYSTEMS: dict[str, SizeSystem] = {
    system.code: system
    for system in (
        SizeSystem("us", "US and Canada", lambda d: (d - 11.63) / US_STEP_MM, lambda n: 11.63 + US_STEP_MM * n,
                   0.25, 0, 16, "D = 11.63 + 0.8128 n", "trade standard: 0.458 in + 0.032 in a size"),
        SizeSystem("uk", "UK, Ireland and Australia", lambda d: (math.pi * d - 40) / 1.25, lambda k: (40 + 1.25 * k) / math.pi,
                   0.5, -2, 29, "C = 40.00 + 1.25 k, k letters after C", "BS 6820"),
        SizeSystem("eu", "metric", lambda d: math.pi * d, lambda n: n / math.pi,
                   1, 37, 77, "the size is C in mm", "ISO 8653"),
        SizeSystem("jp", "Japan", lambda d: 3 * (d - 13) + 1, lambda n: 13 + (n - 1) / 3,
                   1, 1, 35, "D = 13 + (n − 1)/3", "JIS S 4700"),
        SizeSystem("ch", "Switzerland, Italy and Spain", lambda d: math.pi * d - 40, lambda n: (n + 40) / math.pi,
                   1, 0, 37, "n = C − 40", "common practice, no source"),
        SizeSystem("de", "Germany", lambda d: d, lambda n: n,
                   0.25, 11.75, 24.5, "D in mm", "common practice, no source"),
    )
}  # fmt: skip

_COUNTRIES = {
    "US": "us", "USA": "us", "AMERICAN": "us", "CANADA": "us", "CANADIAN": "us",
    "UK": "uk", "GB": "uk", "BRITISH": "uk", "IRELAND": "uk", "IRISH": "uk", "AU": "uk", "AUSTRALIA": "uk", "AUSTRALIAN": "uk",
    "EU": "eu", "ISO": "eu", "METRIC": "eu", "FR": "eu", "FRANCE": "eu", "FRENCH": "eu", "JP": "jp", "JIS": "jp", "JAPAN": "jp", "JAPANESE": "jp",
    "CH": "ch", "SWISS": "ch", "SWITZERLAND": "ch", "IT": "ch", "ITALY": "ch", "ITALIAN": "ch", "ES": "ch", "SPAIN": "ch", "SPANISH": "ch",
    "DE": "de", "GERMANY": "de", "GERMAN": "de",
}  # fmt: skip
_SAID_SIZE = re.compile(r"SIZE (?=\d|[A-Z](?:$|[ +\d-]))")
_LEADING_WORD = re.compile(rf"(?:SIZE )?({'|'.join(sorted(_COUNTRIES, key=len, reverse=True))})\.?(?: SIZE)?(?= ?\d| ?[A-Z](?:$|[ +\d])|$)")
_LETTER_SIZE = re.compile(r"(Z) ?\+ ?(\d)(?:[ -]?(1/2|\.5))?|([A-Z])(?:[ -]?(1/2|\.5))?")
_LENGTH = re.compile(r"(.*?) ?(MM|CM|IN|INCH|INCHES|\")")
_DIAMETER = re.compile(r"(?:⌀|Ø|DIAMETER|DIA\.?|INSIDE DIAMETER|ID|D) ?(?=[\d.])|(?: (?:DIAMETER|DIA\.?|INSIDE))$")


def read_size(text: str, field: str = "finger.size", own: tuple[str, ...] = ()) -> ReadSize:
    """Read a ring size in any system, as people type it.

    Takes `US 7 1/4`, `7.25`, `7¼`, `UK M½`, `m 1/2`, `Z+2`, `EU 54`, `JP 13`, `CH 14`, `DE 17.3`, and a plain
    length: an inside circumference (36.5 to 77.5 mm) or an inside diameter (the same range over π), which can't
    be mistaken for each other. A bare number up to 16 is a US size, one from 37 a circumference, unless the maker's
    `own` systems (codes) know it otherwise: the only one that has it is meant, of several the reader is asked.

    Raises `Refusal` at `field` for what can't be read, is ambiguous, or lies outside US 0 to 16.
    """
    said = _SAID_SIZE.sub("", tidy(text, field), count=1)
    if not said:
        refuse(field, "no size is given", EXAMPLES)
    word = _LEADING_WORD.match(said)
    if word and (code := _COUNTRIES.get(word.group(1))):
        return _in_system(SYSTEMS[code], said[word.end() :].strip(), text, field)
    letter = _LETTER_SIZE.fullmatch(said)
    if letter:
        return _in_system(SYSTEMS["uk"], said, text, field)
    bare = _DIAMETER.sub("", said)
    length = _LENGTH.fullmatch(bare)
    if length or bare != said:
        return _plain_length(length, bare, said, text, field)
    number = mixed_number(said)
    if number is None:
        refuse(field, f"“{text.strip()}” isn't a size that can be read", EXAMPLES)
    known = [code for code in own if code != "uk" and SYSTEMS[code].has(number)]
    if len(known) > 1:
        refuse(field, f"“{text.strip()}” may be a size in several of your systems", " or ".join(f"{c.upper()} {said}" for c in known))
    if known:
        return _in_system(SYSTEMS[known[0]], said, text, field)
    if number <= SYSTEMS["us"].highest:
        return _in_system(SYSTEMS["us"], said, text, field)
    if number < SYSTEMS["eu"].lowest - 0.5:
        refuse(field, f"“{text.strip()}” may be a Japanese number, a diameter or a Swiss one", f"say JP {said}, DE {said} or CH {said}")
    return _in_system(SYSTEMS["eu"], said, text, field)


def _in_system(system: SizeSystem, said: str, text: str, field: str) -> ReadSize:
    if system.code == "uk":
        letter = _LETTER_SIZE.fullmatch(said)
        number = _letters_after_c(letter) if letter else None
    else:
        number = mixed_number(re.sub(r" ?MM$", "", said))
    lowest, highest = (f"{system.code.upper()} {system.label(n)}" for n in (system.lowest, system.highest))
    if number is None:
        refuse(field, f"“{text.strip()}” isn't a size in the {system.name} system", f"{lowest} to {highest}")
    if not system.has(number):
        refuse(field, f"“{text.strip()}” is outside the sizes that rings are made in", f"{lowest} to {highest}")
    return ReadSize(in_range(system.to_diameter_mm(number), field), system.code)


def _letters_after_c(match: re.Match[str]) -> float:
    beyond, plus, half_beyond, letter, half = match.groups()
    if beyond:
        return 23 + int(plus) + (0.5 if half_beyond else 0)
    return ord(letter) - ord("C") + (0.5 if half else 0)


def _plain_length(length: re.Match[str] | None, bare: str, said: str, text: str, field: str) -> ReadSize:
    number = mixed_number(length.group(1) if length else bare)
    low, high = CIRCUMFERENCE_RANGE_MM
    accepted = f"an inside circumference of {low:g} to {high:g} mm, or a diameter of {low / math.pi:.1f} to {high / math.pi:.1f} mm"
    if number is None:
        refuse(field, f"“{text.strip()}” isn't a length that can be read", accepted)
    unit = length.group(2) if length else "MM"
    value = number * {"MM": 1.0, "CM": 10.0}.get(unit, MM_PER_INCH)
    if low <= value <= high and bare == said:
        return ReadSize(value / math.pi, "circumference")
    if low / math.pi <= value <= high / math.pi:
        return ReadSize(value, "diameter")
    refuse(field, f"“{text.strip()}” is no finger's circumference or diameter", accepted)


def in_range(inside_diameter_mm: float, field: str) -> float:
    """The diameter itself, when a ring of that size is made at all; raises `Refusal` with the range otherwise."""
    low, high = CIRCUMFERENCE_RANGE_MM
    if not low - 0.1 <= math.pi * inside_diameter_mm <= high + 0.1:
        refuse(
            field,
            say(
                "an inside circumference of {around} is outside the sizes that rings are made in",
                around=Length(math.pi * inside_diameter_mm),
            ),
            say(
                "{low} to {high}, which is {smallest} to {largest}",
                low=Length(low),
                high=Length(high),
                smallest=Size(low / math.pi),
                largest=Size(high / math.pi),
            ),
        )
    return inside_diameter_mm


@lru_cache(maxsize=1024)
def nearest_mark(inside_diameter_mm: float, system: SizeSystem) -> SizeMark:
    """The nearest mark in use, and what is left over of the inside diameter."""
    steps = round(system.to_number(inside_diameter_mm) / system.mark_step)
    number = steps * system.mark_step
    if number < system.lowest:
        return SizeMark(system, None, 0.0)
    return SizeMark(system, system.label(number), inside_diameter_mm - system.to_diameter_mm(number))


@dataclass(frozen=True, slots=True)
class FingerProposal:
    """A size between a finger and its knuckle, and why."""

    inside_diameter_mm: float
    reason: Say


_STOPS_ADVISED_MM = 5.0
"""Circumference a knuckle may exceed the finger by before one size can't serve both (common practice, no source)."""


def between_finger_and_knuckle(around_finger_mm: float, around_knuckle_mm: float) -> FingerProposal:
    """Propose a size for a finger of circumference `around_finger_mm` behind a knuckle of `around_knuckle_mm`.

    Half-way between the two, to the nearest quarter US size, never under the finger (common practice, no source:
    the knuckle gives a little, the finger must not be squeezed). Raises `Refusal` outside the sizes of the trade.
    """
    for field, value in (("finger.around_finger_mm", around_finger_mm), ("finger.around_knuckle_mm", around_knuckle_mm)):
        in_range(value / math.pi, field)
    us = SYSTEMS["us"]
    excess = around_knuckle_mm - around_finger_mm
    if excess <= 0:
        number = math.ceil(us.to_number(around_finger_mm / math.pi) * 4 - 0.2) / 4
        reason = say(
            "The knuckle is no wider than the finger: the ring is sized to the finger, {around} around.", around=Length(around_finger_mm)
        )
    else:
        number = round(us.to_number((around_finger_mm + excess / 2) / math.pi) * 4) / 4
        reason = say(
            "Half-way between the finger ({finger}) and the knuckle ({knuckle}): it passes the knuckle with a turn and still sits on the finger.",
            finger=Length(around_finger_mm),
            knuckle=Length(around_knuckle_mm),
        )
        if excess > _STOPS_ADVISED_MM:
            reason += say(
                "The knuckle is {excess} larger; an open band, or stops inside a closed one, would sit better.", excess=Length(excess)
            )
    number = max(us.lowest, min(us.highest, number))
    return FingerProposal(us.to_diameter_mm(number), reason)


@dataclass(frozen=True, slots=True)
class Size(Figure):
    """A ring's size by its inside diameter [mm], in the system that it was asked in where the reader uses it, else in the reader's first."""

    inside_diameter_mm: float
    asked_in: str = ""

    def written(self, reader: Reader) -> str:
        code = self.asked_in if self.asked_in in reader.systems else reader.systems[0]
        return nearest_mark(self.inside_diameter_mm, SYSTEMS[code]).text


@dataclass(frozen=True, slots=True)
class MandrelMark(Figure):
    """Where an inside diameter [mm] stands on the reader's own mandrel, in the words of its marks.

    In the reader's first system, or the one after it with `place` 1; nothing where they use no other.
    """

    inside_diameter_mm: float
    place: int = 0

    def written(self, reader: Reader) -> str:
        if self.place >= len(reader.systems):
            return ""
        at = reader.mandrel.marked_mm(self.inside_diameter_mm) if reader.mandrel else self.inside_diameter_mm
        return nearest_mark(at, SYSTEMS[reader.systems[self.place]]).text


@dataclass(frozen=True, slots=True)
class SizeChange(Figure):
    """A change of inside diameter [mm], in sizes of the reader's first system."""

    mm: float
    signed: bool = False

    def written(self, reader: Reader) -> str:
        system = SYSTEMS[reader.systems[0]]
        sizes = system.to_number(17.0 + self.mm) - system.to_number(17.0)
        text = trimmed(abs(sizes), 2 if abs(sizes) < 0.95 else 1)
        sign = ("−" if sizes < 0 else "+") if self.signed else ""
        one, many = ("letter", "letters") if system.code == "uk" else (f"{system.code.upper()} size", f"{system.code.upper()} sizes")
        return f"{sign}{text} {one if abs(sizes) <= 1 else many}"

"""What size comes off the mandrel, and where to start so that it is the right one.

The inner outline comes from the moves (what each puts inside the band); the size is the largest circle in it. The
start mark is the inverse: the form diameter whose finished size is the target. Nothing here knows a style.
"""

from collections.abc import Callable
from dataclasses import dataclass

from pliant_coil.core.inside import largest_circle
from pliant_coil.core.recipe import OwnStart
from pliant_coil.core.refusal import refuse
from pliant_coil.core.ring import Ring
from pliant_coil.core.sizes import US_STEP_MM, read_size
from pliant_coil.core.wires import FormedRing

_CLOSE_MM = 1e-4
_FORM_RANGE_MM = (5.0, 45.0)
"""Rods and mandrels that a ring may be formed on; a start outside it is no start."""

WIDE_BAND = ((6.0, 0.5), (4.0, 0.25))
"""A band from this width [mm] wears tighter by so many US sizes (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Contribution:
    """One named reason why what comes off differs from where it was formed: inside diameter [mm], signed."""

    cause: str
    mm: float

    @property
    def us_sizes(self) -> float:
        return self.mm / US_STEP_MM


def contributions(formed: FormedRing) -> list[Contribution]:
    """Each cause with what it adds or takes, in the order in which they happen; together, finished minus start."""
    found = [Contribution(shift.cause, shift.mm) for shift in formed.shifts]
    everything = formed.obstacles
    causes = list(dict.fromkeys(o.cause for o in everything))
    before = formed.shifted_mm
    for known, cause in enumerate(causes, 1):
        last = known == len(causes)
        counted = [o for o in everything if o.cause in causes[:known]]
        after = formed.finished_mm if last else 2 * largest_circle(formed.shifted_mm / 2, counted).radius_mm
        found.append(Contribution(cause, after - before))
        before = after
    return found


def start_mm(ring: Ring, aim_mm: float) -> float:
    """The form diameter [mm] whose finished size is `aim_mm`: secant steps, which a bracket keeps in hand.

    Raises `Refusal` when no mandrel gives that size (a wire that springs straight).
    """

    def off(form_mm: float) -> float:
        return ring.formed(form_mm).finished_mm - aim_mm

    found = _root(off, aim_mm)
    if found is None:
        refuse("wires", "this wire springs back further than any mandrel can make up for", "a softer or thicker wire, or lock wraps")
    return found


def _root(off: Callable[[float], float], guess: float) -> float | None:
    low, high = _FORM_RANGE_MM
    here, miss = guess, off(guess)
    slope = 1.0
    for _ in range(60):
        if abs(miss) < _CLOSE_MM:
            return here
        low, high = (low, min(high, here)) if miss > 0 else (max(low, here), high)
        step = here - miss / slope
        if not low < step < high:
            step = (low + high) / 2
        missed = off(step)
        if step != here and abs(missed) < 1e6:
            slope = max(0.2, (missed - miss) / (step - here))
        here, miss = step, missed
    return None


def wide_band_us(width_mm: float) -> float:
    """US sizes that a band of this width [mm] needs on top of the finger's size (common practice, no source)."""
    return next((allowance for width, allowance in WIDE_BAND if width_mm >= width), 0.0)


@dataclass(frozen=True, slots=True)
class SchoolRule:
    """A habit of makers: start so many US sizes from the wanted size, and when that is right."""

    school: str
    steps_us: float
    when: str


SCHOOLS = (
    SchoolRule("at-size", 0, "Right where nothing ends up inside the band: plain and crossed turns, ends left free."),
    SchoolRule("half-up", 0.5, "Right with fine wire in the locks, about 0.4 mm, or a single wrap low beside the head."),
    SchoolRule("one-up", 1, "Right for two or three lock wraps of 0.65 to 0.8 mm wire, or fine weaving inside the band."),
    SchoolRule("two-up", 2, "Right for thick wire in the locks, 1 mm and more, or locks as well as weaving inside."),
    SchoolRule("down", -1, "Right for bands that are hammered after forming, which opens them."),
)
"""Common practice, no source; the plan shows what each gives for the ring at hand."""


@dataclass(frozen=True, slots=True)
class School:
    """A school's start and what would come off there."""

    school: str
    start_mm: float
    finished_mm: float
    off_by_us: float
    why: str


def schools(ring: Ring, aim_mm: float, solved_mm: float) -> list[School]:
    """Every school side by side: the geometry's own start first."""
    found = [School("geometry", solved_mm, aim_mm, 0.0, "Solved for this ring: the start whose finished size is the target.")]
    for rule in SCHOOLS:
        start = aim_mm + rule.steps_us * US_STEP_MM
        off = _off(ring, start, aim_mm)
        found.append(School(rule.school, start, aim_mm + off * US_STEP_MM, off, f"{rule.when} {_verdict(off)}"))
    return found


def _off(ring: Ring, start: float, aim_mm: float) -> float:
    return (ring.formed(start).finished_mm - aim_mm) / US_STEP_MM


def _verdict(off_us: float) -> str:
    if abs(off_us) < 0.13:
        return "Here it comes out right."
    size = "size" if abs(off_us) <= 1 else "sizes"
    return f"Here it ends {abs(off_us):.1f} US {size} {'large' if off_us > 0 else 'small'}."


def chosen_start_mm(ring: Ring, aim_mm: float, solved_mm: float) -> float:
    """The start that the ring file asks for: solved, a school's, or the maker's own mark."""
    choice = ring.file.sizing.school
    if isinstance(choice, OwnStart):
        return read_size(choice.start, "sizing.school.start").inside_diameter_mm
    if choice == "geometry":
        return solved_mm
    rule = next(rule for rule in SCHOOLS if rule.school == choice)
    return aim_mm + rule.steps_us * US_STEP_MM


MANDREL_RANGE_MM = (11.63 + US_STEP_MM, 11.63 + 16 * US_STEP_MM)
"""Inside diameters on an ordinary mandrel, US 1 to 16 (common practice, no source)."""
MANDREL_TAPER = US_STEP_MM / 17
"""Diameter gained per length of an ordinary mandrel: a US size in 17 mm (common practice, no source)."""

"""What is told of mandrels: by how much rings come off them other than planned, and how their own marks stand."""

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from pliant_coil.core.plan.told import Mm, Text, Told
from pliant_coil.core.trade.own_mandrel import MandrelKind, fitted
from pliant_coil.core.trade.sizes import SizeChange
from pliant_coil.core.words.figures import Count, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(kw_only=True, slots=True)
class MandrelTold(Told):
    """By how much rings of a family of bands come off a mandrel other than planned."""

    mandrel: str
    family: str
    text: Text
    off_mm: Mm
    rings: int


@dataclass(kw_only=True, slots=True)
class MarkTold(Told):
    """A mark of one's own mandrel: what it names, and what was measured there."""

    mark: str
    named_mm: float
    measured_mm: float
    measured: Text


@dataclass(kw_only=True, slots=True)
class LineTold(Told):
    """By how much a mandrel's marks are off: at an inside diameter of 17 mm, and more for each millimetre."""

    off_mm: float
    slope: float


@dataclass(kw_only=True, slots=True)
class OwnMandrelTold(Told):
    """A maker's own mandrel, and how its marks stand."""

    id: UUID
    name: str
    kind: MandrelKind
    text: Text
    marks: list[MarkTold]
    line: LineTold
    drawn: list[tuple[float, float]]
    """Two places on the line: the inside diameter that is named [mm], and by how much it is off."""


def mandrel_told(mandrel: str, family: str, off_mm: float, sd_mm: float, rings: int) -> MandrelTold:
    """A mandrel in words: what comes off it, how surely, and where to start instead once that is known."""
    known = abs(off_mm) > 2 * sd_mm
    side = "large" if off_mm > 0 else "small"
    text = say(
        f"On “{{mandrel}}” {{family}} rings come off {{off}} {side}{'' if known else ' so far, which may still be chance'}; {{rings}}."
        + (f" Start {{off}} {'lower' if off_mm > 0 else 'higher'} there." if known else ""),
        mandrel=mandrel,
        family=family.replace("-", " "),
        off=SizeChange(abs(off_mm)),
        rings=Count(rings, "ring", "rings"),
    )
    return MandrelTold(mandrel=mandrel, family=family, text=text, off_mm=off_mm, rings=rings)


_SHOWN_MM = (12.5, 23.5)
_SAID_MM = (17.0, 20.0)
_KINDS: dict[MandrelKind, str] = {
    "tapered": "Tapered.",
    "grooved": "Tapered, with a groove that hides ends under the head: a finger feels what it doesn’t.",
    "stepped": "Stepped.",
}


def own_mandrel_told(mandrel_id: UUID, name: str, kind: MandrelKind, marks: Sequence[tuple[str, float, float]]) -> OwnMandrelTold:
    """A mandrel with its marks (as typed, what they name and what was measured [mm]) and the line that they lie on."""
    line = fitted([(named, measured) for _, named, measured in marks])
    a, b = _SAID_MM
    text = Say(_KINDS[kind]) + say(
        "Where its marks name {a} it measures {at_a}, where they name {b} {at_b}.",
        a=Thickness(a),
        at_a=Thickness(line.true_mm(a)),
        b=Thickness(b),
        at_b=Thickness(line.true_mm(b)),
    )
    return OwnMandrelTold(
        id=mandrel_id,
        name=name,
        kind=kind,
        text=text,
        marks=[MarkTold(mark=m, named_mm=n, measured_mm=mm, measured=Thickness(mm)) for m, n, mm in marks],
        line=LineTold(off_mm=line.off_mm, slope=line.slope),
        drawn=[(mm, line.true_mm(mm) - mm) for mm in _SHOWN_MM],
    )

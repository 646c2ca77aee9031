"""The plan: the one model of what is told. The terminal prints it, `POST /api/plan` returns it, the card is made from it.

Lengths in mm, mass in g.
"""

from dataclasses import dataclass
from typing import Literal

from pliant_coil.core.plan.told import Counted, Grams, Minutes, Mm, Text, Told, Us
from pliant_coil.core.styles.repeats import ChartPass, ChartWire


@dataclass(kw_only=True, slots=True)
class Size(Told):
    """An inside diameter in every system: the nearest mark in use, null below a system's first mark."""

    inside_diameter_mm: Mm
    inside_circumference_mm: Mm
    us: str | None
    uk: str | None
    eu: str | None
    jp: str | None
    ch: str | None
    de: str | None
    exact: dict[str, str]
    """Per system, as a hand finds it on the mandrel: `just past US 7 1/4`."""
    said: Text
    """In the reader's first system."""
    mark: Text
    """Where it stands on the reader's own mandrel, in the words of its marks: what is looked for there."""
    mark_too: Text
    """The same in the reader's second system; empty without one."""
    along: Text
    """Where it lies along an ordinary tapered mandrel: `4.4 mm before US 7 3/4`."""
    across: Text
    """Inside diameter in the reader's units."""
    around: Text
    """Inside circumference in the reader's units."""


@dataclass(kw_only=True, slots=True)
class Contribution(Told):
    """What one cause adds to the size or takes from it."""

    code: str
    cause: str
    us_sizes: Us
    mm: Mm
    said: Text


@dataclass(kw_only=True, slots=True)
class School(Told):
    """A habit of where to start, and what it gives for this ring."""

    school: str
    start_us: str
    start_mm: Mm
    finished_us: str
    finished_mm: Mm
    off_by_us: Us
    start: Text
    finished: Text
    why: Text


@dataclass(kw_only=True, slots=True)
class Mark(Told):
    """A mark on the straight wire, from its left end."""

    at_mm: Mm
    label: str
    kind: Literal["mark", "jaw"]
    at: Text


@dataclass(kw_only=True, slots=True)
class Move(Told):
    """A stretch of the straight wire."""

    id: str
    kind: str
    label: str
    fate: str
    from_mm: Mm
    to_mm: Mm
    count: Counted | None
    length_mm: Mm
    in_ring: bool
    """False for what is held, trimmed or spare."""
    length: Text
    arithmetic: Text


@dataclass(kw_only=True, slots=True)
class Risk(Told):
    """What another risk of running out would have cut."""

    risk: float
    cut_mm: Mm
    cut_in: str


@dataclass(kw_only=True, slots=True)
class Wire(Told):
    """A piece of wire: what to cut and where everything on it lies."""

    id: str
    role: str
    piece: int
    pieces: int
    from_reel: bool
    label: Text
    metal: str
    profile: str
    width_mm: Mm
    height_mm: Mm
    net_mm: Mm
    sigma_mm: Mm
    cut_mm: Mm
    cut_in: str
    cut: Text
    mass_g: Grams
    cost: float | None
    arithmetic: Text
    hand: Text | None
    """What the maker's own hand changes, from how many rings."""
    more: Text | None
    """What its spare would still give of what is repeated at its ends, every finishing tail kept."""
    risks: list[Risk]
    marks: list[Mark]
    moves: list[Move]


@dataclass(kw_only=True, slots=True)
class Bead(Told):
    """A bead, and whether its hole takes what passes it."""

    what: str
    diameter_mm: Mm
    hole_mm: Mm
    hole_needed_mm: Mm
    fits: bool


@dataclass(kw_only=True, slots=True)
class Step(Told):
    """A bench step: a task with the moves that it makes."""

    id: str
    stage: str
    phase: str
    text: Text
    count: int | None
    check: Text | None
    expected_mm: Mm | None
    """What the mandrel should read, in inside diameter, where it is read."""
    cautions: list[Text]
    makes: list[str]


@dataclass(kw_only=True, slots=True)
class Warning(Told):
    """What a friend at the bench would say."""

    code: str
    text: Text
    field: str


@dataclass(kw_only=True, slots=True)
class Band(Told):
    """The finished band."""

    strands: int
    width_mm: Mm
    width: Text
    thickness_mm: Mm
    height_mm: Mm
    height: Text
    """How high the head stands above the finger."""
    mass_g: Grams
    """Of all the wire that stays in the ring."""
    edges_differ_mm: Mm
    """By how much an ordinary tapered mandrel reads apart under its two edges."""
    sized_by: str


@dataclass(kw_only=True, slots=True)
class Fit(Told):
    """How whole repeats fill the length that the size asks for."""

    name: str
    kind: Literal["weave", "bind", "braid"]
    program: str
    repeats: int
    repeat_mm: Mm
    made_mm: Mm
    target_mm: Mm
    left_each_end_mm: Mm
    repeat_changes_us: Us
    wire_per_repeat_mm: Mm
    mirrored: bool
    guide_mm: Mm | None
    guide_at: Text | None
    """The mark at which the guide is bent."""
    words: Text
    wire_mm: Mm
    base: tuple[ChartWire, ...]
    passes: tuple[ChartPass, ...]
    strands: list[list[list[float]]]
    """For a braid: each strand over one repeat, along it, along the finger, away from it."""


@dataclass(kw_only=True, slots=True)
class Way(Told):
    """A way to resize a finished ring."""

    code: str
    reaches: bool
    low: Text
    high: Text
    """What it can give at most, in the reader's first system."""
    text: Text


@dataclass(kw_only=True, slots=True)
class Resizing(Told):
    """A finished ring, the size that is wanted, and what each way can give; those that reach it first."""

    finished: Size
    wanted: Size
    ways: list[Way]


@dataclass(kw_only=True, slots=True)
class Choice(Told):
    """Another number of repeats, and the size that it gives."""

    repeats: int
    finished_mm: Mm
    finished: Text
    off_by_us: Us


@dataclass(kw_only=True, slots=True)
class Phrase(Told):
    """A phrase of the ring's sentence, and the part of the ring file that it stands for."""

    part: str
    text: Text


@dataclass(kw_only=True, slots=True)
class Strand(Told):
    """A move's neutral line in ring coordinates."""

    role: str
    piece: int
    move: int
    """Its place among the piece's `moves`."""
    id: str
    kind: str
    width_mm: Mm
    height_mm: Mm
    """Of the wire there, as it was worked: along the finger and away from it."""
    points: list[list[float]]
    """x, y and z of each point."""
    hidden: list[int]
    """Which of its stretches from point to point run through a bead, where nobody sees them."""


@dataclass(kw_only=True, slots=True)
class Stone(Told):
    """A stone's middle and extents."""

    what: str
    shape: str
    x_mm: Mm
    y_mm: Mm
    z_mm: Mm
    diameter_mm: Mm
    length_mm: Mm
    width_mm: Mm
    height_mm: Mm
    colour: str | None


@dataclass(kw_only=True, slots=True)
class Soldered(Told):
    """A place that solder holds: a seam, a joint at the back, a contact of waved tops, a tube. A line along it, or a single point."""

    what: Literal["seam", "back", "contact", "tube"]
    points: list[list[float]]
    """x, y and z of each point."""


@dataclass(kw_only=True, slots=True)
class Drawing(Told):
    """The finished ring in space, and the circle that the mandrel reads."""

    inside_x_mm: Mm
    inside_y_mm: Mm
    inside_radius_mm: Mm
    strands: list[Strand]
    beads: list[Stone]
    soldered: list[Soldered]


@dataclass(kw_only=True, slots=True)
class Plan(Told):
    """Everything the maker needs to know before cutting."""

    title: str
    notes: str
    sentence: list[Phrase]
    target: Size
    target_reason: Text
    aim: Size
    """The target with the room that the maker adds for a wide band: what the start is solved to give."""
    wide_band_us: Us
    start: Size
    """The mark at which the band is formed."""
    guide: Size | None
    """The mark at which a length guide is bent."""
    finished: Size
    contributions: list[Contribution]
    schools: list[School]
    choices: list[Choice]
    band: Band
    fit: Fit | None
    """For bands that are made of repeats."""
    wires: list[Wire]
    beads: list[Bead]
    steps: list[Step]
    minutes: Minutes
    """At the bench, by a practised hand (common practice, no source)."""
    time: Text
    torch: bool
    """Whether anything is soldered or melted."""
    warnings: list[Warning]
    drawing: Drawing | None = None

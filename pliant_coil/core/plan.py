"""The plan as it is told: the JSON that the terminal prints and `POST /api/plan` returns. Lengths in mm, mass in g."""

from typing import Literal

from pydantic import BaseModel


class SizeTold(BaseModel):
    """An inside diameter in every system: the nearest mark in use, null below a system's first mark."""

    inside_diameter_mm: float
    inside_circumference_mm: float
    us: str | None
    uk: str | None
    eu: str | None
    jp: str | None
    ch: str | None
    de: str | None
    exact: dict[str, str]
    """Per system, the mark and what is left over: `US 7 1/4 + 0.06 mm`."""


class ContributionTold(BaseModel):
    """What one cause adds to the size or takes from it."""

    cause: str
    us_sizes: float
    mm: float


class SchoolTold(BaseModel):
    """A habit of where to start, and what it gives for this ring."""

    school: str
    start_us: str
    start_mm: float
    finished_us: str
    finished_mm: float
    off_by_us: float
    why: str


class MarkTold(BaseModel):
    """A mark on the straight wire, from its first end."""

    at_mm: float
    label: str
    kind: Literal["mark", "jaw"]


class MoveTold(BaseModel):
    """A stretch of the straight wire."""

    kind: str
    label: str
    from_mm: float
    to_mm: float
    count: int | None
    length_mm: float
    in_ring: bool
    """False for what is held, trimmed or spare."""
    arithmetic: str


class RiskTold(BaseModel):
    """What another risk of running out would have cut."""

    risk: float
    cut_mm: float
    cut_in: str


class WireTold(BaseModel):
    """A piece of wire: what to cut and where everything on it lies."""

    role: str
    piece: int
    pieces: int
    from_reel: bool
    label: str
    metal: str
    profile: str
    width_mm: float
    height_mm: float
    net_mm: float
    sigma_mm: float
    cut_mm: float
    cut_in: str
    mass_g: float
    cost: float | None
    arithmetic: str
    risks: list[RiskTold]
    marks: list[MarkTold]
    moves: list[MoveTold]


class BeadTold(BaseModel):
    """A bead, and whether its hole takes what passes it."""

    what: str
    diameter_mm: float
    hole_mm: float
    hole_needed_mm: float
    fits: bool


class StepTold(BaseModel):
    """A bench step."""

    stage: str
    text: str
    count: int | None
    check: str | None
    cautions: list[str]


class WarningTold(BaseModel):
    """What a friend at the bench would say."""

    code: str
    text: str
    field: str


class BandTold(BaseModel):
    """The finished band."""

    strands: int
    width_mm: float
    thickness_mm: float
    mass_g: float
    """Of all the wire that stays in the ring."""
    edges_differ_mm: float
    """By how much an ordinary tapered mandrel reads apart under its two edges."""


class ChartWire(BaseModel):
    """A base wire on the weave chart."""

    name: str
    z_mm: float
    width_mm: float


class ChartPass(BaseModel):
    """One wrap of a repeat: where along the repeat, round which base wires (numbered from 0)."""

    at_mm: float
    first: int
    last: int


class Fit(BaseModel):
    """How whole repeats fill the length that the size asks for."""

    kind: Literal["weave", "bind", "braid"]
    program: str
    repeats: int
    repeat_mm: float
    made_mm: float
    target_mm: float
    left_each_end_mm: float
    repeat_changes_us: float
    wire_per_repeat_mm: float
    mirrored: bool
    guide_mm: float
    guide_words: str
    wire_mm: float
    base: list[ChartWire]
    passes: list[ChartPass]
    strands: list[list[list[float]]]
    """For a braid: each strand over one repeat, along it, along the finger, away from it."""


class PhraseTold(BaseModel):
    """A phrase of the ring's sentence, and the part of the ring file that it stands for."""

    part: str
    text: str


class StrandDrawn(BaseModel):
    """A move's neutral line in ring coordinates."""

    role: str
    piece: int
    move: int
    """Its place among the piece's `moves`."""
    kind: str
    points: list[list[float]]
    """x, y and z of each point."""


class BeadDrawn(BaseModel):
    """A bead's middle and size."""

    x_mm: float
    y_mm: float
    z_mm: float
    diameter_mm: float


class Drawing(BaseModel):
    """The ring in space, and the circle that the mandrel reads."""

    inside_x_mm: float
    inside_y_mm: float
    inside_radius_mm: float
    strands: list[StrandDrawn]
    beads: list[BeadDrawn]


class Plan(BaseModel):
    """Everything the maker needs to know before cutting."""

    title: str
    sentence: list[PhraseTold]
    target: SizeTold
    target_reason: str
    aim: SizeTold
    """The target with the room that a wide band asks for: what the start is solved to give."""
    wide_band_us: float
    start: SizeTold
    finished: SizeTold
    contributions: list[ContributionTold]
    schools: list[SchoolTold]
    band: BandTold
    fit: Fit | None
    """For bands that are made of repeats."""
    wires: list[WireTold]
    beads: list[BeadTold]
    steps: list[StepTold]
    warnings: list[WarningTold]
    drawing: Drawing | None = None

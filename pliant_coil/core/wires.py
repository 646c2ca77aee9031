"""The wires of a ring: what somebody asked for, what it is, and the list of moves that each one makes."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Annotated, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field

from pliant_coil.core.gauges import read_diameter
from pliant_coil.core.inside import InsideCircle, largest_circle
from pliant_coil.core.metals import METALS, Metal, Temper
from pliant_coil.core.moves import Move, Obstacle
from pliant_coil.core.plan import Fit
from pliant_coil.core.profiles import Profile, ProfileName
from pliant_coil.core.refusal import refuse

Role = Literal["band", "base", "weave", "bind", "tie", "coil", "sew"]
MetalCode = Literal["copper", "plated-copper", "brass", "bronze", "sterling", "fine-silver", "gold-filled", "stainless", "aluminium"]


class Part(BaseModel):
    """A part of the ring file: unknown fields and numbers that aren't numbers are refused, and it never changes."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True)


def _as_text(value: object) -> object:
    return str(value) if isinstance(value, int | float) and not isinstance(value, bool) else value


class WireSpec(Part):
    """A wire as the maker names it."""

    diameter: Annotated[str, BeforeValidator(_as_text)] = Field(
        "0.8 mm",
        title="Wire",
        max_length=80,
        description="Gauge or diameter: 20 AWG, 21 SWG, 0.8 mm, 1/32 in. For flat strip, its thickness.",
    )
    profile: ProfileName = Field("round", title="Section")
    strip_width_mm: float = Field(2.0, title="Strip width", gt=0, le=12, description="Width of a flat strip; other sections don't use it.")
    metal: MetalCode = Field("copper", title="Metal")
    temper: Temper = Field("soft", title="Temper")
    from_reel: bool = Field(False, title="Work from the reel", description="Nothing is cut first; the plan says where to stop.")


@dataclass(frozen=True)
class RoleWire:
    """A wire that has been read: what it is, in the role it plays."""

    role: str
    profile: Profile
    metal: Metal
    temper: Temper
    label: str
    """The diameter as the maker said it: `20 AWG`."""
    doubt: str
    from_reel: bool

    @cached_property
    def yield_mpa(self) -> float:
        return self.metal.yield_mpa[self.temper]

    @cached_property
    def words(self) -> str:
        """`soft copper, 20 AWG`; the section is named unless it is round."""
        section = "" if self.profile.name == "round" else f" {self.profile.name}"
        return f"{self.temper} {self.metal.name}, {self.label}{section}"

    @cached_property
    def grams_per_mm(self) -> float:
        return self.profile.area_mm2 * self.metal.density_g_cm3 / 1000


@lru_cache(maxsize=512)
def read_wire(spec: WireSpec, role: str) -> RoleWire:
    """The wire that `spec` names. Raises `Refusal` at `wires.<role>.<field>`."""
    where = f"wires.{role}"
    read = read_diameter(spec.diameter, f"{where}.diameter")
    if spec.profile == "flat" and spec.strip_width_mm < read.diameter_mm:
        refuse(
            f"{where}.strip_width_mm",
            f"a strip {spec.strip_width_mm:g} mm wide and {read.diameter_mm:.2f} mm thick would stand on its edge",
            "a width larger than the thickness, which is the diameter's field",
        )
    width = spec.strip_width_mm if spec.profile == "flat" else 0.0
    profile = Profile(spec.profile, read.diameter_mm, width)
    return RoleWire(role, profile, METALS[spec.metal], spec.temper, read.label, read.doubt, spec.from_reel)


@dataclass(frozen=True)
class WireRun:
    """One piece of wire and its moves, in the order they lie along it."""

    wire: RoleWire
    moves: tuple[Move, ...]
    held_ends: tuple[bool, bool] = (True, True)
    """Whether fingers or pliers must hold on to the first end and the last."""

    @property
    def net_mm(self) -> float:
        """What stays in the ring: the sum of the moves that shape it."""
        return sum(move.length_mm for move in self.moves if move.shapes_ring)

    @property
    def scrap_mm(self) -> float:
        """What the work itself leaves over, beside what is held and trimmed."""
        return sum(move.length_mm for move in self.moves if not move.shapes_ring)

    @property
    def sigma_mm(self) -> float:
        """Standard deviation of `net_mm`: the moves' own, in quadrature."""
        return math.sqrt(sum(move.sigma_mm**2 for move in self.moves))


@dataclass(frozen=True, slots=True)
class Shift:
    """Something that changes the band's inside diameter [mm] as a whole, after it was formed."""

    cause: str
    mm: float


@dataclass(frozen=True, slots=True)
class Bead:
    """A bead on the ring: where its middle stands [mm], and what its hole must take."""

    what: str
    diameter_mm: float
    hole_mm: float
    hole_field: str
    centre: tuple[float, float, float]
    wire: RoleWire
    passes: int


@dataclass(frozen=True)
class FormedRing:
    """A ring whose band was formed on one diameter of the mandrel: all its wires, and what happens to it after."""

    form_diameter_mm: float
    runs: tuple[WireRun, ...]
    shifts: tuple[Shift, ...]
    beads: tuple[Bead, ...]
    strands: int
    """Wires side by side in the band."""
    width_mm: float
    thickness_mm: float
    make_fit: Callable[[], Fit] | None = None
    """For bands that are made of repeats: what is told of them, asked for once the start is found."""

    @cached_property
    def fit(self) -> Fit | None:
        """How whole repeats fill the length, for bands that are made of repeats."""
        return self.make_fit() if self.make_fit else None

    @cached_property
    def obstacles(self) -> list[Obstacle]:
        """All that lies between finger and band."""
        return [o for run in self.runs for move in run.moves if (o := move.obstacle) is not None]

    @property
    def shifted_mm(self) -> float:
        """The band's own inside diameter after everything that changes it as a whole."""
        return self.form_diameter_mm + sum(shift.mm for shift in self.shifts)

    @cached_property
    def inside(self) -> InsideCircle:
        """The circle that the mandrel reads when the ring comes off it."""
        return largest_circle(self.shifted_mm / 2, self.obstacles)

    @property
    def finished_mm(self) -> float:
        """Inside diameter that comes off the mandrel."""
        return 2 * self.inside.radius_mm


Wires = Mapping[str, RoleWire]

"""A wire as it stands on a reel: metal, temper, section. What it is used for is said where it is used."""

from dataclasses import field

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.trade.metals import Metal, Temper
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.figures import MM_PER_INCH
from pliant_coil.core.words.say import NOTHING, Figure, Reader, Say


@dataclass(frozen=True, slots=True)
class GaugeName(Figure):
    """A wire's diameter as its maker names it: a gauge number stays one, a length is written in the reader's units."""

    label: str
    mm: float

    def written(self, reader: Reader) -> str:
        if not self.label.endswith((" mm", " in")):
            return self.label
        return f"{self.mm:.3g} mm" if reader.units == "mm" else f"{self.mm / MM_PER_INCH:.3f} in"


@dataclass(frozen=True)
class Wire:
    """Equal wires are one stock item, however their diameter was typed."""

    metal: Metal
    temper: Temper
    profile: Profile
    label: str = field(compare=False)
    """The diameter as the maker said it: `20 AWG`."""
    doubt: Say = field(default=NOTHING, compare=False)
    """What else the diameter may mean."""

    @property
    def width_mm(self) -> float:
        """Extent along the finger."""
        return self.profile.width_mm

    @property
    def height_mm(self) -> float:
        """Extent away from the finger."""
        return self.profile.height_mm

    @property
    def size_mm(self) -> float:
        """What it is bought by: a round wire's diameter."""
        return self.profile.size_mm

    @property
    def centroid_mm(self) -> float:
        """Height of the neutral line above the side that faces the finger."""
        return self.profile.centroid_mm

    @cached_property
    def yield_mpa(self) -> float:
        """Yield strength as bought [MPa]."""
        return self.metal.yield_mpa[self.temper]

    @cached_property
    def gauge(self) -> GaugeName:
        return GaugeName(self.label, self.profile.size_mm)

    @cached_property
    def words(self) -> Say:
        """`soft copper, 20 AWG`; the section is named unless it is round."""
        section = "" if self.profile.name == "round" else f" {self.profile.name}"
        return Say(f"{self.temper} {self.metal.name}, {{gauge}}{section}", {"gauge": self.gauge})

    @cached_property
    def grams_per_mm(self) -> float:
        return self.profile.area_mm2 * self.metal.density_g_cm3 / 1000

"""What the wires are made of. Density in g/cm³, Young's modulus and yield strength in MPa.

Every figure names its source; those marked *value from memory* are handbook figures recalled, not looked up, and
only steer advice (stiffness, springback) that the maker's own records will overrule.
"""

from collections.abc import Mapping
from dataclasses import field
from typing import Literal

from pliant_coil.core.frozen import dataclass

Temper = Literal["soft", "half-hard", "hard"]
MetalCode = Literal[
    "copper", "plated-copper", "lacquered-copper", "brass", "bronze", "sterling", "fine-silver", "gold-filled", "stainless", "aluminium"
]
_MEMORY = "value from memory"
UNIFORM: Mapping[Temper, float] = {"soft": 0.15, "half-hard": 0.045, "hard": 0.008}
_STEEL: Mapping[Temper, float] = {"soft": 0.008, "half-hard": 0.008, "hard": 0.004}
"""Steel wire as rings are made of it has been drawn hard: it springs rather than gives."""


@dataclass(frozen=True, slots=True)
class Metal:
    """A metal as it is sold in wire."""

    code: str
    name: str
    density_g_cm3: float
    density_source: str
    youngs_modulus_mpa: float
    modulus_source: str
    yield_mpa: dict[Temper, float]
    yield_source: str
    care: str = ""
    """What the maker should know before filing, hammering or wearing it; empty when there is nothing to say."""
    coated: bool = False
    """Whether it has a coat that hammer, file and hard jaws spoil."""
    solderable: bool = True
    """Whether it can be hard-soldered at the bench."""
    breaks_at: float = 0.6
    """Surface strain at which soft wire may crack (value from memory)."""
    darkens: bool = True
    """Whether a sulphur patina takes on it (common practice, no source)."""
    uniform: Mapping[Temper, float] = field(default_factory=lambda: UNIFORM)
    """Strain that it takes evenly before it necks, by temper (values from memory)."""
    hardening: tuple[float, float] = (315.0, 0.54)
    """K [MPa] and n of the flow curve K·εⁿ of the annealed metal (Hollomon; values from memory)."""


_LACQUERED = "The colour is a lacquer: bare jaws, hammer and file take it off, heat burns it. Tape the jaws, don't hammer it; clear lacquer on cut ends."
_PLATED = "The coat goes where it is filed or hammered. Some plating holds nickel, which irritates skin: say what the wire is."

METALS: dict[str, Metal] = {
    metal.code: metal
    for metal in (
        Metal("copper", "copper", 8.94, "CRC Handbook, element 8.96; drawn wire 8.94, " + _MEMORY, 117_000, _MEMORY,
              {"soft": 70, "half-hard": 250, "hard": 310}, _MEMORY),
        Metal("plated-copper", "plated copper", 8.94, "as copper: the coat is a few thousandths of a millimetre", 117_000, "as copper",
              {"soft": 70, "half-hard": 250, "hard": 310}, "as copper", _PLATED, coated=True, solderable=False, darkens=False),
        Metal("lacquered-copper", "lacquered copper", 8.94, "as copper: the lacquer is a few hundredths of a millimetre", 117_000, "as copper",
              {"soft": 70, "half-hard": 250, "hard": 310}, "as copper", _LACQUERED, coated=True, solderable=False, darkens=False),
        Metal("brass", "brass", 8.53, "70/30 cartridge brass, " + _MEMORY, 110_000, _MEMORY,
              {"soft": 110, "half-hard": 360, "hard": 435}, _MEMORY, breaks_at=0.35, hardening=(580.0, 0.34)),
        Metal("bronze", "bronze", 8.86, "phosphor bronze with 5 % tin, " + _MEMORY, 110_000, _MEMORY,
              {"soft": 150, "half-hard": 380, "hard": 520}, _MEMORY, breaks_at=0.35, hardening=(720.0, 0.46)),
        Metal("sterling", "sterling silver", 10.36, "92.5 % silver, 7.5 % copper; " + _MEMORY, 75_000, _MEMORY,
              {"soft": 125, "half-hard": 250, "hard": 310}, _MEMORY),
        Metal("fine-silver", "fine silver", 10.49, "CRC Handbook, element", 76_000, _MEMORY,
              {"soft": 55, "half-hard": 150, "hard": 240}, _MEMORY),
        Metal("gold-filled", "14/20 gold-filled", 8.68, "1/20 by mass of 14-carat gold (13.07) on brass (8.53)", 110_000, "as brass",
              {"soft": 110, "half-hard": 360, "hard": 435}, "as brass", "The gold is a layer: file and hammer as little as you can.",
              coated=True, solderable=False, breaks_at=0.35, hardening=(580.0, 0.34), darkens=False),
        Metal("stainless", "stainless steel", 7.95, "type 304/316, " + _MEMORY, 193_000, _MEMORY,
              {"soft": 290, "half-hard": 760, "hard": 965}, _MEMORY, "It springs: cut ends fly harder. It holds nickel, firmly bound.",
              solderable=False, breaks_at=0.25, uniform=_STEEL, hardening=(1275.0, 0.45), darkens=False),
        Metal("aluminium", "aluminium", 2.71, "commercially pure, " + _MEMORY, 69_000, _MEMORY,
              {"soft": 34, "half-hard": 105, "hard": 150}, _MEMORY, solderable=False, hardening=(180.0, 0.20), darkens=False),
    )
}  # fmt: skip

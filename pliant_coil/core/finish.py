"""How the ends are finished: the locks beside the head, or where the ends meet."""

from pydantic import Field

from pliant_coil.core.hulls import Bundle
from pliant_coil.core.measures import times_words
from pliant_coil.core.moves import Wrap
from pliant_coil.core.wires import Part, RoleWire

LOCK_CAUSE = "lock wraps inside the band"


class Finish(Part):
    """What is done with the tails."""

    wraps_each_side: int = Field(2, title="Wraps each side", ge=0, le=8, description="Lock wraps on each side; 0 leaves the band free.")

    def phrase(self) -> str:
        """Its words in the ring's sentence."""
        return f"locked {times_words(self.wraps_each_side)} each side" if self.wraps_each_side else "ends left free"

    def locks(self, wire: RoleWire, bundle: Bundle, band_radius_mm: float, foot_rad: float) -> tuple[list[Wrap], list[Wrap]]:
        """The left and the right lock round `bundle`, each beginning at its foot and going away from the top."""
        if not self.wraps_each_side:
            return [], []
        n = self.wraps_each_side
        length_rad = n * wire.profile.width_mm / band_radius_mm
        left, right = (
            Wrap(f"lock ×{n}", n, bundle, wire.profile, band_radius_mm, from_rad, LOCK_CAUSE)
            for from_rad in (-foot_rad - length_rad, foot_rad)
        )
        return [left], [right]

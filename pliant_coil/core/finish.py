"""How the ends are finished: the locks beside the head or where the ends meet, and what becomes of the last of the wire."""

from typing import Literal

from pydantic import Field

from pliant_coil.core.hulls import Bundle
from pliant_coil.core.measures import times_words
from pliant_coil.core.moves import Eye, Move, Scroll, Wrap
from pliant_coil.core.wires import Part, RoleWire

LOCK_CAUSE = "lock wraps inside the band"
SCROLL_TURNS = 1.5


class Finish(Part):
    """What is done with the tails."""

    wraps_each_side: int = Field(2, title="Wraps each side", ge=0, le=8, description="Lock wraps on each side; 0 leaves the band free.")
    ends: Literal["hidden", "loop", "scroll"] = Field("hidden", title="Ends", description="Tucked in, or turned into a loop or a scroll.")
    loop_mm: float = Field(2.0, title="Loop, inside", ge=0.8, le=6, json_schema_extra={"unit": "mm"})
    short_tail: Literal["last", "early"] = Field(
        "last", title="The short tail", description="Wound one way: it binds the band after the first turn, or at the end like the other."
    )

    def phrase(self) -> str:
        """Its words in the ring's sentence."""
        locked = f"locked {times_words(self.wraps_each_side)} each side" if self.wraps_each_side else "ends left free"
        return locked if self.ends == "hidden" else f"{locked}, ends in {self.ends}s"

    @property
    def words_for_ends(self) -> str:
        """What is done with the ends at the bench, after the locks."""
        if self.ends == "hidden":
            return "Trim the tails flush and tuck the ends in, pointing away from the finger."
        shape = f"a loop {self.loop_mm:g} mm inside" if self.ends == "loop" else "a small scroll"
        return f"Cut each tail, turn its end into {shape} and lay it flat on the band, its cut end inwards."

    def locks(self, wire: RoleWire, bundle: Bundle, band_radius_mm: float, foot_rad: float) -> tuple[list[Move], list[Move]]:
        """The left and the right lock round `bundle`, each beginning at its foot and going away from the top, with its end."""
        n = self.wraps_each_side
        length_rad = n * wire.profile.width_mm / band_radius_mm
        left, right = list[Move](), list[Move]()
        for moves, from_rad in ((left, -foot_rad - length_rad), (right, foot_rad)) if n else ():
            moves.append(Wrap(f"lock ×{n}", n, bundle, wire.profile, band_radius_mm, from_rad, LOCK_CAUSE))
        if self.ends != "hidden":
            left.insert(0, self._end(wire, band_radius_mm, -foot_rad - length_rad, leading=True))
            right.append(self._end(wire, band_radius_mm, foot_rad + length_rad, leading=False))
        return left, right

    def _end(self, wire: RoleWire, band_radius_mm: float, lock_rad: float, *, leading: bool) -> Move:
        """A loop or a scroll on the outside of the band, just past the lock."""
        thick = wire.profile.height_mm
        radius = band_radius_mm + 1.5 * thick
        away = -1 if leading else 1
        if self.ends == "loop":
            size = (self.loop_mm + wire.profile.width_mm) / 2
            return Eye("loop", self.loop_mm, wire.profile.width_mm, radius, lock_rad + away * size / radius, -size, 1.0)
        pitch = 1.15 * wire.profile.width_mm
        inner = 0.6 * wire.profile.width_mm
        return Scroll("scroll", inner, pitch, SCROLL_TURNS, radius, lock_rad + away * (inner + pitch * SCROLL_TURNS) / radius, 0.0, leading)

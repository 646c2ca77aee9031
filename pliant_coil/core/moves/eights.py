"""In eights round two bundles side by side: down between them, under the one, over it and down again, under the other."""

from collections.abc import Sequence
from typing import ClassVar

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.base import Counted
from pliant_coil.core.moves.wrap import Wrap, opened_inwards
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Eights(Wrap):
    """`wraps` eights, each a loop round `bundle` and one round `other`, whose loops share the gap between them.

    An eight goes on by `pitch_mm`, two wires' widths: both crossings lie in the gap, one after the other.
    """

    other: Bundle = Bundle((), 0.0)
    counted: ClassVar[Counted | None] = Counted("eight", spared_to=2)

    @property
    def loop_mm(self) -> float:
        grown = self.profile.centroid_mm
        return self.bundle.loop_mm(grown) + self.other.loop_mm(grown)

    def arithmetic(self) -> Say:
        return say(
            "{eights} × √(({one} round one pair + {other} round the other)² + {pitch}²)",
            eights=Number(self.wraps),
            one=Thickness(self.bundle.loop_mm(self.profile.centroid_mm)),
            other=Thickness(self.other.loop_mm(self.profile.centroid_mm)),
            pitch=Thickness(self._pitch),
        )

    @cached_property
    def _loop(self) -> Sequence[tuple[float, float]]:
        grown = self.profile.centroid_mm
        around = [opened_inwards(bundle, grown, bundle.nearest(self.start, grown)) for bundle in (self.bundle, self.other)]
        return [*around[0], *around[1]]

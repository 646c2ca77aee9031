"""No band: an ornament that stands by itself, to be hung or sewn on something else. It has no size."""

from collections.abc import Mapping
from typing import ClassVar, Literal

from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import Form, FormedBand, Joined, Opening, SizedBy, Top, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.say import Say


class NoBand(BandStyle):
    """Nothing round the finger."""

    title: ClassVar[str] = "No band"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {}
    main_role: ClassVar[str] = ""
    stretches_us: ClassVar[float] = 0.0
    style: Literal["none"] = choice("none", "Band")

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.ALONE})

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        return FormedBand(
            form=form,
            pieces=(),
            inside_mm=form.diameter_mm,
            strands=0,
            width_mm=0.0,
            thickness_mm=0.0,
            strand_z=lambda _: (),
            strand_wire=next(iter(wires.values())),
            strand_height_mm=0.0,
            joined=Joined.BAND,
            sized_by=SizedBy.NOTHING,
            tied=True,
        )

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        return []

    def phrase(self) -> Say:
        return Say("without a band")

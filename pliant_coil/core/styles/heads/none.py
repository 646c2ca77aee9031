"""No head: the band alone."""

from typing import ClassVar, Literal

from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Wires
from pliant_coil.core.styles.parameters import choice
from pliant_coil.core.words.say import NOTHING, Say


class NoHead(HeadStyle):
    """Nothing at the top: tails pass each other there and wrap the band, ends stay for a head to come."""

    title: ClassVar[str] = "No head"
    waits: ClassVar[bool] = True
    style: Literal["none"] = choice("none", "Head")

    def fits(self, band: BandStyle) -> Say:
        return Say("there would be neither band nor head") if Top.ALONE in band.tops() else NOTHING

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        return Opening()

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        return HeadWork(tails=band.tails, ledger=band.ledger, tied=band.tied)

    def phrase(self, band: BandStyle) -> Say:
        return Say("no head")

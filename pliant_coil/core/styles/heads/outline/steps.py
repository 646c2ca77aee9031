"""An outline at the bench: tip and lobes, loops, or a program; its tails led back to the band's line."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.heads.outline.sign import SLANT, Laid
from pliant_coil.core.styles.tasks import Check, Phase, Task, look
from pliant_coil.core.words.figures import Count, Degrees, Length, Thickness, Tolerance
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.outline import Outline


_LIES = {"heart": "its tip to the right", "loops": "its loops to the left", "own": "turned as on the card's view from above"}


def tasks(style: Outline, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    laid: Laid = work.facts
    sign = laid.sign
    placed = work.through[0]
    back = tuple(p.id for p in placed if p.id.endswith(("bent-back", "down")))
    ids = tuple(p.id for p in placed if p.id not in back)
    apart = say("{gap} between them", gap=Thickness(style.lobe_gap_mm)) if style.lobe_gap_mm else Say("touching")
    settle = Task(
        "settle",
        Phase.FLAT,
        Say("Press it flat with nylon pliers or a thumb; pull lobes apart a hair if they ride up."),
        checks=(
            Check(
                say("{width} wide over all, within {off}.", width=Length(sign.width_mm), off=Tolerance(0.5)),
                Say("Wider: press it together. Narrower: open it on the rod."),
            ),
        ),
        stage="sign",
    )
    after = [settle, _bent_back(laid, _LIES[style.sign], back)] if back else [settle]
    if style.sign != "heart":
        says = (
            say(
                "At the middle mark wind {n} on the {rod} rod, each a whole turn, one beside the other; both tails leave on one face.",
                n=Count(style.loops_count, "loop", "loops"),
                rod=Thickness(style.rod_mm),
            )
            if style.sign == "loops"
            else Say(
                "Bend one half from the middle mark outwards on the card's view from above, then the other in mirror; both tails leave on one face."
            )
        )
        return [Task("sign", Phase.FLAT, says, makes=ids, checks=(look("Both halves alike; both tails on one face, level."),)), *after]
    tip = tuple(i for i in ids if i.endswith(("tip", "leg")))
    return [
        Task(
            "tip",
            Phase.FLAT,
            say(
                "Chain-nose pliers at the middle mark, their jaws beside it: push both tails up to {angle}, and pinch the tip only until it stops.",
                angle=Degrees(math.radians(style.tip_angle_deg)),
            ),
            makes=tip,
            checks=(look("Both legs alike.", "Too wide: press the legs together at the tip. Dented: start again."),),
            stage="sign",
        ),
        Task(
            "first-lobe",
            Phase.FLAT,
            say(
                "Lay the {rod} rod against the inside of one leg, its near side {leg} from the tip; take the wire over its top and on round until it meets the leg. "
                "Change hands and take the tail on, behind the leg, to straight out sideways.",
                rod=Thickness(style.rod_mm),
                leg=Length(sign.leg_mm),
            ),
            makes=("head.left.lobe",),
            checks=(
                look("The lobe touches the middle line; the tail leaves square to it.", "Slide the rod along the leg before going round."),
            ),
            stage="sign",
        ),
        Task(
            "second-lobe",
            Phase.FLAT,
            Say("The other lobe in mirror, its tail on the same face of the sign."),
            makes=("head.right.lobe",),
            checks=(
                look(
                    say("Both lobes equally high, {apart}, both tails on one face.", apart=apart),
                    "Tails on two faces: unwind the second lobe and go round the other way over.",
                ),
            ),
            cautions=(cautions.KINK,),
            stage="sign",
        ),
        *after,
    ]


def _bent_back(laid: Laid, lies: str, makes: tuple[str, ...]) -> Task:
    """Tails that leave along the finger are led to the band's line, one to each side."""
    return Task(
        "bent-back",
        Phase.FLAT,
        say(
            "Lay it on the table, the tails underneath, {lies}. Round-nose pliers right where it leaves the sign: bend the near tail to the left by {round}, "
            "close under the sign; {slant} on bend it back by {back}, level. The far tail the same to the right.",
            lies=Say(lies),
            round=Degrees(math.pi / 2 + SLANT),
            slant=Length(laid.slant_mm),
            back=Degrees(SLANT),
        ),
        makes=makes,
        checks=(
            look(
                say("Both tails on one line through the sign's middle; their last bends {apart} apart.", apart=Length(2 * laid.level_mm)),
                "Not on one line: open or close the first bend of the tail that is off.",
            ),
        ),
        stage="sign",
    )

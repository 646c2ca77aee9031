"""A braid at the bench: hung, worked, closed."""

from __future__ import annotations

from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, Opening
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Article, Length, Thickness, Times, Tolerance, number_words
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.bands.braided import Braided, Joint


def tasks(style: Braided, band: FormedBand, opening: Opening) -> list[Task]:
    """What is done at the bench to make it."""
    joint: Joint = band.facts
    wire = band.pieces[0].wire
    n, d = style.strands, wire.size_mm
    eye = Thickness(style.eye(d))
    over = (n - 1) // 2
    other = n - 1 - over
    strands = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith("strand"))
    folds = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith(("fold", "eye")))
    wraps = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith("wrap"))
    drops = tuple(p.id for piece in band.pieces for p in piece.moves if p.move.label == "drop")
    rims = tuple(i for i in wraps if i not in drops)
    odd = " The last wire's end is turned into the eye beside it." if n % 2 else ""
    moves_n = round(joint.moves_each_side)
    ten = 10 * joint.braid.bight_mm
    tasks = [
        Task(
            "eye",
            Phase.FLAT,
            say("Fold the first wire at its middle on {eye} jaw and cross its legs close to it: the starting eye.", eye=Article(eye)),
            checks=(look(say("Its legs are equal within {off}.", off=Tolerance(2))),),
            stage="eye",
        ),
        Task(
            "hang",
            Phase.FLAT,
            say(
                "Hang the other wires at their middles round the eye's neck, one leg in front and one behind, pulled tight: {n} strands spread like a "
                f"fan.{odd}",
                n=number_words(n),
            ),
            makes=folds,
            stage="eye",
        ),
        Task(
            "braid",
            Phase.FLAT,
            say(
                "The outermost strand on the right goes over {over} to the middle, then the outermost on the left over {other}, in turn, {moves} from each "
                "side: {length} of braid. Pull always alike.",
                over=number_words(over),
                other=number_words(other),
                moves=moves_n,
                length=Length(joint.length_mm),
            ),
            makes=strands,
            checks=(
                Check(
                    say(
                        "After ten moves a side it is {ten} long and {width} wide.",
                        ten=Length(ten),
                        width=Thickness(joint.braid.width_mm),
                    ),
                    say(
                        "Wider: pull more or push it together. Put the width that you measure, or what your first {first} took, into the plan.",
                        first=Length(20),
                    ),
                ),
            ),
            cautions=(cautions.PAUSE,),
            count=moves_n,
        ),
        Task(
            "press",
            Phase.FLAT,
            say("Press it along once with flat pliers, lightly, to {thick}, and straighten it.", thick=Thickness(joint.thickness_mm)),
            checks=(
                Check(
                    say("From the eye's far rim it is {length}.", length=Length(joint.length_mm + style.eye(d) + d)),
                    Say("Short: some moves more on both sides. Long: unbraid."),
                ),
            ),
            stage="flatten",
        ),
    ]
    tasks += _closing(style, band, joint, drops, rims)
    return tasks


def _closing(style: Braided, band: FormedBand, joint: Joint, drops: tuple[str, ...], rims: tuple[str, ...]) -> list[Task]:
    tasks = []
    if drops:
        tasks.append(
            Task(
                "reduce",
                Phase.FLAT,
                say(
                    "Wrap the outermost strand of each side {times} round its neighbour, squeeze, and trim it on the outer face; cross the outer ones once "
                    "to the middle, and again, until {left} are left: {taper} in all.",
                    times=Times(style.reduce_wraps),
                    left=number_words(2),
                    taper=Length(joint.taper_mm),
                ),
                makes=drops,
                checks=(look("The taper is no wider than the eye."),),
                cautions=(cautions.CUT,),
                count=len(drops),
                stage="reduce",
            )
        )
    tasks.append(
        Task(
            "close",
            Phase.FORM,
            say(
                "Round it on the mandrel at {start}, lead the last two strands from inside out through the eye and pull until it lies there.",
                start=MandrelMark(band.form.diameter_mm),
            ),
            checks=(reads(0.1, Say("Big: pull. Small: undo the last wrap and leave the strands longer.")),),
        )
    )
    tasks.append(
        Task(
            "rim",
            Phase.GATHER,
            say(
                "Off the mandrel, take each strand {times} round its side of the rim, tight: this closes the ring.",
                times=Times(style.rim_wraps),
            ),
            makes=rims,
            checks=(reads(0.15),),
            count=style.rim_wraps,
        )
    )
    tasks.append(
        Task(
            "trim",
            Phase.TRIM,
            Say("Trim both strands flush on the outer face and press their ends in."),
            checks=(look("A finger finds no end."),),
            cautions=(cautions.CUT, cautions.EDGES),
        )
    )
    return tasks

"""A double coil at the bench: coiled, coiled again, threaded, bent level."""

from __future__ import annotations

from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Length, Number, Thickness, Times, Tolerance
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.double_coil import Barrel, DoubleCoil


def tasks(style: DoubleCoil, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    barrel: Barrel = work.facts
    coil = barrel.coil
    led = work.through[0]
    through = tuple(p.id for p in led)
    bend, threaded = led[1], led[2]
    jaw = threaded.length_mm / 2 + bend.length_mm - (bend.move.jaw_mm or 0.0)
    hold_turns = 0.5 * coil.turns_per_outer
    ends = tuple(p.id for piece in work.pieces for p in piece.moves if "close" in p.id or "lead" in p.id)
    tasks = [
        Task(
            "first-coil",
            Phase.FLAT,
            say(
                "Fix the end of the fine wire on the {rod} rod and wind {turns} turns, close together, guiding the wire near the rod and leaning it back a little: "
                "a coil of {length}.",
                rod=Thickness(style.inner_rod_mm),
                turns=Number(coil.first_turns + 2 * hold_turns, 0),
                length=Length(coil.first_coil_mm + 2 * hold_turns * coil.wire_mm),
            ),
            checks=(look("No light between the turns.", "Gaps: push the coil together before you go on."),),
            cautions=(cautions.WHIP, cautions.DRILL),
            stage="coil",
        ),
        Task(
            "second-coil",
            Phase.FLAT,
            say(
                "Slide it off, fix its end on the {rod} rod, and wind the coil itself {turns} turns and a half, each against the last.",
                rod=Thickness(style.outer_rod_mm),
                turns=style.outer_turns,
            ),
            makes=("coil.barrel",),
            checks=(look("It gapes evenly on the outside: that is right.", "It kinks flat: the rod is too thin."),),
            count=style.outer_turns,
            stage="coil",
        ),
        Task(
            "cut-coil",
            Phase.FLAT,
            say(
                "Keep {turns} of its turns, {length}; unwind one turn of fine wire at each end as the closing end, clip, press in.",
                turns=style.outer_turns,
                length=Length(coil.wound_mm),
            ),
            checks=(
                Check(
                    say(
                        "{length} long, within {off}; what you read replaces it in the next steps.",
                        length=Length(coil.wound_mm),
                        off=Tolerance(1),
                    )
                ),
            ),
            cautions=(cautions.CUT,),
            stage="cut",
        ),
        Task(
            "first-bend",
            Phase.FLAT,
            say("Jaws {jaw} to the left of the band wire's middle mark: bend it down.", jaw=Length(jaw)),
            makes=through[: len(through) // 2],
            stage="bend",
        ),
        Task(
            "barrel-on",
            Phase.FLAT,
            Say("Thread the barrel up to the bend, hold it snug and bend the wire down on its other side."),
            makes=through[len(through) // 2 :],
            checks=(
                look(say("The barrel has no play over {play}.", play=Tolerance(0.5)), "The bend is too far out: open it, set it nearer."),
            ),
            stage="thread",
        ),
    ]
    if coil.bowed:
        tasks.append(
            Task(
                "bow",
                Phase.FLAT,
                Say("Bow the barrel and its wire together over the mandrel, a little at a time, until it lies on it from end to end."),
                checks=(look("Its turns touch on the finger's side and fan out evenly on the other."),),
                stage="bend",
            )
        )
    elif style.leaves == "tangent":
        tasks.append(
            Task(
                "level",
                Phase.FLAT,
                Say("Bend both legs out until they are level with the barrel's underside, so that no corner presses on the finger."),
                stage="bend",
            )
        )
    if style.close_wraps:
        tasks.append(
            Task(
                "close",
                Phase.FLAT,
                say("Close the fine ends round the band wire, {times} each; clip, press in.", times=Times(style.close_wraps)),
                makes=ends,
                cautions=(cautions.CUT,),
            )
        )
    if work.onward:
        passes = tuple(p.id for moves in work.onward.values() for p in moves if p.id.endswith("pass"))
        locks = tuple(p.id for moves in work.onward.values() for p in moves if p.id.endswith("lock"))
        tasks += [
            Task(
                "past",
                Phase.HEAD,
                Say("Bring the left tail past the barrel above, the right one below, and draw both tight."),
                makes=passes,
                checks=(reads(0.15),),
            ),
            Task(
                "lock-legs",
                Phase.LOCK,
                say("Wrap each tail {times} round the leg that it comes to.", times=Times(band.form.locks)),
                makes=locks,
                checks=(look("As many on both sides."), reads(0.15)),
                count=band.form.locks,
                stage="lock",
            ),
            Task(
                "trim",
                Phase.TRIM,
                Say("Cut each tail flush on its outer face and press the end in."),
                checks=(look("A finger finds no end."),),
                cautions=(cautions.CUT, cautions.EDGES),
            ),
        ]
    return tasks

"""A framed bead at the bench: the frame woven on round it, side by side."""

from __future__ import annotations

from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Count, Length, Number
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.framed_bead import Facts, FramedBead


def tasks(style: FramedBead, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    facts: Facts = work.facts
    placed = {p.id: p for led in work.onward.values() for p in led}
    second = {p.id: p for p in work.pieces[0].moves}
    far_left = second["weave.2.frame"].turned
    n, then = facts.repeats(turned=not far_left), style.second_repeats(facts, turned=far_left)
    start = MandrelMark(band.form.diameter_mm)
    run_off = sum(p.length_mm for piece in band.pieces if piece.role == "weave" for p in piece.moves)
    where = "Cut a piece from the rest of the fine wire" if style.second_weave == "rest" else "Take a new piece of the fine wire"
    scrolls = tuple(i for i in placed if i.endswith(("lift", "scroll", "tuck")))
    tasks = [
        Task(
            "string",
            Phase.WIRE,
            say(
                "String the bead on the fine wire before the first wrap, and push it {far} along, past all that the band's weave uses.",
                far=Length(run_off + 50),
            ),
            checks=(look("It slides.", "Another bead, or finer wire."),),
            cautions=(cautions.THREAD_FIRST, cautions.STONE),
            stage="thread",
        ),
        Task(
            "open-shoulders",
            Phase.HEAD,
            say(
                "Let the ends pass beside each other, the right pair towards the nail, the left towards the wrist; lay the bead on top and open the shoulders until it lies flat."
            ),
            makes=tuple(i for i in placed if i.endswith("bend")),
            checks=(look("The fine wire leaves the band as high as the bead's hole.", "Form it again."),),
            stage="frame",
        ),
        Task(
            "first-half",
            Phase.HEAD,
            say(
                "Start the inner wire of each side round the bead by thumb, a fine wire's gap off it. Draw the fine wire through the bead to the far pair and pinch; weave that pair round the bead, "
                "{program}, {n}, A the inner wire; draw up after each three.",
                program=style.said_program,
                n=Count(n, "repeat", "repeats"),
            ),
            makes=(
                "weave.in",
                "weave.through",
                "weave.out",
                "weave.frame",
                *(i for i in placed if i.endswith(".frame") and i != "weave.frame"),
            ),
            checks=(
                Check(
                    say(
                        "The frame touches the bead all the way; every 5 repeats are {long} long on the inner wire.",
                        long=Length(5 * facts.weave.cycle_mm),
                    ),
                    Say("The shank twists: straighten it by hand. The outer wire hangs: ring it in by thumb before each wrap round both."),
                ),
            ),
            cautions=(cautions.STONE,),
            count=n,
            stage="frame",
        ),
        Task(
            "second-half",
            Phase.HEAD,
            say(
                f"{where}; thread its end inside the frame, under, to the other pair, and weave it towards the first shoulder, {{n}}.",
                n=Count(then, "repeat", "repeats"),
            ),
            makes=tuple(i for i in second if i.endswith(("under", "frame"))),
            takes=work.pieces[0].id,
            checks=(reads(0.2, say("Form it again at {start} now: after the next step it is locked.", start=start)),),
            cautions=(cautions.FINE_PULL,),
            count=then,
            stage="frame",
        ),
        Task(
            "tie",
            Phase.LOCK,
            Say(
                "Tie head and band: twice round both wires, once on the inner; down between band and bead, round the band's pair, up between the wires, held on a finger so that it doesn't kink; "
                "once round both, three on the inner, trim inside."
            ),
            makes=tuple(i for i in second if i.endswith(("tie", "end"))),
            checks=(look("Head and band don't rock against each other.", "One more round if the tail allows."),),
            cautions=(cautions.LAST_EASY, cautions.CUT),
            stage="tie",
        ),
    ]
    if style.scrolls:
        says = say(
            "Turn each inner end up over the face, {inner} turns, flatten the scroll off the bead in nylon jaws and press it down by hand; {outer}",
            inner=Number(style.scroll_turns, 2),
            outer=say("the outer ones {turns} turns, slipped under the first.", turns=Number(style.outer_scroll_turns, 2))
            if style.scrolls == 4
            else Say("cut the outer ones where they go under a scroll, file and tuck them."),
        )
    else:
        says = Say("Cut every end where it meets the frame again, file it and tuck it under.")
    tasks.append(
        Task(
            "scrolls",
            Phase.TRIM,
            says,
            makes=scrolls,
            checks=(look("The bead neither rattles nor turns."),),
            cautions=(cautions.STONE, cautions.EDGES),
        )
    )
    return tasks

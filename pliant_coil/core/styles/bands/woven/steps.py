"""A weave at the bench: its guide, the work on the table, and how it is closed."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.mechanics.program import program_text
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.bands.woven.wires import Laid
from pliant_coil.core.styles.handed_on import FormedBand, Opening
from pliant_coil.core.styles.repeats import Guide
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Count, Length, Thickness, Tolerance, number_words
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.bands.woven import Woven


def tasks(style: Woven, band: FormedBand, opening: Opening) -> list[Task]:
    """From the guide to the formed band."""
    laid: Laid = band.facts
    tasks: list[Task] = []
    guide = band.repeats.guide if band.repeats else None
    if guide:
        tasks.append(
            Task(
                "guide",
                Phase.FLAT,
                say(
                    "Bend a scrap of {thick} wire round the mandrel at {at}, mark where both ends of the gap fall, and straighten it: your length guide.",
                    thick=Thickness(guide.wire_mm),
                    at=MandrelMark(guide.bent_at_mm),
                ),
                checks=(Check(say("Between the marks it is {length}.", length=Length(guide.length_mm))),),
            )
        )
    tasks += _weaving(style, band, opening, laid, guide)
    tasks += _closing(style, band, opening, laid)
    return tasks


def _weaving(style: Woven, band: FormedBand, opening: Opening, laid: Laid, guide: Guide | None) -> list[Task]:
    weave = laid.weave
    program = program_text(weave.groups)
    made = tuple(p.id for piece in band.pieces if piece.role == "weave" for p in piece.moves)
    begin = {
        "end": say(
            "Hold the fine wire behind the first base wire at the mark, one wrap on it; bring in the {others}, {gap} apart, and go on with the weave.",
            others="second" if style.base_wires == 2 else "others one by one",
            gap=Thickness(weave.gap_mm),
        ),
        "third": say(
            "At the mark, a third from the end, lay the fine wire with its short side towards the near end; three wraps on A, bring in the other, "
            "{gap} apart, and weave the near side first with the tail.",
            gap=Thickness(weave.gap_mm),
        ),
        "middle": say(
            "At the middle mark lay the fine wire with its middle on the base wires, {gap} apart, and weave outwards.",
            gap=Thickness(weave.gap_mm),
        ),
        "fold": say(
            "Fold the fine wire at its middle, slip it on the middle base wire at the mark and draw it tight; lay the other two beside it, {gap} "
            "apart: one half goes round the first pair, the other round the second.",
            gap=Thickness(weave.gap_mm),
        ),
    }["middle" if style.weave_wires == 2 else style.begins]
    if opening.root:
        begin = say(
            "At the mark, where the two tails run side by side, {gap} apart, hold the fine wire behind the lower one, one wrap on it, and weave on from there.",
            gap=Thickness(weave.gap_mm),
        )
    words = say(
        "Weave {program}, {words}, {cycles}: {length} in all. Push the wraps together after every group.",
        program=program,
        words=program_words(weave),
        cycles=Count(laid.cycles, "repeat", "repeats"),
        length=Length(laid.made_mm),
    )
    ten = min(10, laid.cycles)
    even = Check(
        say(
            "Every {ten} repeats are {length} long; base wires parallel, no light between wraps.",
            ten=ten,
            length=Length(ten * weave.cycle_mm),
        ),
        Say("Longer: it is loose, push it together; the count changes, not the size. Splayed: squeeze it flat in nylon jaws."),
    )
    tasks = [
        Task(
            "begin",
            Phase.FLAT,
            begin,
            checks=(look("It doesn't slide when pushed with a nail.", "Unwrap and draw it tighter."),),
            stage="weave",
        ),
        Task("weave", Phase.FLAT, words, makes=made, checks=(even,), cautions=(cautions.PAUSE,), count=laid.cycles),
    ]
    if style.begins == "third":
        tasks.append(
            Task(
                "turn",
                Phase.FLAT,
                Say(
                    "The near side done, turn the work over like a page, left end to the right, A still nearest to you, and weave on from the reel."
                ),
                stage="weave",
            )
        )
    if guide:
        tasks.append(
            Task(
                "compare",
                Phase.FLAT,
                Say("Lay the weave on the guide."),
                checks=(
                    Check(
                        say("It is as long within half a repeat, {half}.", half=Length(weave.cycle_mm / 2)),
                        Say("Take off or add repeats at both ends alike."),
                    ),
                ),
            )
        )
    return tasks


def _closing(style: Woven, band: FormedBand, opening: Opening, laid: Laid) -> list[Task]:
    ends = say(
        "Finish the fine ends: what a later step uses is coiled aside; the others are cut {stands} long between the base wires, on the side away from the "
        "finger, and rolled down in the direction of the wrap.",
        stands=Tolerance(1),
    )
    tasks = [
        Task(
            "fine-ends",
            Phase.FLAT,
            ends,
            checks=(look("A fingertip, then a thread, finds no end."),),
            cautions=(cautions.CUT,),
            stage="finish the weave",
        )
    ]
    if opening.root:
        return tasks
    start = MandrelMark(band.form.diameter_mm)
    if style.close == "eyes":
        eyes = say(
            "Part the ends of each side a little and turn each, {stem} beyond the weave, into an eye {eye} inside that lies level, towards the ring's top.",
            stem=Length(style.stem_mm),
            eye=Thickness(style.eye_mm),
        )
        bind = Say(
            "Form it round the mandrel until the eyes of both sides face each other, and bind each pair with the weave's tail, two rounds, drawn down; "
            "then two or three wraps on a base wire, trim, press in."
        )
        made = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith(("eye", "stem")))
        tasks.append(
            Task("eyes", Phase.FLAT, eyes, makes=made, checks=(look("All eyes alike, shut and level."),), count=2 * style.base_wires)
        )
        tasks.append(
            Task(
                "form",
                Phase.FORM,
                bind,
                checks=(reads(0.1, Say("The weave's length is the size: take off or add repeats.")),),
                cautions=(cautions.FINE_PULL,),
            )
        )
        return tasks
    gap = 2 * math.pi * laid.radius_mm - laid.woven_mm
    tasks.append(
        Task(
            "form",
            Phase.FORM,
            say(
                "Warm it in the hand and lay its middle on the mandrel at {start}; press both sides round with the thumbs until they pass each other, "
                "and let go. Use a mallet only if it is soft.",
                start=start,
            ),
            makes=tuple(p.id for piece in band.pieces if piece.role == "base" for p in piece.moves),
            checks=(
                Check(say("{gap} stay open at the top, both ends level, the better face outside.", gap=Length(gap))),
                reads(0.1, Say("Otherwise form it again, a mark smaller if it sprang open: nothing is locked yet.")),
            ),
        )
    )
    return tasks


def program_words(weave: Weave) -> Say:
    """The program as it is spoken: `three on A, one round A and B`."""
    parts = []
    for g in weave.groups:
        wraps = number_words(g.wraps)
        names = " and ".join(g.name) if g.wires <= 2 else ", ".join(g.name)
        parts.append(f"{wraps} on {names}" if g.wires == 1 else f"{wraps} round {names}")
    return Say(", ".join(parts))

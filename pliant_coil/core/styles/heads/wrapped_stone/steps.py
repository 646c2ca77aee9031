"""A wrapped stone at the bench: threaded, circled, tied for a while, its ends led and locked."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.heads.wrapped_stone.tie import ROUNDS
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Degrees, Length, Times
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.wrapped_stone import Laid, WrappedStone


def tasks(style: WrappedStone, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    laid: Laid = work.facts
    one = bool(work.onward)
    through = tuple(p.id for p in work.through.get(0, ()))
    ids = {p.id: p for led in work.onward.values() for p in led}
    apart = laid.out_mm + laid.short_mm
    tasks = [
        Task(
            "thread",
            Phase.WIRE,
            Say("Thread the stone to its mark, and bend a slight kink on each side so that it stays."),
            checks=(look("It can't slide."),),
            cautions=(cautions.THREAD_FIRST, cautions.STONE),
        ),
        Task(
            "halo",
            Phase.FLAT,
            say(
                "Bend the long end round the stone, {turns}, tight, each {way} the last; press in with flat pliers where it gapes. End opposite the short end.",
                turns=Count(style.nest_turns, "whole turn", "whole turns"),
                way="outside" if style.lies == "flat" else "above",
            ),
            makes=through,
            checks=(look("From above the turns are evenly spaced.", "It ends early: go on to there."),),
            cautions=(cautions.STONE,),
            count=style.nest_turns,
        ),
        Task(
            "legs",
            Phase.FLAT,
            Say("Bend the long end sharply down there, and the short end too, both the same way, opposite each other."),
            checks=(Check(say("Both legs hang straight, {apart} apart.", apart=Length(apart))),),
            stage="bend",
        ),
        Task(
            "tie",
            Phase.FLAT,
            say(
                "Fine wire through between leg and stone and round all turns, {n} on each side, twisted on top. It comes out again.",
                n=Count(ROUNDS, "round", "rounds"),
            ),
            makes=("tie.rounds",),
            checks=(look("The turns don't shift."),),
        ),
    ]
    if not one:
        tasks.append(
            Task(
                "shoulders",
                Phase.HEAD,
                say(
                    "Mark both shoulders, {chord} from the ring's top, straight across: each tail is locked from there on, clear of the turns.",
                    chord=Length(2 * band.radius_mm * math.sin(laid.lock_rad / 2)),
                ),
                checks=(look("Left as far as right."),),
                stage="mark",
            )
        )
    if one:
        tasks += [
            Task(
                "short-under",
                Phase.HEAD,
                say(
                    "Lay the short end under the stone, beside the strand there, to the long leg's shoulder, {angle} from the top.",
                    angle=Degrees(laid.lock_rad),
                ),
                makes=tuple(i for i in ids if i.endswith(("down", "under"))),
                checks=(reads(0.15),),
                stage="lead",
            ),
            Task(
                "lock-both",
                Phase.LOCK,
                say(
                    "Lock the short end {times} across the strands, away from the stone, trim{press}; then the long end the same on the other side.",
                    times=Times(band.form.locks),
                    press=" and press it flat" if style.pressed_locks else "",
                ),
                makes=tuple(i for i in ids if i.endswith("lock")),
                checks=(look("As many on both sides.", "Tail short: one wrap fewer on both."), reads(0.15)),
                cautions=(cautions.LAST_EASY, cautions.CUT),
                count=band.form.locks,
                stage="lock",
            ),
        ]
    tasks.append(
        Task(
            "tie-out",
            Phase.ROUND,
            say("Cut the tie on top and pull out every piece: {n} in all.", n=Count(2 * ROUNDS, "round", "rounds")),
            checks=(look("The turns lie even; none of the tie is left inside."),),
            cautions=(cautions.CUT, cautions.TIPS),
            stage="tie out",
        )
    )
    return tasks

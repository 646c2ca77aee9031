"""Swept ends at the bench: bare past each other, or bound into a face."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Degrees, Length, Number, Times
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.swirl import Facts, Swirl


def tasks(style: Swirl, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    facts: Facts = work.facts
    ids = {p.id: p for led in work.onward.values() for p in led}
    if facts.face is None:
        return _bypass_tasks(style, band, ids)
    face = facts.face
    before, tied, after = style.wound(facts.coils, facts.sweeps)
    twin = Say("The same on the other side: its half-turn twin, not its mirror image.")
    through = tuple(i for i in ids if i in ("bind.left.foot", "bind.right.foot"))
    wound = tuple(i for i in ids if i.startswith("bind.") and i not in through and not i.endswith("rise"))
    first = "left.1" if "left.1.across" in ids else "right.1"
    reach = sum(p.length_mm for i, p in ids.items() if i.startswith(f"{first}."))
    tucked = "once through the ring" if style.tuck == "through" else "against the band"
    again = say("Then tuck the tied square {where} and trim it.", where=tucked) if "across" in facts.sweeps else Say("")
    return [
        Task(
            "ends-up",
            Phase.HEAD,
            Say(
                "Pull both binder tails tight; bend the squares of one side straight up, away from the finger, then the other side's. Single out the one nearest the middle on each side."
            ),
            makes=tuple(i for i in ids if i.endswith("rise")),
            checks=(
                look(
                    "As many on both sides, in line; the two singled out are opposite by half a turn.",
                    "Swap one: mirror images make the face askew.",
                ),
            ),
            stage="face",
        ),
        Task(
            "coil",
            Phase.HEAD,
            say(
                "Wind the binder round it, flat side in, {a}; take in the next end, {tie} round both; go on round the first alone, {b}. {twin}",
                a=Count(before, "coil", "coils"),
                tie=Count(tied, "coil", "coils"),
                b=Count(after, "coil", "coils"),
                twin=twin,
            ),
            makes=wound,
            checks=(look(say("Close, {long} long.", long=Length(facts.coils * face.bind.width_mm))),),
            count=facts.coils,
            stage="face",
        ),
        Task(
            "across",
            Phase.HEAD,
            say(
                "Lay both coils straight across, side by side, each {hook} round the foot of the other side; trim the first square where it lies under the hook, {long} from its foot.",
                hook=Degrees(math.radians(style.hook_deg)),
                long=Length(reach),
            ),
            makes=tuple(i for i in ids if i.endswith(("across", "hook", "tuck"))),
            checks=(look("They touch; neither rides up.", "Slack: pull from the end with pliers."), reads(0.15)),
            cautions=(cautions.CUT, cautions.EDGES),
            stage="face",
        ),
        Task(
            "binder-through",
            Phase.HEAD,
            say(
                "Take each binder tail through the ring, flat to the finger, and up round the foot; trim it and press its end into the face. {again}",
                again=again,
            ),
            makes=through,
            checks=(look("The finger feels no end."), reads(0.15)),
            cautions=(cautions.CUT, cautions.EDGES),
            stage="face",
        ),
        Task(
            "frame",
            Phase.HEAD,
            say(
                "Take the next end the other way round along the long side of the face, {oval} of it, and the last straight along between oval and coils; trim, turn under, pinch flat. {twin}",
                oval=Length(face.oval_mm()),
                twin=twin,
            ),
            makes=tuple(i for i in ids if i.endswith(("round", "up", "straight"))),
            checks=(look("An even oval; the finger feels no end."),),
            cautions=(cautions.EDGES,),
            stage="face",
        ),
    ]


def _bypass_tasks(style: Swirl, band: FormedBand, ids: dict[str, Placed]) -> list[Task]:
    sweeps = [p for i, p in ids.items() if i.endswith("sweep")]
    sweep = max(sweeps, key=lambda p: p.length_mm)
    several = say(" The ones outside are shorter: {short}.", short=Length(min(p.length_mm for p in sweeps))) if len(sweeps) > 2 else Say("")
    locks = tuple(i for i in ids if i.endswith("lock"))
    tasks = []
    if locks:
        says = say("Off the mandrel, wrap each tail {times} round its shoulder before it sweeps.", times=Times(band.form.locks))
        tasks.append(
            Task(
                "lock-first",
                Phase.HEAD,
                says,
                makes=locks,
                checks=(reads(0.15),),
                cautions=(cautions.LAST_EASY,),
                count=band.form.locks,
                stage="lock",
            )
        )
    tasks.append(
        Task(
            "sweep",
            Phase.HEAD,
            say(
                "Bend each end up at its foot and sweep it across the top, {long} of it, {reach} past the middle, one side's on each side of it; turn the ring half round for the others.{several}",
                several=several,
                long=Length(sweep.length_mm),
                reach=Degrees(math.radians(style.reach_deg)),
            ),
            makes=tuple(i for i in ids if i.endswith("sweep")),
            checks=(look("Turned half round it looks the same.", "Askew: one was made as a mirror image."), reads(0.15)),
            stage="sweep",
        )
    )
    ends = tuple(i for i in ids if i.endswith(".end"))
    words = {
        "scroll": say("Roll each end into a scroll of {turns} turns on round pliers", turns=Number(style.scroll_turns, 2)),
        "hook": Say("Turn each end into a small hook"),
        "ball": Say("Melt each end into a small ball"),
    }[style.end]
    heat = (cautions.TORCH,) if style.end == "ball" else ()
    tasks.append(
        Task(
            "end",
            Phase.TRIM,
            say("{words}, and press it flat on the band.", words=words),
            makes=ends,
            checks=(look("A finger finds no end."),),
            cautions=(*heat, cautions.EDGES),
            stage="ends",
        )
    )
    return tasks

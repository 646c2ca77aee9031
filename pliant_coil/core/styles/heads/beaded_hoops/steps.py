"""Beaded hoops at the bench: coiled, cut, edged, tied and sewn on."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Length, Thickness, Tolerance
from pliant_coil.core.words.say import Say, listed, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.beaded_hoops import BeadedHoops


START_MM = 10.0
"""How far from the hoop's ends the edging begins (common practice, no source)."""


def tasks(style: BeadedHoops, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    edges, _ = work.facts
    coils = [p for piece in work.pieces if piece.role == "coil" for p in piece.moves]
    sews = [p for piece in work.pieces if piece.role == "sew" for p in piece.moves]
    rods = list(dict.fromkeys(h.rod_mm for h in style.hoops))
    many = len(style.hoops) > 1
    counts = listed([Count(e.beads, "bead", "beads") for e in edges])
    ties = tuple(p.id for p in sews if p.id.endswith(("down", "tie")))
    tasks = [
        Task(
            "wind",
            Phase.FLAT,
            say(
                "Trim the hoop wire's end square and wind {turns} a hoop, close together, on the {rods} rod{more}, and half a turn over.",
                turns=Count(style.hoop_turns, "turn", "turns"),
                rods=listed([Thickness(rod) for rod in rods]),
                more="s" if len(rods) > 1 else "",
            ),
            makes=tuple(p.id for p in coils if "hoop" in p.id),
            checks=(
                Check(
                    say("The turns touch; off the rod the first hoop reads {inside} inside.", inside=Thickness(edges[0].inside_mm)),
                    Say("Larger: the next thinner rod."),
                ),
            ),
            cautions=(cautions.WHIP,),
            stage="coil",
        ),
        Task(
            "cut-hoops",
            Phase.FLAT,
            say(
                "Cut at the first end, then after every {turns}: {hoops}, their ends meeting.",
                turns=Count(style.hoop_turns, "turn", "turns"),
                hoops=Count(len(style.hoops), "hoop", "hoops"),
            ),
            checks=(look("No hoop is a turn short."),),
            cautions=(cautions.CUT,),
            stage="cut",
        ),
        Task(
            "start",
            Phase.FLAT,
            say("About {away} away from a hoop's ends lay one tight wrap round both wires.", away=Length(START_MM)),
            makes=tuple(p.id for p in sews if p.id.endswith("start")),
            checks=(look("It closes over both; neither is free."),),
            stage="edge",
        ),
        Task(
            "edge",
            Phase.FLAT,
            say(
                "Thread a bead, bend the wire sharply with a nail at the outer edge so that it lies astride, through the hoop and down; then {plain}. {counts}. "
                "Where the ends come, push them together until they pass by {over}, and wrap across both.",
                plain=Count(style.wraps_between, "plain wrap", "plain wraps"),
                counts=counts,
                over=Thickness(style.overlap_mm),
            ),
            makes=tuple(p.id for p in sews if ".bead." in p.id or ".wrap." in p.id),
            checks=(
                look(
                    "Every third bead: all outside, none to one side, the hoop's wires side by side.",
                    "Press them side by side with flat-nose pliers between beads, never on one.",
                ),
            ),
            cautions=(cautions.STONE,),
            count=sum(e.beads for e in edges),
        ),
        Task(
            "close-edge",
            Phase.FLAT,
            Say("After the last bead lay two wraps between the first ones, each tail leaving on the inside."),
            makes=tuple(p.id for p in sews if p.id.endswith("close")),
            checks=(look("The count is right, the gaps even."),),
            stage="edge",
        ),
    ]
    if many:
        apart = math.dist(edges[0].hoop.centre[::2], edges[1].hoop.centre[::2])
        own = [
            say(
                "hoop {k} on {on}: {x} along, {z} across",
                k=str(k + 1),
                on=str((edge.below or 0) + 1),
                x=Length(edge.hoop.centre[0]),
                z=Length(edge.hoop.centre[2]),
            )
            for k, edge in enumerate(edges[1:], 1)
        ]
        where = (
            say("from the middle of the first: {places}", places=listed(own, "; "))
            if style.layout == "own"
            else say("the second {apart} from the first, middle to middle", apart=Length(apart))
        )
        tasks.append(
            Task(
                "tie",
                Phase.FLAT,
                say(
                    "Lay the hoops out on the card's view from above, {where}. Take each tail on to its crossing and {n} round the hoop below, "
                    "the way that hoop is wound; trim on the inside.",
                    where=where,
                    n=Count(style.tie_wraps, "wrap", "wraps"),
                ),
                makes=ties,
                checks=(Check(say("The hoops don't slide; within {off} of the drawing.", off=Tolerance(0.5))),),
                cautions=(cautions.CUT,),
            )
        )
    if band.absent:
        trim = Task(
            "sew-end",
            Phase.TRIM,
            Say("Trim the first hoop's own tails on its inside, behind its last wraps, and press them in."),
            checks=(look("A finger finds no end."),),
            cautions=(cautions.CUT, cautions.EDGES),
            stage="trim",
        )
        return [*tasks, trim]
    tasks.append(
        Task(
            "sew-on",
            Phase.HEAD,
            say("Sew the first hoop on the band at {n}, two turns each, and trim.", n=Count(style.sewn_places, "place", "places")),
            makes=tuple(p.id for p in sews if p.id.endswith(".on")),
            checks=(look("It doesn't lift."), reads(0.15)),
            cautions=(cautions.FINE_PULL, cautions.EDGES),
        )
    )
    return tasks

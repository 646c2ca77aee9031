"""A bead lock at the bench: threaded, the tails past it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Phase, Task, look, reads
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.bead_lock import BeadLock


def tasks(style: BeadLock, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    one_way = any(end.name == "long" for end in band.ends)
    it = "row" if style.beads else "bead"
    if style.beads:
        text = (
            "Thread {bead} on the long tail and lay them over the top, side by side along the finger."
            if one_way
            else "Thread {bead} with their middle on the mark, and bend the wire over the mandrel with your thumbs until they lie side by side along it."
        )
        slides = "The beads touch each other and the mandrel; they may slide but don't rattle."
    else:
        text = (
            "Bend the long tail up square at the left foot, thread {bead}, and bend it square down at the other side."
            if one_way
            else "Thread {bead} to its mark and fold both halves down square beside it, jaws at the inner jaw marks; at the outer ones they turn off along the mandrel."
        )
        slides = "The bead may slide but doesn't rattle."
    thread = Task(
        "thread",
        Phase.FORM if one_way else Phase.WIRE,
        say(text, bead=style.words),
        makes=tuple(p.id for p in work.through.get(0, ())),
        checks=(look(slides),),
        cautions=(cautions.STONE,),
    )
    led = tuple(p.id for moves in work.onward.values() for p in moves)
    if not led:
        return [thread]
    passes = {
        "beside": f"Lead one tail past the nearer face of the {it}, the other past the farther face, tight to its foot.",
        "under-over": f"Pass one tail under the {it}, flat to the mandrel, and the other over it to its own side, tight.",
        "under-both": f"Pass both tails under the {it}, side by side, tight.",
        "none": "Lead the tail down on the band's edge.",
    }[style.pass_by]
    if one_way and style.pass_by != "none":
        way = f"under the {it}" if style.pass_by.startswith("under") else f"past the nearer face of the {it}"
        passes = f"Lead the long tail down, then {way}, tight to its foot, to the left shoulder."
    back = Say("Wind it again now: after the first wrap it can't be changed.")
    return [
        thread,
        Task(
            "pass",
            Phase.HEAD,
            Say(passes),
            makes=led,
            checks=(look("The tails leave on opposite sides." if not one_way else "It lies tight."), reads(0.15, back)),
        ),
    ]

"""A bundle at the bench: bound flat run by run, formed, joined."""

from __future__ import annotations

from typing import TYPE_CHECKING

from pliant_coil.core.mechanics.binding import Run
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, Opening
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark, SizeChange
from pliant_coil.core.words.figures import Count, Length, Tolerance, number_words
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.bands.bundled import Bound, Bundled


def _bound_part(mm: float) -> Check:
    return Check(say("The bound part is {length} long, close and without gaps, as many coils on both sides.", length=Length(mm)))


def tasks(style: Bundled, band: FormedBand, opening: Opening) -> list[Task]:
    """What is done at the bench to make it."""
    bound: Bound = band.facts
    rhythm, w = bound.rhythm, bound.bind.width_mm
    inner = number_words(style.inner)
    tasks = [
        Task(
            "binder",
            Phase.FLAT,
            Say("Find the binder's middle and bend it there to a U, its flat side inside; drag it through a cloth, its edges are sharp."),
            stage="bind",
        )
    ]
    begin = rhythm.middle or rhythm.side[0]
    first = say(
        f"Lay the {inner} inner wires side by side, the binder's middle on their middle mark: one coil, press it flat. Wind {{coils}}, "
        + ("as many either way of the mark." if rhythm.middle else "on each side of the mark."),
        coils=Count(begin.coils, "coil", "coils"),
    )
    made = ("bind.middle",) if rhythm.middle else ("bind.right.1", "bind.left.1")
    so_far = (rhythm.middle.coils if rhythm.middle else 2 * rhythm.side[0].coils) * w
    tasks.append(Task("bind-middle", Phase.FLAT, first, makes=made, checks=(_bound_part(so_far),), count=begin.coils, stage="bind"))
    runs = list(enumerate(rhythm.side))
    for k, run in runs if rhythm.middle else runs[1:]:
        before = rhythm.side[k - 1] if k else rhythm.middle
        so_far += 2 * run.coils * w
        tasks.append(
            Task(
                f"bind-{k + 1}",
                Phase.FLAT,
                _run_words(run, before, last=k == len(rhythm.side) - 1),
                makes=(f"bind.right.{k + 1}", f"bind.left.{k + 1}"),
                checks=(_bound_part(so_far),),
                count=run.coils,
                stage="bind",
            )
        )
    return tasks + _forming(style, band, bound, opening)


def _run_words(run: Run, before: Run | None, *, last: bool) -> Say:
    coils = Count(run.coils, "coil", "coils")
    if run.inner and before and not before.inner:
        return say(
            "Splay the outer wires a little away so that the binder passes between; {coils} round the inner ones, on both sides alike.",
            coils=coils,
        )
    if not run.inner and before and before.inner:
        lay = "Lay the outer wires against the row, one on each side, marks together"
        tail = ", the last run before the bare place" if last else ""
        return say(f"{lay}; {{coils}} round all, on both sides alike{tail}.", coils=coils)
    return say("{coils} more, on both sides alike.", coils=coils)


def _forming(style: Bundled, band: FormedBand, bound: Bound, opening: Opening) -> list[Task]:
    start = MandrelMark(band.form.diameter_mm)
    squares = tuple(p.id for piece in band.pieces if piece.role == "base" for p in piece.moves)
    lap = Length(bound.lap_mm)
    arcs = tuple(i for i in squares if i.endswith("arc"))
    ends = tuple(i for i in squares if not i.endswith("arc"))
    laid = "one side's ends on the other's" if style.joined == "stacked" else "the ends of both sides side by side"
    tasks = [
        Task(
            "form",
            Phase.FORM,
            say(
                "Lay the pattern's middle on the mandrel at {start} and bend both sides down evenly with the thumbs, their ends with a soft mallet.",
                start=start,
            ),
            makes=arcs,
            checks=(
                Check(
                    say("{lap} stays bare between the last coils, within {off}.", lap=lap, off=Tolerance(1)),
                    Say("Wider: one coil more in the last run on both sides. Narrower: one less on both."),
                ),
                reads(0.1),
            ),
        ),
        Task(
            "join",
            Phase.GATHER,
            say(
                f"Off the mandrel lay {laid}, across the bare place. Each binder tail goes {{coils}} round all of them, the first pulled tight before the "
                "second; pass it through the ring.",
                coils=Count(style.join_coils, "coil", "coils"),
            ),
            makes=(*ends, "bind.join.right", "bind.join.left"),
            checks=(look("Coils lie flush, as many from both sides."), reads(0.1)),
            cautions=(cautions.FINE_PULL,),
            count=style.join_coils,
        ),
        Task(
            "trim",
            Phase.TRIM,
            Say("Trim the wires at the join's last coils and the binder's tails flush, and press them in."),
            checks=(look("A finger finds no end."),),
            cautions=(cautions.CUT, cautions.EDGES),
        ),
    ]
    if opening.end_mm:
        # A head that takes the ends trims them itstyle.
        del tasks[-1]
    if band.effects:
        tasks.append(
            Task(
                "stretch",
                Phase.ROUND,
                say(
                    "Stretch it on the mandrel by {by} with a soft mallet, turned end for end; bound, it can only grow.",
                    by=SizeChange(band.effects[0].inside_mm),
                ),
                checks=(reads(0.1),),
                stage="stretch",
            )
        )
    return tasks

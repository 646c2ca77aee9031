"""The whole order of work: what every ring begins and ends with, and between them the tasks of band, head and finish."""

from collections.abc import Sequence
from dataclasses import replace
from functools import cache

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.cutting import Cut
from pliant_coil.core.making.markout import Mark
from pliant_coil.core.making.surface import surface_tasks
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import SizedBy
from pliant_coil.core.styles.tasks import PHASES, Check, Phase, Task, look
from pliant_coil.core.trade.sizes import MandrelMark, Size
from pliant_coil.core.words.figures import CutLength, Length, Thickness, Times
from pliant_coil.core.words.say import NOTHING, Reader, Say, say, write


def work_order(made: MadeRing, cuts: Sequence[Cut], marks: Sequence[Sequence[Mark]]) -> list[Task]:
    """Every task from the finger to the record, in the order of the phases."""
    common = [*_before(made), *_cutting(cuts), *_marking(cuts, marks), *_after(made)]
    lengths = {cut.piece.id: _length(cut) for cut in cuts}
    made_of = [replace(t, says=t.says + say("It takes {length}.", length=lengths[t.takes])) if t.takes else t for t in made.tasks]
    # What every ring begins with comes before a style's tasks of the same phase; its end comes last anyway.
    return sorted([*common, *made_of], key=lambda task: PHASES.index(task.phase))


def _before(made: MadeRing) -> list[Task]:
    target = Size(made.ring.target_mm, made.ring.asked_in)
    start = say(
        "Size the finger at {target}, and find the start mark on the mandrel, {start}.",
        target=target,
        start=MandrelMark(made.form.diameter_mm),
    )
    if made.band.sized_by is SizedBy.OVERLAP:
        start = say("Size the finger at {target}.", target=target)
    tasks = [] if made.band.absent else [Task("measure", Phase.WIRE, start, stage="measure")]
    for k, stone in enumerate(made.drilled, 1):
        passes = sum(times for _, times in stone.passing)
        often = say(", as often as it must pass: {times}", times=Times(passes)) if passes > 1 else Say("")
        tasks.append(
            Task(
                f"test-{stone.what}-{k}",
                Phase.WIRE,
                say(
                    "Try the {size} {stone} on a scrap of the very wire{often}.",
                    size=Thickness(stone.length_mm),
                    stone=stone.what,
                    often=often,
                ),
                checks=(look("It slides on.", "Otherwise another wire or bead, or open its hole."),),
                cautions=(cautions.REAM,) if k == 1 else (),
                stage="test",
            )
        )
    tasks.append(_straightening(any(piece.wire.yield_mpa >= 600 for piece in made.pieces)))
    return tasks


# What is the same for many rings is made once.
@cache
def _straightening(springy: bool) -> Task:
    twice = " twice, from the middle outwards" if springy else ""
    return Task(
        "straighten",
        Phase.WIRE,
        Say(f"Straighten the wire{twice} through fingers, cloth or nylon jaws."),
        checks=(look("It rolls flat on the table, without a kink."),),
        cautions=(cautions.KINK, *((cautions.WHIP,) if springy else ())),
    )


def _length(cut: Cut) -> CutLength:
    """What is cut, or runs off the reel."""
    return CutLength(round(cut.cut_mm)) if cut.piece.from_reel else CutLength(cut.cut_mm, cut.inch_parts)


def _cutting(cuts: Sequence[Cut]) -> list[Task]:
    alike: dict[tuple[str, float, bool, str], int] = {}
    first: dict[tuple[str, float, bool, str], Cut] = {}
    for cut in cuts:
        key = (f"{cut.piece.role} {cut.piece.wire.label}", round(cut.cut_mm, 1), cut.piece.from_reel, write(cut.piece.use, Reader()))
        alike[key] = alike.get(key, 0) + 1
        first.setdefault(key, cut)
    tasks = []
    for k, (key, count) in enumerate(alike.items(), 1):
        cut = first[key]
        words = cut.piece.wire.words
        use = say(", {use}", use=cut.piece.use) if cut.piece.use else NOTHING
        length = _length(cut)
        if cut.piece.from_reel:
            text = say("Work {wire} from the reel, uncut{use}: about {length} runs off.", wire=words, use=use, length=length)
            brief = say("{role} wire from the reel: about {length}.", role=cut.piece.role.capitalize(), length=length)
        else:
            pieces = f"{count} pieces of " if count > 1 else ""
            text = say(f"Cut {pieces}{{length}} of {{wire}}{{use}}.", length=length, wire=words, use=use)
            brief = say(f"Cut {pieces}{{length}}, {{role}} wire.", length=length, role=cut.piece.role)
        care = (cautions.COATED,) if cut.piece.wire.metal.coated else ()
        tasks.append(
            Task(
                f"cut-{k}",
                Phase.WIRE,
                text,
                cautions=(cautions.CUT, *care) if not cut.piece.from_reel else care,
                stage="cut",
                count=count if count > 1 else None,
                brief=brief,
            )
        )
    return tasks


def _marking(cuts: Sequence[Cut], marks: Sequence[Sequence[Mark]]) -> list[Task]:
    found: dict[tuple[str, str, float], list[int]] = {}
    pieces: dict[str, int] = {}
    for cut, piece in zip(cuts, marks, strict=True):
        role = cut.piece.role
        pieces[role] = pieces.get(role, 0) + 1
        for mark in piece:
            if mark.kind == "mark" and not cut.piece.from_reel:
                found.setdefault((role, mark.label, round(mark.at_mm)), []).append(pieces[role])
    return [
        Task(
            f"mark-{k}",
            Phase.WIRE,
            say(
                "Mark {which} at {at} from {ends}{each}: {label}.",
                which=_which(role, on, pieces[role]),
                at=Length(at),
                ends="its left end" if len(set(on)) in (1, pieces[role]) else "their left ends",
                each=" on each piece" if len(set(on)) == pieces[role] > 1 else "",
                label=label,
            ),
            stage="mark",
            brief=say("Mark {which} at {at}.", which=_which(role, on, pieces[role]), at=Length(at)),
        )
        for k, ((role, label, at), on) in enumerate(found.items(), 1)
    ]


def _which(role: str, on: list[int], of: int) -> str:
    """The wire; by its number where not all pieces of it are marked there."""
    numbers = sorted(set(on))
    if len(numbers) == of:
        return f"the {role} wire"
    return f"{role} wire {numbers[0]}" if len(numbers) == 1 else f"{role} wires {', '.join(map(str, numbers))}"


def _after(made: MadeRing) -> list[Task]:
    worn = not made.band.absent
    again = (_rounding(bool(made.stones)),) if worn else ()
    return [*again, *surface_tasks(made), _feeling(worn), _recording(worn)]


@cache
def _rounding(stones: bool) -> Task:
    beside = " beside the head" if stones else ""
    return Task(
        "re-round",
        Phase.ROUND,
        Say(f"On the mandrel, tap it round with a soft mallet{beside}, and turn it end for end."),
        checks=(
            Check(say("Two bores at right angles are alike within {within}.", within=Thickness(0.15))),
            Check(reads_size=True, within_mm=0.2),
        ),
        cautions=(cautions.NO_MALLET,) if stones else (),
        stage="round",
    )


@cache
def _feeling(worn: bool) -> Task:
    whole = "Feel the whole ring inside and out" if worn else "Feel it all over"
    return Task(
        "feel",
        Phase.NOTE,
        Say(f"{whole}, then draw a thread over it."),
        checks=(look("Nothing catches."),),
        cautions=(cautions.EDGES, *((cautions.SWOLLEN,) if worn else ())),
    )


@cache
def _recording(worn: bool) -> Task:
    read = ", and what the mandrel read" if worn else ""
    return Task("record", Phase.NOTE, Say(f"Write down what was cut, what was left at each end{read}."))

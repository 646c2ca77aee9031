"""The bench steps from the finger to the record, in the order of the trade; band and head put in their own."""

from pliant_coil.core.cutlist import Cut
from pliant_coil.core.finish import Finish
from pliant_coil.core.markout import Mark
from pliant_coil.core.measures import times_words
from pliant_coil.core.ring import Ring
from pliant_coil.core.sizes import SYSTEMS, nearest_mark
from pliant_coil.core.steps import CUT_CAUTION, EDGE_CAUTION, SWOLLEN_CAUTION, Step
from pliant_coil.core.wires import FormedRing


def size_words(ring: Ring, inside_diameter_mm: float) -> str:
    """A size in the system that the finger was given in (US for a plain length), never silently rounded."""
    return nearest_mark(inside_diameter_mm, SYSTEMS[ring.size_system]).text


def steps(ring: Ring, formed: FormedRing, finished_mm: float, cuts: list[Cut], marks: list[list[Mark]]) -> list[Step]:
    """Everything there is to do, with the figures of this plan."""
    file = ring.file
    band, head = file.band, file.head
    start, finish = size_words(ring, formed.form_diameter_mm), size_words(ring, finished_mm)
    return [
        *_before_cutting(ring, formed, start),
        *_cutting(formed, cuts),
        *_marking(marks),
        *head.threading(),
        *band.forming(start, formed, head),
        *band.head_steps(head),
        *_locking(ring, start),
        *_trimming(ring),
        Step(
            "round",
            "Put it back on the mandrel and re-round it with a soft mallet.",
            check=f"It reads {finish}.",
            cautions=(SWOLLEN_CAUTION,),
        ),
        Step("record", "Write down what was left of each tail and what the mandrel read."),
    ]


def _before_cutting(ring: Ring, formed: FormedRing, start: str) -> list[Step]:
    target = size_words(ring, ring.target_mm)
    found = [Step("measure", f"Size the finger at {target} and find the start mark on the mandrel, {start}.")]
    found += [
        Step(
            "test", f"Try the {bead.diameter_mm:g} mm {bead.what} on the wire before anything is bent.", check="It slides on without force."
        )
        for bead in formed.beads
    ]
    found.append(Step("straighten", "Straighten the wire through fingers and cloth.", check="No kinks: a kink pulled shut stays."))
    return found


def _cutting(formed: FormedRing, cuts: list[Cut]) -> list[Step]:
    alike: dict[str, int] = {}
    for run, piece in zip(formed.runs, cuts, strict=True):
        if run.wire.from_reel:
            words = f"Work {run.wire.words} from the reel: about {piece.cut_mm:.0f} mm runs off."
        else:
            words = f"Cut {{pieces}}{piece.cut_mm:.0f} mm ({piece.cut_in} in) of {run.wire.words}."
        alike[words] = alike.get(words, 0) + 1
    return [
        Step(
            "cut",
            words.format(pieces=f"{count} pieces of " if count > 1 else ""),
            count=count if count > 1 else None,
            cautions=(CUT_CAUTION,),
        )
        for words, count in alike.items()
    ]


def _marking(marks: list[list[Mark]]) -> list[Step]:
    made = [(mark.label, f"{mark.at_mm:.0f}") for piece in marks for mark in piece if mark.kind == "mark"]
    return [
        Step("mark", f"Mark {at} mm from the end{' of each piece' if made.count((label, at)) > 1 else ''}: {label}.")
        for label, at in dict.fromkeys(made)
    ]


def _trimming(ring: Ring) -> list[Step]:
    if not ring.file.band.trimmed:
        return [
            Step("feel", "Feel the whole ring inside and out before it is worn.", check="A finger finds no end.", cautions=(EDGE_CAUTION,))
        ]
    trim = ring.file.finish.words_for_ends if ring.file.band.locked else Finish().words_for_ends
    return [Step("trim", trim, check="A finger finds no end.", cautions=(CUT_CAUTION, EDGE_CAUTION))]


def _locking(ring: Ring, start: str) -> list[Step]:
    wraps = ring.file.finish.wraps_each_side
    read = Step(
        "read",
        "Slide it back on the mandrel before anything is locked.",
        check=f"It still reads {start}; if it has opened, form it again there.",
    )
    if not wraps or not ring.file.band.locked:
        return []
    lock = "Wrap {tail} round the band beside the head, {times}, close and tight."
    times = times_words(wraps)
    first = "the short tail, once the first turn lies," if _binds_early(ring) else "one tail"
    return [
        read,
        Step("lock", lock.format(tail=first, times=times), count=wraps, check="Each wrap lies against the last."),
        Step(
            "lock",
            lock.format(tail="the other tail on its own side", times=times),
            count=wraps,
            check="Both sides have the same count and sit alike.",
        ),
    ]


def _binds_early(ring: Ring) -> bool:
    """Whether the short tail of a band that is wound one way is wrapped before the other turns are laid."""
    return ring.file.finish.short_tail == "early" and getattr(ring.file.band, "winding", "") == "one-way"

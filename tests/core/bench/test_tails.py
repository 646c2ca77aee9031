"""Tails of real rings at the bench: what is made less of when one is short, alike on both sides, and where a new piece hides."""

import math
from datetime import UTC, datetime
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.events import Count, Event, Reading, Spliced, StepOn
from pliant_coil.core.bench.progress import Numbered, Progress
from pliant_coil.core.bench.reach import SURE
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.bench.tails import TailEnd, Tails, measured_on_the_way
from pliant_coil.core.bench.told import tail_told
from pliant_coil.core.moves.placed import Fate
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.words.say import Reader, write

NOON = datetime(2026, 11, 25, 12, tzinfo=UTC)
ROSETTE = RingAtBench.of(read_ring({"finger": {"size": "US 7"}, "head": {"style": "loop-rosette"}}))
LOCKS = RingAtBench.of(read_ring({"finger": {"size": "US 7"}, "head": {"style": "bead-lock"}, "finish": {"wraps_each_side": 4}}))


def steps_until(ring: RingAtBench, move: str) -> list[Event]:
    """Everything before the step that makes a move."""
    place = next(k for k, task in enumerate(ring.tasks) if move in task.makes)
    return [StepOn(id=uuid4(), device="a", at=NOON, task=task.id) for task in ring.tasks[:place]]


def fold(ring: RingAtBench, events: list[Event]) -> Progress:
    return ring.progress([Numbered(n, event) for n, event in enumerate(events, 1)])


def read(ring: RingAtBench, end: TailEnd, value: float, move: str) -> Reading:
    task = next(task.id for task in ring.tasks if move in task.makes)
    return Reading(id=uuid4(), device="a", at=NOON, what="tail", task=task, side=end.side, piece=end.piece, value_mm=value)


def lock_ends(ring: RingAtBench) -> tuple[list[Event], list[TailEnd]]:
    first = next(p.id for piece in ring.planned.pieces for p in piece.moves if p.move.hand == "wrap")
    events = steps_until(ring, first)
    return events, Tails(ring, fold(ring, events)).ends


def test_locks_give_way_to_two_and_no_further() -> None:
    events, ends = lock_ends(LOCKS)
    end = ends[0]
    spare = Tails(LOCKS, fold(LOCKS, events)).spare(end)
    assert spare is not None and (spare.left.kind, spare.repeats, spare.least) == ("wrap", 4, 2)
    whole = sum(m.length_mm for m in end.left)
    each = spare.left.length_mm / 4
    progress = fold(LOCKS, events)
    for missing, reach in ((0.0, 4), (each, 3), (2 * each, 2), (3 * each, 0)):
        # Far enough above what is just needed that noise doesn't decide.
        tail = Tails(LOCKS, progress).measured(end, whole + end.holds_mm - missing + 0.7 * each)
        assert spare.enough(tail) == reach


@given(st.floats(20, 400))
def test_what_still_reaches_is_found_by_trying_each(measured: float) -> None:
    events, ends = lock_ends(LOCKS)
    spare = Tails(LOCKS, fold(LOCKS, events)).spare(ends[0])
    assert spare is not None
    tail = Tails(LOCKS, fold(LOCKS, events)).measured(ends[0], measured)
    tried = [n for n in (2, 3, 4) if spare.fewer(tail, n).chance >= SURE]
    assert spare.enough(tail) == max(tried, default=0)


def test_both_sides_come_out_alike() -> None:
    events, ends = lock_ends(LOCKS)
    assert len(ends) == 2
    one, other = ends
    spare = Tails(LOCKS, fold(LOCKS, events)).spare(one)
    assert spare is not None
    each = spare.left.length_mm / 4
    whole = sum(m.length_mm for m in one.left) + one.holds_mm
    short = read(LOCKS, other, whole - 2 * each + 0.6 * each, spare.left.move)
    progress = fold(LOCKS, [*events, short])
    beside = Tails(LOCKS, progress).other(one)
    assert beside is not None and beside[1].measured_mm == short.value_mm
    left_mm = whole - each + 0.6 * each
    said = write(tail_told(Tails(LOCKS, progress), one, left_mm).text, Reader())
    assert "3 of 4" in said and "Alike on both sides: 2 each" in said
    alone = write(tail_told(Tails(LOCKS, fold(LOCKS, events)), one, left_mm).text, Reader())
    assert "Measure the other side too" in alone


def test_a_second_reading_in_a_row_knows_more_than_one() -> None:
    row = next(p for piece in ROSETTE.planned.pieces for p in piece.moves if p.move.hand == "loop" and (p.move.count or 0) > 5)
    before = steps_until(ROSETTE, row.id)
    end = next(e for e in Tails(ROSETTE, fold(ROSETTE, before)).ends if row.id in [left.move for left in e.left])
    first = read(ROSETTE, end, 400, row.id)
    four = Count(id=uuid4(), device="a", at=NOON, move=row.id, n=4)
    progress = fold(ROSETTE, [*before, first, four])
    after = next(e for e in Tails(ROSETTE, progress).ends if (e.piece, e.end) == (end.piece, end.end))
    each = row.length_mm / (row.move.count or 1)
    long = Tails(ROSETTE, progress).measured(after, 400 - 4 * each * 1.1)
    assert long.seen is not None
    assert (long.seen[0], long.seen[3]) == (400, row.id) and long.seen[2] == pytest.approx(4 * each)
    assert [left.move for left in after.left] == [left.move for left in end.left], "what is wound after the row is still to come"
    blind = Tails(ROSETTE, fold(ROSETTE, [*before, four])).measured(after, 400 - 4 * each * 1.1)
    assert blind.seen is None
    assert long.sd_mm < blind.sd_mm and long.slack_mm < blind.slack_mm, "loops that ran long will run long again"


def test_a_splice_is_long_enough_and_is_written_down() -> None:
    events, ends = lock_ends(LOCKS)
    end = ends[0]
    told = tail_told(Tails(LOCKS, fold(LOCKS, events)), end, 15)
    net = sum(m.length_mm for m in end.left)
    width = end.profile.width_mm
    assert told.splice_mm is not None
    assert told.splice_mm > net + 14 + 2 * math.pi * 2 * width, "what is left, its start, two trims, and what hands are off by"
    assert told.splice_mm < 1.5 * (net + 14 + 2 * math.pi * 2 * width)
    assert "under the bead" in write(told.text, Reader())
    spliced = Spliced(id=uuid4(), device="a", at=NOON, piece=end.piece, length_mm=told.splice_mm, task="lock")
    assert fold(LOCKS, [*events, spliced]).spliced == {end.piece: told.splice_mm}


def test_every_style_says_where_a_splice_hides_or_that_it_doesnt() -> None:
    for band in all_bands().values():
        assert isinstance(band.hides_splice, str)
    for head in all_heads().values():
        assert head.hides_splice is None or isinstance(head.hides_splice, str)
    bare = RingAtBench.of(read_ring({"finger": {"size": "US 7"}, "band": {"style": "twisted"}}))
    assert Tails(bare, fold(bare, [])).hides_splice == ""


def test_tails_read_before_the_locks_say_what_was_made_by_then() -> None:
    events, ends = lock_ends(LOCKS)
    lock = ends[0].left[-1].move
    whole: dict[str, float] = {}
    for piece in LOCKS.planned.pieces:
        for placed in piece.moves:
            if placed.fate is Fate.RING and placed.id not in {left.move for end in ends for left in end.left}:
                whole[placed.move.hand] = whole.get(placed.move.hand, 0.0) + placed.length_mm
    one = [*events, read(LOCKS, ends[0], 70, lock)]
    assert measured_on_the_way(LOCKS, fold(LOCKS, one)) == {}, "one of two tails says nothing yet"
    both = [*one, read(LOCKS, ends[1], 72, lock)]
    ((measured, (made, left)),) = measured_on_the_way(LOCKS, fold(LOCKS, both)).items()
    assert measured == ends[0].piece and left == 142
    assert {kind: mm for kind, mm in made.items() if mm > 1e-9} == pytest.approx(whole)
    # A wrap further on one tail alone stands elsewhere.
    later = [*one, Count(id=uuid4(), device="a", at=NOON, move=lock, n=1), read(LOCKS, ends[1], 72, lock)]
    assert measured_on_the_way(LOCKS, fold(LOCKS, later)) == {}

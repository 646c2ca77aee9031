"""Where a ring stands: folded from what devices tell, late, twice and at once."""

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.events import (
    CameBack,
    Count,
    CountSet,
    Ended,
    Event,
    Late,
    Mended,
    Note,
    Paused,
    Reading,
    Reopened,
    StepBack,
    StepOn,
    TakenBack,
)
from pliant_coil.core.bench.progress import Numbered, Progress, fold

TASKS = ("cut", "weave", "form", "lock")
LIMITS = {"weave": 60.0}
NOON = datetime(2026, 11, 25, 12, tzinfo=UTC)


def told(*events: Event) -> Progress:
    """Folded in the order in which they came; sent twice, stored once."""
    stored: dict[UUID, Event] = {}
    for event in events:
        stored.setdefault(event.id, event)
    return fold([Numbered(n, event) for n, event in enumerate(stored.values(), 1)], TASKS, LIMITS)


def count(n: float = 1, *, seen: int = 0, device: str = "tablet", at: datetime = NOON) -> Count:
    return Count(id=uuid4(), device=device, at=at, seen=seen, move="weave", n=n)


def test_a_tablet_and_a_phone_that_was_away() -> None:
    tablet: list[Event] = [count(seen=k) for k in range(6)]
    tablet += [CountSet(id=uuid4(), device="tablet", at=NOON, seen=6, move="weave", n=8), count(seen=7)]
    phone: list[Event] = [count(seen=6, device="phone") for _ in range(3)]
    before = [*tablet, *phone, *phone]
    shown = told(*before)
    assert shown.counts == {"weave": 9} and shown.late == {"weave": 3}, "three more from the phone: add?"
    answers = {add: told(*before, Late(id=uuid4(), device="tablet", at=NOON, seen=11, move="weave", add=add)) for add in (True, False)}
    assert answers[True].counts == {"weave": 12} and answers[False].counts == {"weave": 9}
    assert not answers[True].late and not answers[False].late
    undone = told(*before, TakenBack(id=uuid4(), device="tablet", at=NOON, seen=11, event=tablet[-1].id))
    assert undone.counts == {"weave": 8}


def test_the_furthest_step_counts_and_back_is_meant() -> None:
    on = [StepOn(id=uuid4(), device=d, at=NOON, task=t) for d, t in (("a", "cut"), ("b", "cut"), ("a", "weave"), ("b", "cut"))]
    assert told(*on).task == "form"
    assert told(*on, StepBack(id=uuid4(), device="a", at=NOON, task="cut")).task == "cut"
    everything = told(*(StepOn(id=uuid4(), device="a", at=NOON, task=task) for task in TASKS))
    assert (everything.task, everything.place) == ("", 4)


def test_taking_back_can_be_taken_back() -> None:
    one = count(5)
    back = TakenBack(id=uuid4(), device="a", at=NOON, event=one.id)
    again = TakenBack(id=uuid4(), device="a", at=NOON, event=back.id)
    assert told(one, back).counts == {}
    assert told(one, back, again).counts == {"weave": 5}


def test_the_newest_reading_of_a_kind_counts_and_older_ones_stay() -> None:
    readings = [Reading(id=uuid4(), device="a", at=NOON, what="size", task="form", value_mm=v) for v in (17.9, 17.8)]
    shown = told(*readings)
    newest = shown.reading("size", "form")
    assert newest is not None and newest.value_mm == 17.8 and len(shown.readings) == 2


def test_a_pause_counts_as_a_usual_gap() -> None:
    def at(seconds: float) -> datetime:
        return NOON + timedelta(seconds=seconds)

    taps: list[Event] = [StepOn(id=uuid4(), device="a", at=at(0), task="cut"), *(count(at=at(14 * k)) for k in range(1, 6))]
    assert told(*taps).seconds == {"weave": 70}
    lunch = told(*taps, count(at=at(70 + 3600)), count(at=at(70 + 3600 + 14)))
    assert lunch.seconds == {"weave": 70 + 14 + 14}
    stopped = told(*taps, Paused(id=uuid4(), device="a", at=at(75)), count(at=at(200)))
    assert stopped.seconds == {"weave": 75}


events = st.lists(
    st.one_of(
        st.builds(count, st.integers(-3, 9), seen=st.integers(0, 20)),
        st.builds(
            lambda n, s: CountSet(id=uuid4(), device="a", at=NOON, seen=s, move="weave", n=n), st.integers(0, 99), st.integers(0, 20)
        ),
        st.builds(lambda t: StepOn(id=uuid4(), device="a", at=NOON, task=t), st.sampled_from(TASKS)),
        st.builds(lambda: Note(id=uuid4(), device="a", at=NOON, task="cut", text="a kink")),
    ),
    max_size=30,
)


@given(events)
def test_no_count_leaves_its_bounds_and_the_order_of_arrival_is_all_that_counts(happened: list[Event]) -> None:
    shown = told(*happened)
    assert all(0 <= n <= LIMITS[move] for move, n in shown.counts.items())
    assert 0 <= shown.place <= len(TASKS)
    assert told(*happened, *happened) == shown, "sent again, nothing changes"
    numbered = [Numbered(n, event) for n, event in enumerate(happened, 1)]
    assert fold(reversed(numbered), TASKS, LIMITS) == fold(numbered, TASKS, LIMITS)


def test_a_ring_that_comes_back_keeps_what_its_making_left() -> None:
    def at(minutes: int) -> dict[str, Any]:
        return {"id": uuid4(), "device": "a", "at": NOON + timedelta(minutes=minutes)}

    made = Ended(kind="finished", **at(0), left_mm={"band.1": 30.0}, size_mm=16.6, mandrel="the long one")
    came = CameBack(**at(1), why="tight", reads_mm=16.6, wanted_mm=17.0)
    back = told(made, came)
    assert back.state == "open" and back.visit and back.visit.came.wanted_mm == 17.0
    mended = told(made, came, Mended(**at(2), way="stretch"), Ended(kind="finished", **at(3), size_mm=16.95))
    assert (mended.state, mended.visit, len(mended.visits)) == ("finished", None, 1)
    assert mended.ending and (mended.ending.size_mm, mended.ending.mandrel, mended.ending.left_mm) == (
        16.95,
        "the long one",
        {"band.1": 30.0},
    )
    again = told(made, came, Ended(kind="finished", **at(3)), Reopened(**at(4)))
    assert again.visit and again.state == "open", "taken up again it is still the same visit"
    assert told(came).visits == [] and told(Mended(**at(2), way="stretch")).visits == [], "what isn't finished doesn't come back"
    assert told(made, came, TakenBack(**at(5), event=came.id)).state == "finished"

"""What is kept, and that nobody's work is overwritten or seen by others."""

import threading
from uuid import uuid4

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import Engine, text

from pliant_coil.core.making.ring import with_defaults_taken
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.services.rings import Conflict, Rings
from pliant_coil.services.scope import NotFound, alone
from pliant_coil.services.workshop import DEMO_SLUG, can_keep, seed_demo
from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions, connect, sessions_of
from pliant_coil.store.models import Base
from tests.core.recipes import AMBER_MEADOW

AMBER = with_defaults_taken(read_ring(AMBER_MEADOW))


@pytest.fixture
def rings(sessions: Sessions) -> Rings:
    return Rings(sessions, alone(sessions, DEMO_SLUG))


def test_migrations_make_what_the_models_say(engine: Engine) -> None:
    with engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


def test_a_ring_comes_back_as_it_was_saved(rings: Rings) -> None:
    kept = rings.create(AMBER)
    assert rings.read(kept.id).file == AMBER
    assert rings.page("", 10).rings[0].inside_circumference_mm == pytest.approx(53.13, abs=0.01)


def test_every_revision_stays(rings: Rings) -> None:
    kept = rings.create(AMBER)
    later = rings.save(kept.id, AMBER.model_copy(update={"title": "Later"}), 1)
    assert (later.revision, rings.read(kept.id).file.title) == (2, "Later")
    assert rings.read(kept.id, 1).file == AMBER
    assert [number for number, _, _ in rings.revisions(kept.id)] == [2, 1]
    with pytest.raises(NotFound):
        rings.read(kept.id, 3)


def test_the_second_of_two_savers_is_told(rings: Rings) -> None:
    kept = rings.create(AMBER)
    rings.save(kept.id, AMBER.model_copy(update={"title": "First"}), 1)
    with pytest.raises(Conflict) as conflict:
        rings.save(kept.id, AMBER.model_copy(update={"title": "Second"}), 1)
    assert conflict.value.current.file.title == "First"
    assert rings.read(kept.id).revision == 2


def test_of_many_at_once_exactly_one_saves(rings: Rings) -> None:
    kept = rings.create(AMBER)
    outcomes: list[str] = []

    def save(number: int) -> None:
        try:
            rings.save(kept.id, AMBER.model_copy(update={"title": f"Saver {number}"}), 1)
            outcomes.append("saved")
        except Conflict:
            outcomes.append("told")

    savers = [threading.Thread(target=save, args=(n,)) for n in range(6)]
    for saver in savers:
        saver.start()
    for saver in savers:
        saver.join()
    assert sorted(outcomes) == ["saved"] + ["told"] * 5
    assert rings.read(kept.id).revision == 2


def test_deleting_can_be_undone(rings: Rings) -> None:
    kept = rings.create(AMBER)
    rings.delete(kept.id)
    assert rings.page("", 10).total == 0
    with pytest.raises(NotFound):
        rings.read(kept.id)
    with pytest.raises(NotFound):
        rings.save(kept.id, AMBER, 1)
    assert rings.restore(kept.id).file == AMBER
    assert rings.page("", 10).total == 1


def test_search_takes_words_in_any_order_and_signs_as_themselves(rings: Rings) -> None:
    rings.create(AMBER)
    rings.create(AMBER.model_copy(update={"title": "100% brass_ring"}))
    assert [r.title for r in rings.page("meadow amber", 10).rings] == ["Amber meadow ring"]
    assert rings.page("20 awg bead", 10).total == 2
    assert rings.page("0%", 10).total == 1
    assert rings.page("s_r", 10).total == 1
    assert rings.page("'; drop table ring; --", 10).total == 0


def test_pages_show_the_last_changed_first(rings: Rings) -> None:
    made = [rings.create(AMBER.model_copy(update={"title": f"Ring {n}"})) for n in range(5)]
    rings.save(made[1].id, AMBER.model_copy(update={"title": "Ring 1"}), 1)
    first = rings.page("", 3)
    second = rings.page("", 3, first.rings[-1].id)
    assert [r.title for r in first.rings + second.rings] == ["Ring 1", "Ring 4", "Ring 3", "Ring 2", "Ring 0"]
    assert first.total == second.total == 5


def test_a_copy_says_that_it_is_one(rings: Rings) -> None:
    copy = rings.duplicate(rings.create(AMBER.model_copy(update={"title": "x" * 120})).id)
    assert copy.file.title.endswith("(copy)")
    assert len(copy.file.title) == 120


def test_workshops_dont_see_each_others_rings(sessions: Sessions, rings: Rings) -> None:
    with sessions.begin() as session:
        workshops.ensure(session, "next-door", "Next door")
    kept = rings.create(AMBER)
    next_door = Rings(sessions, alone(sessions, "next-door"))
    assert next_door.page("", 10).total == 0
    for attempt in (next_door.read, next_door.delete, next_door.restore, next_door.duplicate):
        with pytest.raises(NotFound):
            attempt(kept.id)
    with pytest.raises(NotFound):
        alone(sessions, "nowhere")
    with pytest.raises(NotFound):
        rings.read(uuid4())


def test_the_demo_is_seeded_once(engine: Engine) -> None:
    with engine.begin() as connection:
        connection.execute(text("truncate workshop cascade"))
    sessions = sessions_of(engine)
    assert seed_demo(sessions)
    total = Rings(sessions, alone(sessions, DEMO_SLUG)).page("", 50).total
    assert total >= 6
    assert not seed_demo(sessions)
    assert Rings(sessions, alone(sessions, DEMO_SLUG)).page("", 50).total == total


def test_says_when_the_database_is_away() -> None:
    away = connect("postgresql://nobody@127.0.0.1:1/nothing")
    assert not can_keep(sessions_of(away))
    away.dispose()

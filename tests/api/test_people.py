"""People: nobody is asked anything alone; then names, roles, links that work once, and nothing of another workshop."""

import asyncio
from collections.abc import AsyncGenerator, Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlalchemy import text
from starlette.requests import Request

from pliant_coil.services import sign_in
from pliant_coil.services.scope import Actor
from pliant_coil.services.sign_in import Door
from pliant_coil.store.database import Sessions
from pliant_coil.web_api.actors import COOKIE, door_of, while_here
from tests.api.visitors import OWNER, WORDS, Visitor, invited


def reason(answer: Any) -> str:
    return str(answer.json()["errors"][0]["reason"])


def test_who_works_alone_is_asked_nothing(visitor: Visitor) -> None:
    me = visitor().get("/api/me").json()
    assert me["alone"] and me["name"] == "" and me["here"] == {**me["here"], "name": "Fernhill Bench", "role": "owner"}
    assert visitor().get("/api/people").status_code == 403
    assert visitor().post("/api/rings", json={}).status_code == 201


def test_with_the_first_name_everybody_is_asked(visitor: Visitor) -> None:
    stranger = visitor()
    assert stranger.post("/api/plan", json={}).status_code == 200
    ada = visitor()
    made = ada.post("/api/me", json=OWNER)
    cookie = made.headers["set-cookie"].lower()
    assert "httponly" in cookie and "samesite=strict" in cookie and "path=/" in cookie and "secure" not in cookie
    assert stranger.get("/api/rings").status_code == 401 and stranger.get("/api/me").status_code == 401
    assert ada.get("/api/me").json()["name"] == "Ada Fernhill"
    assert stranger.post("/api/me", json={"name": "Second", "password": WORDS}).status_code == 401
    assert ada.post("/api/me", json={"name": "Second", "password": WORDS}).status_code == 403


def test_the_first_of_two_first_people_is_the_only_one(app: FastAPI, sessions: Sessions, visitor: Visitor) -> None:
    first, second = visitor(), visitor()
    assert first.post("/api/me", json=OWNER).status_code == 204
    # A worker that hasn't heard of it still takes the second one for somebody who works alone.
    app.state.door = Door(sessions, app.state.settings.workshop, open_house=True)
    app.state.door._asks = lambda _: False
    assert second.post("/api/me", json={"name": "Second", "password": WORDS}).status_code == 403


def test_where_others_can_come_nobody_is_let_in_unasked(app: FastAPI, sessions: Sessions, visitor: Visitor) -> None:
    app.state.door = Door(sessions, app.state.settings.workshop, open_house=False)
    for path in ("/api/rings", "/api/me", "/api/styles", "/api/jobs", "/api/workshop/archive"):
        assert visitor().get(path).status_code == 401, path
    assert visitor().post("/api/me", json=OWNER).status_code == 401


def test_over_tls_the_cookie_never_goes_without(owner: TestClient, app: FastAPI) -> None:
    safe = TestClient(app, base_url="https://127.0.0.1")
    signed = safe.post("/api/sign-in", json=OWNER)
    assert signed.status_code == 204 and "secure" in signed.headers["set-cookie"].lower()


@pytest.mark.parametrize(
    ("name", "password", "field"),
    [
        ("Ada", "short", "password"),
        ("Ada", "password1234", "password"),
        ("Adaline Fernhill", "adalinefernhill1", "password"),
        ("Ada", "x" * 129, "password"),
        (" ", WORDS, "name"),
        ("a\u202eb", WORDS, "name"),
        ("n" * 61, WORDS, "name"),
    ],
)
def test_names_and_passwords_that_wont_do_are_refused(visitor: Visitor, name: str, password: str, field: str) -> None:
    refused = visitor().post("/api/me", json={"name": name, "password": password})
    assert refused.status_code == 422
    problem = refused.json()["errors"][0]
    assert problem["field"] == field and problem["accepted"] and password not in problem["reason"]


def test_signing_in_and_out(owner: TestClient, visitor: Visitor) -> None:
    other = visitor()
    assert other.post("/api/sign-in", json={**OWNER, "name": "  ada  FERNHILL "}).status_code == 204
    token = other.cookies[COOKIE]
    assert other.post("/api/sign-out").status_code == 204
    assert COOKIE not in other.cookies
    other.cookies.set(COOKIE, token)
    assert other.get("/api/me").status_code == 401, "the token itself is dead"
    third = visitor()
    third.post("/api/sign-in", json=OWNER)
    assert owner.post("/api/sign-out", params={"everywhere": True}).status_code == 204
    assert third.get("/api/me").status_code == 401


def test_a_token_is_kept_only_as_its_hash(owner: TestClient, sessions: Sessions) -> None:
    token = owner.cookies[COOKIE]
    with sessions.begin() as session:
        rows = session.execute(text("select encode(token_hash, 'hex') || person.password_hash from sign_in, person")).scalars().all()
    assert rows and all(token not in row and WORDS not in row and "$argon2id$" in row for row in rows)


def test_unused_and_old_sign_ins_end(owner: TestClient, sessions: Sessions) -> None:
    def aged(column: str, by: timedelta) -> int:
        with sessions.begin() as session:
            session.execute(text(f"update sign_in set {column} = now() - :by"), {"by": by})
        return owner.get("/api/me").status_code

    assert aged("seen_at", sign_in.IDLE - timedelta(minutes=1)) == 200
    assert aged("seen_at", sign_in.IDLE + timedelta(minutes=1)) == 401
    assert aged("seen_at", timedelta()) == 200
    assert aged("created_at", sign_in.LONGEST + timedelta(minutes=1)) == 401


def test_wrong_passwords_slow_down_and_the_right_one_waits_too(owner: TestClient, visitor: Visitor, sessions: Sessions) -> None:
    def tried(name: str, password: str) -> Any:
        return visitor().post("/api/sign-in", json={"name": name, "password": password})

    wrong = [tried("Ada Fernhill", "not this one at all") for _ in range(5)]
    assert {answer.status_code for answer in wrong} == {422}
    assert reason(wrong[0]) == reason(tried("Nobody", "not this one at all")), "whether a name is known isn't told"
    slowed = tried("Ada Fernhill", WORDS)
    assert slowed.status_code == 429 and 1 <= int(slowed.headers["retry-after"]) <= 5
    assert tried("Nobody Else", "x").status_code == 422, "others don't wait"
    with sessions.begin() as session:
        session.execute(text("update failed_sign_in set at = at - interval '10 seconds'"))
    assert tried("Ada Fernhill", WORDS).status_code == 204
    assert tried("Ada Fernhill", "not this one at all").status_code == 422, "the right one forgave what was wrong before"


def test_a_changed_password_signs_the_others_out(owner: TestClient, visitor: Visitor) -> None:
    other = visitor()
    other.post("/api/sign-in", json=OWNER)
    change = {"current": "not this one at all", "password": f"{WORDS} zinc"}
    assert owner.put("/api/me/password", json=change).json()["errors"][0]["field"] == "current"
    assert owner.put("/api/me/password", json={**change, "current": WORDS}).status_code == 204
    assert (owner.get("/api/me").status_code, other.get("/api/me").status_code) == (200, 401)
    assert other.post("/api/sign-in", json=OWNER).status_code == 422
    assert other.post("/api/sign-in", json={**OWNER, "password": f"{WORDS} zinc"}).status_code == 204


def test_a_link_works_once(owner: TestClient, visitor: Visitor) -> None:
    ben = visitor()
    link = invited(owner, ben, "Ben", "maker")
    assert ben.get("/api/me").json()["here"]["role"] == "maker"
    again = visitor()
    for path in ("look", "take"):
        body = {"token": link["token"], "name": "Carl", "password": WORDS}
        assert again.post(f"/api/links/{path}", json=body).status_code == 404
    taken_back = owner.post("/api/links", json={"role": "owner"}).json()
    assert again.post("/api/links/look", json={"token": taken_back["token"]}).json() == {
        "workshop": "Fernhill Bench",
        "role": "owner",
        "for_whom": "",
    }
    assert [each["token"] for each in owner.get("/api/people").json()["links"]] == [""], "a link is shown to its maker once"
    assert owner.delete(f"/api/links/{taken_back['id']}").status_code == 204
    assert again.post("/api/links/look", json={"token": taken_back["token"]}).status_code == 404


def test_a_link_that_is_too_old_is_dead(owner: TestClient, visitor: Visitor, sessions: Sessions) -> None:
    link = owner.post("/api/links", json={"role": "maker"}).json()
    with sessions.begin() as session:
        session.execute(text("update invitation set ends_at = now()"))
    assert visitor().post("/api/links/look", json={"token": link["token"]}).status_code == 404
    assert owner.get("/api/people").json()["links"] == []


def test_a_taken_name_needs_its_password(owner: TestClient, visitor: Visitor) -> None:
    link = owner.post("/api/links", json={"role": "viewer"}).json()
    body = {"token": link["token"], "name": "ada fernhill", "password": "something else entirely"}
    guest = visitor()
    assert guest.post("/api/links/take", json=body).json()["errors"][0]["field"] == "name"
    assert guest.post("/api/links/take", json={**body, "name": "Dot"}).status_code == 204, "and the link still works"


def test_a_viewer_looks_and_a_maker_makes(owner: TestClient, visitor: Visitor) -> None:
    ring = owner.post("/api/rings", json={}).json()
    viewer, maker = visitor(), visitor()
    invited(owner, viewer, "Vera", "viewer")
    invited(owner, maker, "Max", "maker")
    assert viewer.get(f"/api/rings/{ring['id']}").status_code == 200
    assert viewer.post("/api/plan", json={}).status_code == 200
    for forbidden in (
        viewer.post("/api/rings", json={}),
        viewer.put(f"/api/rings/{ring['id']}", json={"file": {}, "base_revision": 1}),
        viewer.delete(f"/api/rings/{ring['id']}"),
        viewer.post("/api/jobs", json={}),
        viewer.post("/api/weave-programs", json={"program": "A7 AB2", "base_wires": 2}),
        viewer.post("/api/links", json={"role": "owner"}),
        maker.post("/api/links", json={"role": "owner"}),
        maker.get("/api/people"),
    ):
        assert forbidden.status_code == 403 and reason(forbidden)
    saved = maker.put(f"/api/rings/{ring['id']}", json={"file": {}, "base_revision": 1})
    assert saved.json()["saved_by"] == "Max"
    revisions = viewer.get(f"/api/rings/{ring['id']}/revisions").json()
    assert [each["saved_by"] for each in revisions] == ["Max", "Ada Fernhill"]
    job = maker.post("/api/jobs", json={}).json()["id"]
    assert viewer.get(f"/api/jobs/{job}").json()["job"]["begun_by"] == "Max"


def test_who_leaves_is_out_at_once_and_stays_named(owner: TestClient, visitor: Visitor) -> None:
    max_ = visitor()
    invited(owner, max_, "Max", "maker")
    ring = max_.post("/api/rings", json={}).json()
    people = {each["name"]: each for each in owner.get("/api/people").json()["members"]}
    assert owner.put(f"/api/people/{people['Max']['id']}", json={"role": "viewer"}).status_code == 204
    assert max_.post("/api/rings", json={}).status_code == 403
    assert owner.delete(f"/api/people/{people['Max']['id']}").status_code == 204
    assert max_.get("/api/rings").status_code == 401
    assert owner.get(f"/api/rings/{ring['id']}").json()["saved_by"] == "Max"
    last = owner.delete(f"/api/people/{people['Ada Fernhill']['id']}")
    assert last.status_code == 422 and "owner" in reason(last)
    assert owner.put(f"/api/people/{people['Ada Fernhill']['id']}", json={"role": "maker"}).status_code == 422
    assert max_.post("/api/sign-in", json={"name": "Max", "password": f"Max {WORDS}"}).status_code == 422


async def _one_more(request: Request, actor: Actor, how_it_goes_on: Callable[[], object]) -> int:
    async def lines() -> AsyncGenerator[str]:
        yield "one"
        how_it_goes_on()
        yield "two"

    return len([line async for line in while_here(request, actor, lines())])


def test_what_is_streamed_ends_with_being_let_in(app: FastAPI, owner: TestClient, visitor: Visitor) -> None:
    max_ = visitor()
    invited(owner, max_, "Max", "maker")
    token = max_.cookies[COOKIE]
    request = Request({"type": "http", "app": app, "headers": [(b"cookie", f"{COOKIE}={token}".encode())]})
    actor = door_of(request).actor(token)
    with ThreadPoolExecutor(1) as pool:
        heard = [pool.submit(asyncio.run, _one_more(request, actor, then)).result() for then in (int, lambda: max_.post("/api/sign-out"))]
    assert heard == [2, 1]


def test_a_lost_password_is_given_anew_by_the_owner(owner: TestClient, visitor: Visitor) -> None:
    max_ = visitor()
    invited(owner, max_, "Max", "maker")
    his = next(each["id"] for each in owner.get("/api/people").json()["members"] if each["name"] == "Max")
    link = owner.post(f"/api/people/{his}/link").json()
    assert visitor().post("/api/links/look", json={"token": link["token"]}).json()["for_whom"] == "Max"
    anew = visitor()
    assert anew.post("/api/links/take", json={"token": link["token"], "password": f"{WORDS} fresh"}).status_code == 204
    assert anew.get("/api/me").json()["name"] == "Max"
    assert max_.get("/api/me").status_code == 401, "whoever had the old one is out"


def test_an_owner_has_no_say_over_passwords_of_another_workshop(owner: TestClient, visitor: Visitor) -> None:
    max_ = visitor()
    invited(owner, max_, "Max", "owner")
    his = next(each["id"] for each in owner.get("/api/people").json()["members"] if each["name"] == "Max")
    own = max_.post("/api/workshops", json={"name": "Quintet corner"}).json()["workshop_id"]
    refused = owner.post(f"/api/people/{his}/link")
    assert refused.status_code == 403 and "./people" in reason(refused)
    assert max_.put("/api/me/workshop", json={"workshop_id": own}).status_code == 204
    me = max_.get("/api/me").json()
    assert (me["here"]["name"], len(me["places"])) == ("Quintet corner", 2)
    assert max_.get("/api/rings").json()["total"] == 0
    assert owner.put("/api/me/workshop", json={"workshop_id": own}).status_code == 404


def test_preferences_go_with_a_person(owner: TestClient, visitor: Visitor) -> None:
    wanted = {"units": "in", "systems": ["uk", "us"], "hand": True, "words": "few"}
    assert owner.put("/api/me/preferences", json=wanted).status_code == 204
    other = visitor()
    other.post("/api/sign-in", json=OWNER)
    assert other.get("/api/me").json()["preferences"] == wanted

"""People: who is here, signing in and out, and for an owner who else works here."""

from functools import partial
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Depends, Request, Response

from pliant_coil.services.people import Links, People
from pliant_coil.web_api.actors import WHO, TheActor, TheDoor, TheSource, TheToken, hand_over, remember_device, take_away
from pliant_coil.web_api.heavy import ThePasswords
from pliant_coil.web_api.people_told import (
    LinkShown,
    LinkTaken,
    LinkTold,
    MemberTold,
    MeTold,
    OfferTold,
    PasswordChange,
    PasswordGiven,
    PeopleTold,
    PlaceTold,
    Preferences,
    RoleGiven,
    SignIn,
    WorkshopChosen,
    WorkshopOpened,
)
from pliant_coil.web_api.problems import BUSY, MISSING, REFUSED, SLOWED

at_the_door = APIRouter(tags=["people"])
"""What is answered to somebody who hasn't said who they are."""
router = APIRouter(tags=["people"], responses=WHO)


async def _people(request: Request, actor: TheActor) -> People:
    return People(request.app.state.sessions, actor)


async def _links(request: Request) -> Links:
    return Links(request.app.state.sessions)


ThePeople = Annotated[People, Depends(_people)]
TheLinks = Annotated[Links, Depends(_links)]


@at_the_door.post("/sign-in", status_code=204, responses=REFUSED | SLOWED | BUSY)
async def sign_in(who: SignIn, door: TheDoor, passwords: ThePasswords, request: Request, response: Response, source: TheSource) -> None:
    """Say who you are; the browser is given a cookie that no page can read."""

    def signed_in() -> tuple[str, str]:
        return door.sign_in(who.name, who.password.get_secret_value(), source), door.device(source.device, who.name)

    token, device = await passwords.run(signed_in)
    hand_over(response, request, token)
    remember_device(response, request, device)


@at_the_door.post("/links/look", responses=REFUSED | MISSING)
def look(link: LinkShown, links: TheLinks) -> OfferTold:
    """What a link that somebody was given offers."""
    return OfferTold.model_validate(links.look(link.token.get_secret_value()))


@at_the_door.post("/links/take", status_code=204, responses=REFUSED | MISSING | SLOWED | BUSY)
async def take(link: LinkTaken, links: TheLinks, passwords: ThePasswords, request: Request, response: Response, source: TheSource) -> None:
    """Use a link, once: come into its workshop, or have a new password."""
    token, password = link.token.get_secret_value(), link.password.get_secret_value()
    hand_over(response, request, await passwords.run(partial(links.take, token, link.name, password, source)))


@router.get("/me", responses=MISSING)
def me(door: TheDoor, token: TheToken) -> MeTold:
    """Who asks, where they are, and how they read figures."""
    found = door.me(token)
    return MeTold(
        alone=found.actor.person_id is None,
        person_id=found.actor.person_id,
        name=found.name,
        here=PlaceTold.model_validate(found.here),
        places=[PlaceTold.model_validate(place) for place in found.places],
        preferences=found.preferences,
    )


@router.post("/me", status_code=204, responses=REFUSED | MISSING | BUSY)
async def first(who: SignIn, people: ThePeople, passwords: ThePasswords, request: Request, response: Response) -> None:
    """Give whoever works here alone a name; from now on everybody says who they are."""
    hand_over(response, request, await passwords.run(partial(people.first, who.name, who.password.get_secret_value())))


@router.get("/me/export")
def export(door: TheDoor, token: TheToken, response: Response) -> dict[str, Any]:
    """All that is kept of you, to take with you."""
    response.headers["content-disposition"] = 'attachment; filename="about-me.json"'
    return door.export(token)


@router.post("/me/erase", status_code=204, responses=REFUSED | SLOWED | BUSY)
async def erase(
    sure: PasswordGiven, door: TheDoor, token: TheToken, passwords: ThePasswords, request: Request, response: Response, source: TheSource
) -> None:
    """Be forgotten: what you made stays, as somebody's. There is no way back."""
    await passwords.run(partial(door.erase, token, sure.password.get_secret_value(), source))
    take_away(response, request)


@router.post("/sign-out", status_code=204)
def sign_out(door: TheDoor, token: TheToken, request: Request, response: Response, everywhere: bool = False) -> None:
    """This browser forgets who is here; with `everywhere` all of that person's do."""
    door.sign_out(token, everywhere=everywhere)
    take_away(response, request)


@router.put("/me/password", status_code=204, responses=REFUSED | SLOWED | BUSY)
async def change_password(change: PasswordChange, door: TheDoor, token: TheToken, passwords: ThePasswords, source: TheSource) -> None:
    """A new password; other browsers are signed out."""
    current, new = change.current.get_secret_value(), change.password.get_secret_value()
    await passwords.run(partial(door.change_password, token, current, new, source))


@router.put("/me/preferences", status_code=204, responses=REFUSED)
def prefer(preferences: Preferences, door: TheDoor, token: TheToken) -> None:
    """Keep how somebody reads figures."""
    door.prefer(token, preferences.model_dump())


@router.put("/me/workshop", status_code=204, responses=REFUSED | MISSING)
def go(chosen: WorkshopChosen, door: TheDoor, token: TheToken) -> None:
    """Go to another workshop that you work in."""
    door.go(token, chosen.workshop_id)


@router.post("/workshops", status_code=201, responses=REFUSED | MISSING)
def open_workshop(opened: WorkshopOpened, people: ThePeople) -> WorkshopChosen:
    """Open another workshop in this server; you own it."""
    return WorkshopChosen(workshop_id=people.open_workshop(opened.name))


@router.get("/people", responses=MISSING)
def everybody(people: ThePeople) -> PeopleTold:
    """Who works here."""
    members, links = people.all()
    return PeopleTold(members=[MemberTold.model_validate(m) for m in members], links=[LinkTold.model_validate(link) for link in links])


@router.put("/people/{person_id}", status_code=204, responses=REFUSED | MISSING)
def make(person_id: UUID, given: RoleGiven, people: ThePeople) -> None:
    """Give somebody another role."""
    people.make(person_id, given.role)


@router.delete("/people/{person_id}", status_code=204, responses=REFUSED | MISSING)
def let_go(person_id: UUID, people: ThePeople) -> None:
    """Somebody works here no longer; what they made stays."""
    people.let_go(person_id)


@router.post("/people/{person_id}/link", status_code=201, responses=REFUSED | MISSING)
def password_link(person_id: UUID, people: ThePeople) -> LinkTold:
    """A link to a new password for somebody who lost theirs."""
    return LinkTold.model_validate(people.password_link(person_id))


@router.post("/links", status_code=201, responses=REFUSED | MISSING)
def invite(given: RoleGiven, people: ThePeople) -> LinkTold:
    """A link by which one more person comes in, once."""
    return LinkTold.model_validate(people.invite(given.role))


@router.delete("/links/{link_id}", status_code=204, responses=REFUSED | MISSING)
def take_back(link_id: UUID, people: ThePeople) -> None:
    """A link works no longer."""
    people.take_back(link_id)

"""What the API takes and gives about people."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, SecretStr

from pliant_coil.core.ring_file.document import Text
from pliant_coil.services.scope import Role

Name = Annotated[Text, Field(max_length=200)]
Password = Annotated[SecretStr, Field(max_length=500)]
Token = Annotated[SecretStr, Field(max_length=200)]


class SignIn(BaseModel):
    """Who somebody is."""

    name: Name
    password: Password


class PasswordChange(BaseModel):
    """A new password for whoever is signed in."""

    current: Password
    password: Password


class PasswordGiven(BaseModel):
    """The password of whoever is signed in, for what can't be taken back."""

    password: Password


class LinkShown(BaseModel):
    """A link that was opened."""

    token: Token


class LinkTaken(SignIn):
    """A link that is used, and by whom; without a name for a new password."""

    name: Name = ""
    token: Token


class PlaceTold(BaseModel):
    """A workshop that somebody works in, and as what."""

    model_config = ConfigDict(from_attributes=True)

    workshop_id: UUID
    name: str
    role: Role


class MeTold(BaseModel):
    """Who asks. `alone`: nobody is asked for a name here."""

    alone: bool
    person_id: UUID | None
    name: str
    here: PlaceTold
    places: list[PlaceTold]
    preferences: dict[str, Any]


class Preferences(BaseModel):
    """How somebody reads figures, and whether plans reckon with their hand."""

    units: Literal["mm", "in"]
    systems: Annotated[list[Annotated[str, Field(max_length=4)]], Field(min_length=2, max_length=2)]
    hand: bool
    words: Literal["many", "usual", "few"] = "usual"
    """How much a bench says."""


class MemberTold(BaseModel):
    """Somebody who works in a workshop."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    name: str
    role: Role
    since: datetime


class LinkTold(BaseModel):
    """A link that works once; its token is told only when it is made."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    role: Role
    ends_at: datetime
    for_whom: str
    token: str


class PeopleTold(BaseModel):
    """The people of a workshop, and the links that nobody has used yet."""

    members: list[MemberTold]
    links: list[LinkTold]


class OfferTold(BaseModel):
    """What a link offers."""

    model_config = ConfigDict(from_attributes=True)

    workshop: str
    role: Role
    for_whom: str


class RoleGiven(BaseModel):
    """As what somebody works."""

    role: Role


class WorkshopOpened(BaseModel):
    """Another workshop."""

    name: Name


class WorkshopChosen(BaseModel):
    """The workshop to go to."""

    workshop_id: UUID

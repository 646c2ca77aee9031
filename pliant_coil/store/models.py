"""The tables. Every row belongs to a workshop; times carry their zone."""

from datetime import datetime
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    Computed,
    DateTime,
    ForeignKey,
    ForeignKeyConstraint,
    Identity,
    Index,
    MetaData,
    ScalarSelect,
    String,
    Text,
    UniqueConstraint,
    func,
    select,
    text,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, column_property, mapped_column

from pliant_coil.core.bench.batch import BatchKind
from pliant_coil.core.bench.progress import State
from pliant_coil.core.trade.own_mandrel import MandrelKind


class Base(DeclarativeBase):
    """Names constraints by rule, so that migrations can find them."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_N_label)s",
            "uq": "uq_%(table_name)s_%(column_0_N_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map = {datetime: DateTime(timezone=True), dict[str, Any]: JSONB, list[dict[str, Any]]: JSONB}  # noqa: RUF012 (SQLAlchemy's own form)


def _of_one_workshop(column: str, whole: str) -> ForeignKeyConstraint:
    """A part belongs to a whole of its own workshop, and the database refuses any other."""
    return ForeignKeyConstraint(["workshop_id", column], [f"{whole}.workshop_id", f"{whole}.id"])


class Workshop(Base):
    """Whose bench it is."""

    __tablename__ = "workshop"

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    slug: Mapped[str] = mapped_column(unique=True)
    name: Mapped[str]
    hand_from: Mapped[datetime | None]
    """Records from before say nothing of the hand any more: other pliers, another wire."""
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())


class Person(Base):
    """Somebody who works here, under a name that nobody else on this server has."""

    __tablename__ = "person"

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    name: Mapped[str]
    name_key: Mapped[str] = mapped_column(unique=True)
    """The name as it is looked for: without its capitals and its extra blanks."""
    password_hash: Mapped[str]
    preferences: Mapped[dict[str, Any]]
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    erased_at: Mapped[datetime | None]
    """When they asked to be forgotten: what they made stays as somebody's."""


def _name_of(person_id: Any) -> ScalarSelect[str]:
    """The name of somebody who may have left; nothing else of people is seen from inside a workshop."""
    return select(Person.name).where(Person.id == person_id).correlate_except(Person).scalar_subquery()


class Membership(Base):
    """Who works in which workshop, and as what. Who has left stays named in what they made."""

    __tablename__ = "membership"
    __table_args__ = (CheckConstraint("role in ('owner', 'maker', 'viewer')", name="role_is_known"),)

    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"), primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"), primary_key=True, index=True)
    role: Mapped[str]
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    left_at: Mapped[datetime | None]


class SignIn(Base):
    """A browser in which somebody is signed in; the cookie's token itself is kept nowhere."""

    __tablename__ = "sign_in"

    token_hash: Mapped[bytes] = mapped_column(primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"), index=True)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    """The workshop that they are in just now."""
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    seen_at: Mapped[datetime] = mapped_column(server_default=func.now())


class Invitation(Base):
    """A link that works once: into a workshop, or for somebody who is there already, to a new password."""

    __tablename__ = "invitation"
    __table_args__ = (CheckConstraint("role in ('owner', 'maker', 'viewer')", name="role_is_known"),)

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    token_hash: Mapped[bytes] = mapped_column(unique=True)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    role: Mapped[str]
    person_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    """Whose password it is for."""
    invited_by: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    ends_at: Mapped[datetime]


class FailedSignIn(Base):
    """A wrong password: for a name, and from an address. Kept for as long as it slows anybody down."""

    __tablename__ = "failed_sign_in"
    __table_args__ = (Index("ix_failed_sign_in_whose_at", "whose", "at"),)

    id: Mapped[int] = mapped_column(BigInteger, Identity(), primary_key=True)
    whose: Mapped[str]
    at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())


class Ring(Base):
    """A saved ring: what is searched and listed. The ring itself stands in its revisions."""

    __tablename__ = "ring"
    __table_args__ = (
        Index("ix_ring_workshop_recent", "workshop_id", "updated_at", "id"),
        Index("ix_ring_words", "words", postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"}),
        CheckConstraint("revision >= 1", name="revision_counts_from_one"),
        UniqueConstraint("workshop_id", "saved_as"),
        UniqueConstraint("workshop_id", "id"),
    )

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    title: Mapped[str]
    band_style: Mapped[str]
    head_style: Mapped[str]
    inside_circumference_mm: Mapped[float]
    sentence: Mapped[str]
    revision: Mapped[int]
    """Number of the newest revision: what a later save must be based on."""
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    updated_at: Mapped[datetime] = mapped_column(server_default=func.now())
    deleted_at: Mapped[datetime | None]
    saved_as: Mapped[UUID | None]
    """What the sender called this ring when it was new: sent again, it is found, not saved twice."""
    saved_digest: Mapped[bytes | None] = mapped_column(deferred=True)
    words: Mapped[str] = mapped_column(
        Text, Computed("lower(title || ' ' || sentence || ' ' || band_style || ' ' || head_style)", persisted=True)
    )
    """All that is searched, in small letters."""


class RingRevision(Base):
    """A ring file as it was saved, validated; never changed afterwards."""

    __tablename__ = "ring_revision"
    __table_args__ = (UniqueConstraint("ring_id", "number"), UniqueConstraint("ring_id", "saved_as"), _of_one_workshop("ring_id", "ring"))

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    ring_id: Mapped[UUID]
    number: Mapped[int]
    file: Mapped[dict[str, Any]]
    saved_as: Mapped[UUID | None]
    saved_digest: Mapped[bytes | None] = mapped_column(deferred=True)
    author_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    author: Mapped[str | None] = column_property(_name_of(author_id))
    """The name of whoever saved it."""


class WeaveProgram(Base):
    """A weave program that the workshop keeps, beside the usual ones."""

    __tablename__ = "weave_program"
    __table_args__ = (UniqueConstraint("workshop_id", "program", "base_wires", name="uq_weave_program_workshop_id_program_base_wires"),)

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    program: Mapped[str]
    base_wires: Mapped[int]
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())


class Batch(Base):
    """Several rings of one plan, each with a job of its own: made ring by ring or stage by stage, or a class."""

    __tablename__ = "batch"
    __table_args__ = (
        UniqueConstraint("workshop_id", "saved_as"),
        UniqueConstraint("workshop_id", "id"),
        CheckConstraint("kind in ('by_ring', 'by_stage', 'class')", name="kind_is_known"),
    )

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    title: Mapped[str]
    kind: Mapped[BatchKind] = mapped_column(String)
    file: Mapped[dict[str, Any]]
    """The plan that they share; each job has its own finger in it."""
    saved_as: Mapped[UUID | None]
    saved_digest: Mapped[bytes | None] = mapped_column(deferred=True)
    author_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())


class Job(Base):
    """A ring at the bench, as it was planned when it was begun. What happened to it stands in its events."""

    __tablename__ = "job"
    __table_args__ = (
        Index("ix_job_workshop_state", "workshop_id", "state", "updated_at", "id"),
        Index("ix_job_ended_recent", "workshop_id", "updated_at", "id", postgresql_where=text("state <> 'open'")),
        Index("ix_job_words", "words", postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"}),
        UniqueConstraint("workshop_id", "saved_as"),
        UniqueConstraint("workshop_id", "id"),
        _of_one_workshop("ring_id", "ring"),
        _of_one_workshop("batch_id", "batch"),
        CheckConstraint("state in ('open', 'finished', 'spoiled', 'set_aside')", name="state_is_known"),
    )

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    ring_id: Mapped[UUID | None]
    title: Mapped[str]
    sentence: Mapped[str]
    file: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True), deferred=True)
    """None for a record from an old notebook, which has no plan. A tap, and a list, need none."""
    predicted: Mapped[dict[str, Any]] = mapped_column(deferred=True)
    core_version: Mapped[str]
    state: Mapped[State] = mapped_column(String)
    number: Mapped[int]
    """Number of the newest event."""
    record: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True))
    saved_as: Mapped[UUID | None]
    saved_digest: Mapped[bytes | None] = mapped_column(deferred=True)
    author_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    """Who took it to the bench."""
    batch_id: Mapped[UUID | None] = mapped_column(index=True)
    for_whom: Mapped[str] = mapped_column(server_default="")
    """Whose ring it will be, or whose bench it is in a class."""
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    updated_at: Mapped[datetime] = mapped_column(server_default=func.now())
    ended_at: Mapped[datetime | None]
    author: Mapped[str | None] = column_property(_name_of(author_id))
    has_plan: Mapped[bool] = column_property(file.is_not(None))
    words: Mapped[str] = mapped_column(Text, Computed("lower(title || ' ' || sentence)", persisted=True), deferred=True)
    """All that is searched, in small letters."""


class JobEvent(Base):
    """One thing that happened at the bench; never changed, never deleted."""

    __tablename__ = "job_event"
    __table_args__ = (UniqueConstraint("job_id", "client_id"), _of_one_workshop("job_id", "job"))

    job_id: Mapped[UUID] = mapped_column(primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    author_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    client_id: Mapped[UUID]
    event: Mapped[dict[str, Any]]
    received_at: Mapped[datetime] = mapped_column(server_default=func.now())


class Photo(Base):
    """A picture of a ring at the bench, encoded anew by the server. Its id is its sender's: sent again, it is kept once."""

    __tablename__ = "photo"
    __table_args__ = (Index("ix_photo_job_id_created_at", "job_id", "created_at"), _of_one_workshop("job_id", "job"))

    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"), primary_key=True)
    id: Mapped[UUID] = mapped_column(primary_key=True)
    job_id: Mapped[UUID]
    task: Mapped[str]
    """The step at which it was taken."""
    width: Mapped[int]
    height: Mapped[int]
    jpeg: Mapped[bytes] = mapped_column(deferred=True)
    author_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    created_at: Mapped[datetime] = mapped_column(server_default=func.clock_timestamp())
    deleted_at: Mapped[datetime | None]
    sent_digest: Mapped[bytes | None] = mapped_column(deferred=True)
    """Of what was sent under this name: something else under the same one isn't this photo."""


class Secret(Base):
    """What the server signs with: of its own making, and never told to anybody."""

    __tablename__ = "secret"

    name: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[bytes]


class Mandrel(Base):
    """A workshop's own mandrel, with what it measures at its marks."""

    __tablename__ = "mandrel"
    __table_args__ = (
        UniqueConstraint("workshop_id", "name"),
        CheckConstraint("kind in ('tapered', 'grooved', 'stepped')", name="kind_is_known"),
    )

    id: Mapped[UUID] = mapped_column(primary_key=True, default=uuid4)
    workshop_id: Mapped[UUID] = mapped_column(ForeignKey("workshop.id"))
    name: Mapped[str]
    kind: Mapped[MandrelKind] = mapped_column(String)
    marks: Mapped[list[dict[str, Any]]]
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())

"""Rings at the bench: a job each, with what happened to it, and its record when it has ended."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    now = sa.func.now()
    op.create_table(
        "job",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("ring_id", sa.Uuid, nullable=True),
        sa.Column("title", sa.String, nullable=False),
        sa.Column("sentence", sa.String, nullable=False),
        sa.Column("file", JSONB, nullable=False),
        sa.Column("predicted", JSONB, nullable=False),
        sa.Column("core_version", sa.String, nullable=False),
        sa.Column("state", sa.String, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("record", JSONB, nullable=True),
        sa.Column("saved_as", sa.Uuid, nullable=True),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.Column("updated_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.Column("ended_at", sa.DateTime(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_job"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_job_workshop_id_workshop"),
        sa.ForeignKeyConstraint(["ring_id"], ["ring.id"], name="fk_job_ring_id_ring"),
        sa.UniqueConstraint("workshop_id", "saved_as", name="uq_job_workshop_id_saved_as"),
        sa.CheckConstraint("state in ('open', 'finished', 'spoiled', 'set_aside')", name="ck_job_state_is_known"),
    )
    op.create_index("ix_job_workshop_state", "job", ["workshop_id", "state", "updated_at", "id"])
    op.create_table(
        "job_event",
        sa.Column("job_id", sa.Uuid, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("client_id", sa.Uuid, nullable=False),
        sa.Column("event", JSONB, nullable=False),
        sa.Column("received_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.PrimaryKeyConstraint("job_id", "number", name="pk_job_event"),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_job_event_job_id_job"),
        sa.UniqueConstraint("job_id", "client_id", name="uq_job_event_job_id_client_id"),
    )

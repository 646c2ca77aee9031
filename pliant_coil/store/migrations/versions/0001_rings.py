"""Workshops, rings and their revisions."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    now = sa.func.now()
    op.create_table(
        "workshop",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("slug", sa.String, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_workshop"),
        sa.UniqueConstraint("slug", name="uq_workshop_slug"),
    )
    op.create_table(
        "ring",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("title", sa.String, nullable=False),
        sa.Column("band_style", sa.String, nullable=False),
        sa.Column("head_style", sa.String, nullable=False),
        sa.Column("inside_circumference_mm", sa.Float, nullable=False),
        sa.Column("sentence", sa.String, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.Column("updated_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.Column("deleted_at", sa.DateTime(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_ring"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_ring_workshop_id_workshop"),
        sa.CheckConstraint("revision >= 1", name="ck_ring_revision_counts_from_one"),
    )
    op.create_index("ix_ring_workshop_recent", "ring", ["workshop_id", "updated_at"])
    op.create_table(
        "ring_revision",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("ring_id", sa.Uuid, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("file", JSONB, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=now, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_ring_revision"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_ring_revision_workshop_id_workshop"),
        sa.ForeignKeyConstraint(["ring_id"], ["ring.id"], name="fk_ring_revision_ring_id_ring"),
        sa.UniqueConstraint("ring_id", "number", name="uq_ring_revision_ring_id_number"),
    )

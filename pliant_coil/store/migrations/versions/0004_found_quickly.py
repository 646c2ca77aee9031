"""Rings are found by any part of a word, however many there are; a revision that is sent twice is saved once."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("create extension if not exists pg_trgm")
    words = sa.Computed("lower(title || ' ' || sentence || ' ' || band_style || ' ' || head_style)", persisted=True)
    op.add_column("ring", sa.Column("words", sa.Text, words, nullable=False))
    op.create_index("ix_ring_words", "ring", ["words"], postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"})
    op.drop_index("ix_ring_workshop_recent", "ring")
    op.create_index("ix_ring_workshop_recent", "ring", ["workshop_id", "updated_at", "id"])
    op.add_column("ring_revision", sa.Column("saved_as", sa.Uuid, nullable=True))
    op.create_unique_constraint("uq_ring_revision_ring_id_saved_as", "ring_revision", ["ring_id", "saved_as"])

"""A ring that is sent twice because an answer was lost is saved once."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("ring", sa.Column("saved_as", sa.Uuid, nullable=True))
    op.create_unique_constraint("uq_ring_workshop_id_saved_as", "ring", ["workshop_id", "saved_as"])

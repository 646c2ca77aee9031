"""Since when the hand of a workshop is learned: new pliers or another wire begin it anew."""

import sqlalchemy as sa
from alembic import op

from pliant_coil.store.database import WORKER

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("workshop", sa.Column("hand_from", sa.DateTime(timezone=True), nullable=True))
    op.execute(f"grant update (hand_from) on workshop to {WORKER}")

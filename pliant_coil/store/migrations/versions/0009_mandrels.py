"""A workshop's own mandrels, with what they measure at their marks."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

from pliant_coil.store.database import WORKER

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "mandrel",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("marks", JSONB, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_mandrel"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_mandrel_workshop_id_workshop"),
        sa.UniqueConstraint("workshop_id", "name", name="uq_mandrel_workshop_id_name"),
        sa.CheckConstraint("kind in ('tapered', 'grooved', 'stepped')", name="ck_mandrel_kind_is_known"),
    )
    op.execute("alter table mandrel enable row level security")
    op.execute("create policy own_workshop on mandrel using (workshop_id = current_workshop())")
    op.execute(f"grant select, insert, update, delete on mandrel to {WORKER}")

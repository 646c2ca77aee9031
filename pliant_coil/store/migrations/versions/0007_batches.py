"""Several rings of one plan: a batch that is made stage by stage, or a class."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

from pliant_coil.store.database import WORKER

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "batch",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("title", sa.String, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("file", JSONB, nullable=False),
        sa.Column("saved_as", sa.Uuid, nullable=True),
        sa.Column("author_id", sa.Uuid, nullable=True),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_batch"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_batch_workshop_id_workshop"),
        sa.ForeignKeyConstraint(["author_id"], ["person.id"], name="fk_batch_author_id_person"),
        sa.UniqueConstraint("workshop_id", "saved_as", name="uq_batch_workshop_id_saved_as"),
        sa.CheckConstraint("kind in ('by_ring', 'by_stage', 'class')", name="ck_batch_kind_is_known"),
    )
    op.add_column("job", sa.Column("batch_id", sa.Uuid, nullable=True))
    op.add_column("job", sa.Column("for_whom", sa.String, server_default="", nullable=False))
    op.create_foreign_key("fk_job_batch_id_batch", "job", "batch", ["batch_id"], ["id"])
    op.create_index("ix_job_batch_id", "job", ["batch_id"])
    op.execute("alter table batch enable row level security")
    op.execute("create policy own_workshop on batch using (workshop_id = current_workshop())")
    op.execute(f"grant select, insert, update, delete on batch to {WORKER}")

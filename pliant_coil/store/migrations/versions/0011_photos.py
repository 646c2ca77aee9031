"""Photos of rings, and records that come from an old notebook: they have no plan."""

import sqlalchemy as sa
from alembic import op

from pliant_coil.store.database import WORKER

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "photo",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("job_id", sa.Uuid, nullable=False),
        sa.Column("task", sa.String, nullable=False),
        sa.Column("width", sa.Integer, nullable=False),
        sa.Column("height", sa.Integer, nullable=False),
        sa.Column("jpeg", sa.LargeBinary, nullable=False),
        sa.Column("author_id", sa.Uuid, nullable=True),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.func.clock_timestamp(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_photo"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_photo_workshop_id_workshop"),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_photo_job_id_job"),
        sa.ForeignKeyConstraint(["author_id"], ["person.id"], name="fk_photo_author_id_person"),
    )
    op.create_index("ix_photo_job_id_created_at", "photo", ["job_id", "created_at"])
    op.execute("alter table photo enable row level security")
    op.execute("create policy own_workshop on photo using (workshop_id = current_workshop())")
    op.execute(f"grant select, insert, update, delete on photo to {WORKER}")
    op.alter_column("job", "file", nullable=True)

"""A workshop's own weave programs."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "weave_program",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("program", sa.String, nullable=False),
        sa.Column("base_wires", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_weave_program"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_weave_program_workshop_id_workshop"),
        sa.UniqueConstraint("workshop_id", "program", "base_wires", name="uq_weave_program_workshop_id_program_base_wires"),
    )

"""What belongs together is held together by the database itself: a part's workshop is its whole's, a key's body is known, none is NULL."""

import sqlalchemy as sa
from alembic import op

from pliant_coil.store.database import WORKER

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

WHOLES = ("ring", "job", "batch")
PARTS = (
    ("ring_revision", "ring_id", "ring"),
    ("job", "ring_id", "ring"),
    ("job", "batch_id", "batch"),
    ("job_event", "job_id", "job"),
    ("photo", "job_id", "job"),
)
KEYED = ("ring", "ring_revision", "job", "batch")


def upgrade() -> None:
    # A ring that was taken up again had JSON's null for its record, which is a value.
    op.execute("update job set record = null where record = 'null'::jsonb")
    for whole in WHOLES:
        op.create_unique_constraint(f"uq_{whole}_workshop_id_id", whole, ["workshop_id", "id"])
    for part, column, whole in PARTS:
        op.drop_constraint(f"fk_{part}_{column}_{whole}", part, type_="foreignkey")
        op.create_foreign_key(f"fk_{part}_workshop_id_{whole}", part, whole, ["workshop_id", column], ["workshop_id", "id"])
    # What a sender calls a photo is told apart by workshop, as every other key is.
    op.drop_constraint("pk_photo", "photo", type_="primary")
    op.create_primary_key("pk_photo", "photo", ["workshop_id", "id"])
    for table in KEYED:
        op.add_column(table, sa.Column("saved_digest", sa.LargeBinary, nullable=True))
    op.add_column("photo", sa.Column("sent_digest", sa.LargeBinary, nullable=True))
    op.create_table(
        "secret",
        sa.Column("name", sa.String, nullable=False),
        sa.Column("value", sa.LargeBinary, nullable=False),
        sa.PrimaryKeyConstraint("name", name="pk_secret"),
    )
    op.execute(f"revoke all on secret from {WORKER}")
    op.add_column("person", sa.Column("erased_at", sa.DateTime(timezone=True), nullable=True))

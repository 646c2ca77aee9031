"""Photos of rings; records that come from an old notebook, which have no plan; a logbook that is filtered while it is searched."""

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
    op.execute("drop function jobs_with(text[], boolean, timestamptz, uuid, integer)")
    # Which states: 'ended' is all but the open one.
    op.execute(
        """
        create function jobs_with(patterns text[], which text, before_at timestamptz, before_id uuid, most integer)
        returns setof uuid stable language plpgsql security definer set search_path = public, pg_temp as $$
        declare
            wanted text := '';
            pattern text;
        begin
            foreach pattern in array patterns loop
                wanted := wanted || format(' and words like %L', pattern);
            end loop;
            if which = 'ended' then
                wanted := wanted || format(' and state <> %L', 'open');
            else
                wanted := wanted || format(' and state = %L', which);
            end if;
            if before_at is not null then
                wanted := wanted || format(' and (updated_at, id) < (%L::timestamptz, %L::uuid)', before_at, before_id);
            end if;
            return query execute format(
                'select id from job where workshop_id = %L%s order by updated_at desc, id desc limit %s',
                current_workshop(), wanted, most
            );
        end $$
        """
    )
    op.execute("revoke all on function jobs_with(text[], text, timestamptz, uuid, integer) from public")
    op.execute(f"grant execute on function jobs_with(text[], text, timestamptz, uuid, integer) to {WORKER}")

"""A logbook of a hundred thousand rings is opened and searched as quickly as one of ten."""

import sqlalchemy as sa
from alembic import op

from pliant_coil.store.database import WORKER

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    words = sa.Computed("lower(title || ' ' || sentence)", persisted=True)
    op.add_column("job", sa.Column("words", sa.Text, words, nullable=False))
    op.create_index("ix_job_words", "job", ["words"], postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"})
    op.create_index("ix_job_ended_recent", "job", ["workshop_id", "updated_at", "id"], postgresql_where=sa.text("state <> 'open'"))
    # As for rings: policies keep `like` from its index, so the owner looks, in the transaction's own workshop and in no other.
    op.execute(
        """
        create function jobs_with(patterns text[], ended boolean, before_at timestamptz, before_id uuid, most integer)
        returns setof uuid stable language plpgsql security definer set search_path = public, pg_temp as $$
        declare
            wanted text := '';
            pattern text;
        begin
            foreach pattern in array patterns loop
                wanted := wanted || format(' and words like %L', pattern);
            end loop;
            if before_at is not null then
                wanted := wanted || format(' and (updated_at, id) < (%L::timestamptz, %L::uuid)', before_at, before_id);
            end if;
            return query execute format(
                'select id from job where workshop_id = %L and state %s ''open''%s order by updated_at desc, id desc limit %s',
                current_workshop(), case when ended then '<>' else '=' end, wanted, most
            );
        end $$
        """
    )
    op.execute("revoke all on function jobs_with(text[], boolean, timestamptz, uuid, integer) from public")
    op.execute(f"grant execute on function jobs_with(text[], boolean, timestamptz, uuid, integer) to {WORKER}")

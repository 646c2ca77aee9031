"""A job that changes is told of by its table, whoever changed it: a tap needs no statement of its own for that."""

from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute(
        """
        create function job_changed() returns trigger language plpgsql as $$
        begin
            perform pg_notify('pliant_coil_jobs', new.id || ' ' || new.number);
            if new.batch_id is not null then
                perform pg_notify('pliant_coil_jobs', new.batch_id || ' ' || new.number);
            end if;
            return null;
        end $$
        """
    )
    op.execute("create trigger job_changed after update of updated_at on job for each row execute function job_changed()")

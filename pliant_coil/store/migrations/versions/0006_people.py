"""People: who works in which workshop, and as what. From here on the database itself keeps workshops apart."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

from pliant_coil.store.database import WORKER, Unfit

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

KEPT_APART = ("ring", "ring_revision", "weave_program", "job", "job_event")


def upgrade() -> None:
    _worker()
    now = sa.func.now()
    time = sa.DateTime(timezone=True)
    op.create_table(
        "person",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("name_key", sa.String, nullable=False),
        sa.Column("password_hash", sa.String, nullable=False),
        sa.Column("preferences", JSONB, nullable=False),
        sa.Column("created_at", time, server_default=now, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_person"),
        sa.UniqueConstraint("name_key", name="uq_person_name_key"),
    )
    op.create_table(
        "membership",
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("person_id", sa.Uuid, nullable=False),
        sa.Column("role", sa.String, nullable=False),
        sa.Column("created_at", time, server_default=now, nullable=False),
        sa.Column("left_at", time, nullable=True),
        sa.PrimaryKeyConstraint("workshop_id", "person_id", name="pk_membership"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_membership_workshop_id_workshop"),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name="fk_membership_person_id_person"),
        sa.CheckConstraint("role in ('owner', 'maker', 'viewer')", name="ck_membership_role_is_known"),
    )
    op.create_index("ix_membership_person_id", "membership", ["person_id"])
    op.create_table(
        "sign_in",
        sa.Column("token_hash", sa.LargeBinary, nullable=False),
        sa.Column("person_id", sa.Uuid, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("created_at", time, server_default=now, nullable=False),
        sa.Column("seen_at", time, server_default=now, nullable=False),
        sa.PrimaryKeyConstraint("token_hash", name="pk_sign_in"),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name="fk_sign_in_person_id_person"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_sign_in_workshop_id_workshop"),
    )
    op.create_index("ix_sign_in_person_id", "sign_in", ["person_id"])
    op.create_table(
        "invitation",
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("token_hash", sa.LargeBinary, nullable=False),
        sa.Column("workshop_id", sa.Uuid, nullable=False),
        sa.Column("role", sa.String, nullable=False),
        sa.Column("person_id", sa.Uuid, nullable=True),
        sa.Column("invited_by", sa.Uuid, nullable=True),
        sa.Column("created_at", time, server_default=now, nullable=False),
        sa.Column("ends_at", time, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_invitation"),
        sa.UniqueConstraint("token_hash", name="uq_invitation_token_hash"),
        sa.ForeignKeyConstraint(["workshop_id"], ["workshop.id"], name="fk_invitation_workshop_id_workshop"),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name="fk_invitation_person_id_person"),
        sa.ForeignKeyConstraint(["invited_by"], ["person.id"], name="fk_invitation_invited_by_person"),
        sa.CheckConstraint("role in ('owner', 'maker', 'viewer')", name="ck_invitation_role_is_known"),
    )
    op.create_table(
        "failed_sign_in",
        sa.Column("id", sa.BigInteger, sa.Identity(), nullable=False),
        sa.Column("whose", sa.String, nullable=False),
        sa.Column("at", time, server_default=sa.func.clock_timestamp(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_failed_sign_in"),
    )
    op.create_index("ix_failed_sign_in_whose_at", "failed_sign_in", ["whose", "at"])
    for table in ("ring_revision", "job", "job_event"):
        op.add_column(table, sa.Column("author_id", sa.Uuid, nullable=True))
        op.create_foreign_key(f"fk_{table}_author_id_person", table, "person", ["author_id"], ["id"])
    op.add_column("job_event", sa.Column("workshop_id", sa.Uuid, nullable=True))
    op.execute("update job_event set workshop_id = job.workshop_id from job where job.id = job_event.job_id")
    op.alter_column("job_event", "workshop_id", nullable=False)
    op.create_foreign_key("fk_job_event_workshop_id_workshop", "job_event", "workshop", ["workshop_id"], ["id"])
    _policies()
    _search()


def _worker() -> None:
    connection = op.get_bind()
    if connection.execute(sa.text(f"select pg_has_role(current_user, oid, 'member') from pg_roles where rolname = '{WORKER}'")).scalar():
        return
    try:
        with connection.begin_nested():
            connection.execute(sa.text(f"create role {WORKER} nologin"))
            connection.execute(sa.text(f"grant {WORKER} to current_user"))
    except sa.exc.ProgrammingError as error:
        raise Unfit(
            f"the database needs a role that this user can't make; let one who can say: create role {WORKER} nologin; grant {WORKER} to USER;"
        ) from error


def _policies() -> None:
    op.execute(
        "create function current_workshop() returns uuid stable language sql "
        "as $$ select nullif(current_setting('pliant_coil.workshop', true), '')::uuid $$"
    )
    for table in KEPT_APART:
        op.execute(f"alter table {table} enable row level security")
        op.execute(f"create policy own_workshop on {table} using (workshop_id = current_workshop())")
        op.execute(f"grant select, insert, update, delete on {table} to {WORKER}")
    op.execute("alter table workshop enable row level security")
    op.execute("create policy own_workshop on workshop using (id = current_workshop())")
    op.execute(f"grant select on workshop to {WORKER}")
    op.execute("alter table membership enable row level security")
    op.execute("create policy own_workshop on membership using (workshop_id = current_workshop())")
    op.execute(f"grant select on membership to {WORKER}")
    op.execute("alter table person enable row level security")
    # Of people it sees the names of those who work or worked here, nothing else.
    op.execute("create policy own_workshop on person using (exists (select from membership where person_id = person.id))")
    op.execute(f"grant select (id, name) on person to {WORKER}")


def _search() -> None:
    # A policy may not be overtaken by a comparison that could tell what it saw, and `like` is one that could: under it no index of words
    # is used. So words are looked for by the tables' owner, in the transaction's own workshop and in no other.
    op.execute(
        """
        create function rings_with(patterns text[], deleted boolean, before_at timestamptz, before_id uuid, most integer)
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
                'select id from ring where workshop_id = %L and deleted_at is %s null%s order by updated_at desc, id desc limit %s',
                current_workshop(), case when deleted then 'not' else '' end, wanted, most
            );
        end $$
        """
    )
    op.execute("revoke all on function rings_with(text[], boolean, timestamptz, uuid, integer) from public")
    op.execute(f"grant execute on function rings_with(text[], boolean, timestamptz, uuid, integer) to {WORKER}")

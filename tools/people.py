"""./people: what can be done for people from the terminal, by whoever looks after the machine."""

import argparse
import os
import sys

from sqlalchemy import select
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from pliant_coil.services.passwords import name_key
from pliant_coil.services.people import LINK_WORKS_FOR, Link, new_link, new_password_link
from pliant_coil.services.scope import Role
from pliant_coil.services.workshop import DEMO_SLUG
from pliant_coil.store import people, workshops
from pliant_coil.store.database import Unfit, connect, fitness, sessions_of
from pliant_coil.store.models import Workshop
from tools.postgres import CannotServe
from tools.records import records_url
from tools.state import serving_address


def main() -> int:
    """List people, or make a link that works once. Returns the exit code."""
    parser = argparse.ArgumentParser(prog="./people", description="Who works here; and links, each of which works once.")
    parser.add_argument("--workshop", default=os.environ.get("WORKSHOP", DEMO_SLUG), help="its name in addresses")
    what = parser.add_subparsers(dest="what")
    what.add_parser("owner", help="a link by which one more owner comes in")
    lost = what.add_parser("password", help="a link to a new password for somebody who lost theirs")
    lost.add_argument("name", nargs="+")
    options = parser.parse_args()
    try:
        with records_url() as url:
            engine = connect(url)
            if not fitness(engine):
                raise CannotServe("the records aren't ready for people yet: ./start once")
            with sessions_of(engine).begin() as session:
                _answer(session, options)
            engine.dispose()
    except (CannotServe, Unfit, SQLAlchemyError) as error:
        print(str(error).splitlines()[0], file=sys.stderr)
        return 1
    return 0


def _answer(session: Session, options: argparse.Namespace) -> None:
    workshop = workshops.find(session, options.workshop)
    if workshop is None:
        known = ", ".join(session.scalars(select(Workshop.slug).order_by(Workshop.slug)))
        raise CannotServe(f"there is no workshop {options.workshop}; there are: {known or 'none'}")
    if options.what == "owner":
        _show(new_link(session, workshop.id, Role.OWNER, LINK_WORKS_FOR))
    elif options.what == "password":
        name = " ".join(options.name)
        person = people.named(session, name_key(name))
        place = people.workshops_of(session, person.id)[:1] if person else []
        if not person or not place:
            raise CannotServe(f"nobody called {name} works here")
        _show(new_password_link(session, place[0][0].id, person))
    else:
        for place_there, person in people.members(session, workshop.id):
            print(f"{place_there.role:<7} {person.name}")


def _show(link: Link) -> None:
    address = serving_address() or "http://127.0.0.1:8420/"
    print(f"{address}join#{link.token}")
    print(f"It works once, until {link.ends_at:%Y-%m-%d %H:%M} UTC. Hand it over where nobody else reads it.", file=sys.stderr)


if __name__ == "__main__":
    sys.exit(main())

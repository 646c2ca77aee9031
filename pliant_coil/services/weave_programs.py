"""Weave programs: the usual ones, and those that a workshop keeps."""

from pliant_coil.core.mechanics.program import PRESETS, program_text, read_program, wires_named
from pliant_coil.services.scope import InWorkshop
from pliant_coil.store import weave_programs as store


class WeavePrograms(InWorkshop):
    """The programs of one workshop."""

    def all(self) -> list[tuple[str, int, str]]:
        """Program, base wires and name: the usual ones first, then the workshop's own without a name."""
        usual = [(program, wires_named(program), name) for program, name in PRESETS.items()]
        with self._work() as (session, workshop_id, _):
            return usual + [(program, base_wires, "") for program, base_wires in store.kept(session, workshop_id)]

    def keep(self, program: str, base_wires: int) -> None:
        """Keep a program. Raises `Refusal` for one that can't be woven."""
        plain = program_text(read_program(program, base_wires, "program"))
        with self._work(writes=True) as (session, workshop_id, _):
            if plain not in PRESETS:
                store.keep(session, workshop_id, plain, base_wires)

    def forget(self, program: str, base_wires: int) -> None:
        """Forget one of the workshop's own programs."""
        plain = program_text(read_program(program, base_wires, "program"))
        with self._work(writes=True) as (session, workshop_id, _):
            store.forget(session, workshop_id, plain, base_wires)

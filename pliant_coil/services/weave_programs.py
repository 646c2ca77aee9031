"""Weave programs: the usual ones, and those that a workshop keeps."""

from pliant_coil.core.weaving import PRESETS, program_text, read_program, wires_named
from pliant_coil.services.rings import NotFound
from pliant_coil.store import weave_programs, workshops
from pliant_coil.store.database import Sessions


class WeavePrograms:
    """The programs of one workshop."""

    def __init__(self, sessions: Sessions, workshop_slug: str) -> None:
        self._sessions = sessions
        self._slug = workshop_slug

    def _in_workshop(self, change: tuple[str, str, int] | None = None) -> list[tuple[str, int]]:
        with self._sessions.begin() as session:
            workshop = workshops.find(session, self._slug)
            if workshop is None:
                raise NotFound("there is no such workshop")
            if change:
                action, program, base_wires = change
                act = weave_programs.keep if action == "keep" else weave_programs.forget
                act(session, workshop.id, program, base_wires)
            return weave_programs.kept(session, workshop.id)

    def all(self) -> list[tuple[str, int, str]]:
        """Program, base wires and name: the usual ones first, then the workshop's own without a name."""
        usual = [(program, wires_named(program), name) for program, name in PRESETS.items()]
        return usual + [(program, base_wires, "") for program, base_wires in self._in_workshop()]

    def keep(self, program: str, base_wires: int) -> None:
        """Keep a program. Raises `Refusal` for one that can't be woven."""
        plain = program_text(read_program(program, base_wires, "program"))
        if plain not in PRESETS:
            self._in_workshop(("keep", plain, base_wires))

    def forget(self, program: str, base_wires: int) -> None:
        """Forget one of the workshop's own programs."""
        self._in_workshop(("forget", program_text(read_program(program, base_wires, "program")), base_wires))

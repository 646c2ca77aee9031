"""Bundled: square wires in a row, bound by half-round wire in runs that mirror each other about the middle."""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache, partial
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.hulls import Bundle
from pliant_coil.core.moves import Arc, Binding, Loose, Move
from pliant_coil.core.plan import ChartPass, ChartWire, Fit
from pliant_coil.core.profiles import Profile
from pliant_coil.core.refusal import refuse
from pliant_coil.core.sizes import US_STEP_MM
from pliant_coil.core.steps import Step
from pliant_coil.core.weaving import LETTERS
from pliant_coil.core.wires import FormedRing, Shift, WireRun, Wires, WireSpec

SHORT_CAUSE = "bound to the whole coil, a little small"
STRETCH_CAUSE = "stretched to size on the mandrel"
_RUN = re.compile(r"\s*(\d+)\s*(inner|all)\s*", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Run:
    """So many coils round the inner wires, or round all."""

    coils: int
    inner: bool

    @property
    def words(self) -> str:
        return f"{self.coils} {'inner' if self.inner else 'all'}"


class Bundled(BandStyle):
    """Strands side by side, bound from the middle outwards; the ends overlap and are bound together."""

    title: ClassVar[str] = "Bundled"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {
        "base": WireSpec(diameter="0.7 mm", profile="square"),
        "bind": WireSpec(diameter="0.8 mm", profile="half-round"),
    }
    main_role: ClassVar[str] = "base"
    trimmed: ClassVar[bool] = True
    style: Literal["bundled"] = Field("bundled", title="Band")
    strands: int = Field(4, title="Wires in the row", ge=3, le=6)
    runs: str = Field(
        "5 inner, 3 all, 10 inner, 3 all", title="Runs", max_length=120, description="From the middle outwards, mirrored: 5 inner, 3 all."
    )
    lap_mm: float = Field(6.0, title="Overlap of the ends", ge=2, le=20, json_schema_extra={"unit": "mm"})

    def _read_runs(self) -> list[Run]:
        found = []
        at = 1
        for part in self.runs.split(","):
            match = _RUN.fullmatch(part)
            if not match:
                refuse("band.runs", f"“{part.strip()}” at character {at} isn't a run", "a count and inner or all: 5 inner, 3 all")
            coils = int(match.group(1)[:6])
            if not 1 <= coils <= 60:
                refuse("band.runs", f"“{part.strip()}” at character {at} asks for {coils} coils", "1 to 60")
            found.append(Run(coils, match.group(2).lower() == "inner"))
            at += len(part) + 1
        if all(run.inner for run in found):
            refuse("band.runs", "nothing holds the outer wires", "at least one run round all")
        return found

    def fitted(self, half_coils: int) -> list[Run]:
        """The runs from the middle outwards, repeated, dropped and shortened so that they hold so many coils a side."""
        left, found = half_coils, list[Run]()
        wanted = self._read_runs()
        while left > 0:
            run = wanted[len(found) % len(wanted)]
            found.append(Run(min(run.coils, left), run.inner))
            left -= found[-1].coils
        return found

    def _rows(self, base: Profile, bind: Profile) -> list[float]:
        """Middles of the wires along the finger: binding passes between the inner wires and the two outer ones."""
        a = base.width_mm
        inner = self.strands - 2
        middles = [(k - (inner - 1) / 2) * a for k in range(inner)]
        outer = middles[-1] + a + bind.height_mm
        return [-outer, *middles, outer]

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        base, bind = wires["base"].profile, wires["bind"].profile
        rows = self._rows(base, bind)
        radius = form_diameter_mm / 2 + bind.height_mm + base.centroid_mm
        target = 2 * math.pi * radius
        half = max(1, math.floor(target / 2 / bind.width_mm + 1e-9))
        made = 2 * half * bind.width_mm
        short = (made - target) / math.pi
        fitted = self.fitted(half)
        moves: list[Move] = []
        at = -half * bind.width_mm
        for run in [*reversed(fitted), *fitted]:
            bundle = _bundle(base, *((rows[1], rows[-2]) if run.inner else (rows[0], rows[-1])))
            moves.append(Binding(f"{run.words}", run.coils, bundle, bind, radius, at))
            at += run.coils * bind.width_mm
        moves.append(self._join(base, bind, rows))
        lap = self.lap_mm / 2 / radius
        runs = [
            WireRun(wires["base"], (Arc("bound", radius, -lap, 2 * math.pi + 2 * lap, z, z, mark="middle", mark_share=0.5),)) for z in rows
        ]
        runs.append(WireRun(wires["bind"], tuple(moves)))
        width = rows[-1] - rows[0] + base.width_mm + 2 * bind.height_mm
        shifts = (Shift(SHORT_CAUSE, short), Shift(STRETCH_CAUSE, -short)) if short < -1e-9 else ()
        fit = partial(self._fit, fitted, half, made, target, moves, rows, base, bind)
        return FormedRing(form_diameter_mm, tuple(runs), shifts, (), self.strands, width, base.height_mm + 2 * bind.height_mm, fit)

    def _join(self, base: Profile, bind: Profile, rows: list[float]) -> Loose:
        """The coils that bind the overlapped ends: round two rows, one on the other."""
        coils = math.ceil(self.lap_mm / bind.width_mm)
        once = _bundle(base, rows[0], rows[-1]).loop_mm(bind.centroid_mm) + 2 * base.height_mm
        return Loose(
            f"join ×{coils}", coils * math.hypot(once, bind.width_mm), f"{coils} × {once:.2f} mm round both ends, one on the other"
        )

    def _fit(
        self, fitted: list[Run], half: int, made: float, target: float, moves: list[Move], rows: list[float], base: Profile, bind: Profile
    ) -> Fit:
        wire = sum(m.length_mm for m in moves)
        larger = 2 * bind.width_mm / math.pi / US_STEP_MM
        passes, at = [], half * bind.width_mm
        for run in [*reversed(fitted), *fitted]:
            first, last = (1, self.strands - 2) if run.inner else (0, self.strands - 1)
            for _ in range(run.coils):
                passes.append(ChartPass(at_mm=at - half * bind.width_mm + bind.width_mm / 2, first=first, last=last))
                at += bind.width_mm
        return Fit(
            kind="bind",
            program=", ".join(run.words for run in fitted),
            repeats=1,
            repeat_mm=made,
            made_mm=made,
            target_mm=target,
            left_each_end_mm=(target - made) / 2,
            repeat_changes_us=larger,
            wire_per_repeat_mm=wire,
            mirrored=False,
            guide_mm=target,
            guide_words=f"{2 * half} coils in all; one more on each side makes the ring {larger:.2f} US sizes larger.",
            wire_mm=bind.width_mm,
            base=[
                ChartWire(name=LETTERS[k] if k < len(LETTERS) else str(k + 1), z_mm=z, width_mm=base.width_mm) for k, z in enumerate(rows)
            ],
            strands=[],
            passes=passes,
        )

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        self._read_runs()
        if wires["base"].profile.name not in ("square", "round"):
            refuse("wires.base.profile", f"{wires['base'].profile.name} wires in a row aren't reckoned here", "square or round")

    def phrase(self) -> str:
        return f"{self.strands} wires bound {self.runs.strip()}"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        runs = self.runs.strip()
        row = (
            f"Tape the {self.strands} wires side by side. Bind from the middle mark outwards, flat side in: {runs}, the same on both sides."
        )
        lap = f"Let the ends overlap by {self.lap_mm:g} mm and bind them together."
        closed = f"Bend the bound row round the mandrel at {start_words}, a little small. {lap}"
        return [
            Step("bind", row, check="The same count on both sides, coils tight and square to the wires."),
            Step("form", closed, check="The inner coil isn't felt inside."),
            Step("stretch", "Stretch it on the mandrel to the size."),
        ]


@lru_cache(maxsize=64)
def _bundle(base: Profile, first_mm: float, last_mm: float) -> Bundle:
    """The row from one wire's middle to another's, about the row's own middle height."""
    corners = base.outline(96)
    return Bundle(tuple((z + x, y - base.centroid_mm) for z in (first_mm, last_mm) for x, y in corners), 0.0)

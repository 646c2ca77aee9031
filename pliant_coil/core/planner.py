"""From a ring file to its plan: the chain that only composes what the other modules know."""

import math

from pliant_coil.core.advice import advise, hole_needed
from pliant_coil.core.cutlist import OTHER_RISKS, Cut, cut, cut_length_mm, inches_text
from pliant_coil.core.markout import Mark, marks
from pliant_coil.core.order_of_work import size_words, steps
from pliant_coil.core.plan import (
    BandTold,
    BeadDrawn,
    BeadTold,
    ContributionTold,
    Drawing,
    MarkTold,
    MoveTold,
    PhraseTold,
    Plan,
    RiskTold,
    SchoolTold,
    SizeTold,
    StepTold,
    StrandDrawn,
    WarningTold,
    WireTold,
)
from pliant_coil.core.recipe import RingFile, Sizing
from pliant_coil.core.ring import Ring, make_ring
from pliant_coil.core.sizes import SYSTEMS, US_STEP_MM, nearest_mark
from pliant_coil.core.sizing import MANDREL_TAPER, chosen_start_mm, contributions, schools, start_mm, wide_band_us
from pliant_coil.core.wires import FormedRing, WireRun


def plan(file: RingFile, *, paths: bool = False) -> Plan:
    """The plan of a ring; with `paths`, its drawing too. Raises `Refusal` for what can't be made."""
    ring = make_ring(file)
    band_width = ring.formed(ring.target_mm).width_mm
    allowance = wide_band_us(band_width)
    aim = ring.target_mm + allowance * US_STEP_MM
    solved = start_mm(ring, aim)
    start = chosen_start_mm(ring, aim, solved)
    formed = ring.formed(start)
    finished = formed.finished_mm
    sizing = file.sizing
    cuts = [cut(run, sizing) for run in formed.runs]
    marked = [marks(piece.moves) for piece in cuts]
    drawing = _drawing(formed, cuts) if paths else None
    return Plan(
        title=file.title,
        sentence=_sentence(ring),
        target=size_told(ring.target_mm),
        target_reason=ring.target_reason,
        aim=size_told(aim),
        wide_band_us=allowance,
        start=size_told(start),
        finished=size_told(finished),
        contributions=[ContributionTold(cause=c.cause, us_sizes=round(c.us_sizes, 3), mm=round(c.mm, 4)) for c in contributions(formed)],
        schools=_schools(ring, aim, solved),
        band=_band(formed),
        fit=formed.fit,
        wires=_wires(formed, cuts, marked, sizing),
        beads=_beads(formed),
        steps=[
            StepTold(stage=s.stage, text=s.text, count=s.count, check=s.check, cautions=list(s.cautions))
            for s in steps(ring, formed, finished, cuts, marked)
        ],
        warnings=[WarningTold(code=w.code, text=w.text, field=w.field) for w in advise(ring, formed)],
        drawing=drawing,
    )


def size_told(inside_diameter_mm: float) -> SizeTold:
    """An inside diameter in every system."""
    found = {code: nearest_mark(inside_diameter_mm, system) for code, system in SYSTEMS.items()}
    return SizeTold(
        inside_diameter_mm=round(inside_diameter_mm, 4),
        inside_circumference_mm=round(math.pi * inside_diameter_mm, 4),
        us=found["us"].label,
        uk=found["uk"].label,
        eu=found["eu"].label,
        jp=found["jp"].label,
        ch=found["ch"].label,
        de=found["de"].label,
        exact={code: mark.text for code, mark in found.items()},
    )


def _sentence(ring: Ring) -> list[PhraseTold]:
    file = ring.file
    return [
        PhraseTold(part="finger", text=size_words(ring, ring.target_mm)),
        *(PhraseTold(part=f"wires.{role}", text=wire.words) for role, wire in ring.wires.items()),
        PhraseTold(part="band", text=file.band.phrase()),
        PhraseTold(part="head", text=file.head.phrase()),
        *([PhraseTold(part="finish", text=file.finish.phrase())] if file.band.locked else []),
    ]


def sentence_text(ring: Ring) -> str:
    """The ring in one sentence, as it stands in lists."""
    return ", ".join(phrase.text for phrase in _sentence(ring))


def _schools(ring: Ring, aim_mm: float, solved_mm: float) -> list[SchoolTold]:
    us = SYSTEMS["us"]
    return [
        SchoolTold(
            school=s.school,
            start_us=nearest_mark(s.start_mm, us).label or "",
            start_mm=round(s.start_mm, 4),
            finished_us=nearest_mark(s.finished_mm, us).label or "",
            finished_mm=round(s.finished_mm, 4),
            off_by_us=round(s.off_by_us, 3),
            why=s.why,
        )
        for s in schools(ring, aim_mm, solved_mm)
    ]


def _band(formed: FormedRing) -> BandTold:
    return BandTold(
        strands=formed.strands,
        width_mm=round(formed.width_mm, 3),
        thickness_mm=round(formed.thickness_mm, 3),
        mass_g=round(sum(run.net_mm * run.wire.grams_per_mm for run in formed.runs), 3),
        edges_differ_mm=round(formed.width_mm * MANDREL_TAPER, 3),
    )


def _wires(formed: FormedRing, cuts: list[Cut], marked: list[list[Mark]], sizing: Sizing) -> list[WireTold]:
    roles = [run.wire.role for run in formed.runs]
    told = []
    for index, (run, piece, marks_of) in enumerate(zip(formed.runs, cuts, marked, strict=True)):
        wire = run.wire
        told.append(
            WireTold(
                role=wire.role,
                piece=roles[: index + 1].count(wire.role),
                pieces=roles.count(wire.role),
                from_reel=wire.from_reel,
                label=wire.words,
                metal=wire.metal.code,
                profile=wire.profile.name,
                width_mm=round(wire.profile.width_mm, 4),
                height_mm=round(wire.profile.height_mm, 4),
                net_mm=round(piece.net_mm, 3),
                sigma_mm=round(piece.sigma_mm, 3),
                cut_mm=round(piece.cut_mm, 3),
                cut_in=piece.cut_in,
                mass_g=round(piece.mass_g, 3),
                cost=None,
                arithmetic=piece.arithmetic,
                risks=_risks(run, sizing),
                marks=[MarkTold(at_mm=round(m.at_mm, 3), label=m.label, kind=m.kind) for m in marks_of],
                moves=_moves(piece),
            )
        )
    return told


def _risks(run: WireRun, sizing: Sizing) -> list[RiskTold]:
    lengths = [(risk, cut_length_mm(run, sizing, risk)) for risk in OTHER_RISKS]
    return [RiskTold(risk=risk, cut_mm=round(length, 3), cut_in=inches_text(length)) for risk, length in lengths]


def _moves(piece: Cut) -> list[MoveTold]:
    told, at = [], 0.0
    for move in piece.moves:
        length = move.length_mm
        told.append(
            MoveTold(
                kind=move.kind,
                label=move.label,
                from_mm=round(at, 3),
                to_mm=round(at + length, 3),
                count=move.count,
                length_mm=round(length, 3),
                in_ring=move.shapes_ring,
                arithmetic=move.arithmetic(),
            )
        )
        at += length
    return told


def _beads(formed: FormedRing) -> list[BeadTold]:
    return [
        BeadTold(
            what=bead.what,
            diameter_mm=bead.diameter_mm,
            hole_mm=bead.hole_mm,
            hole_needed_mm=round(hole_needed(bead), 3),
            fits=bead.hole_mm >= hole_needed(bead),
        )
        for bead in formed.beads
    ]


def _drawing(formed: FormedRing, cuts: list[Cut]) -> Drawing:
    strands, seen = [], dict[str, int]()
    for run, piece in zip(formed.runs, cuts, strict=True):
        number = seen[run.wire.role] = seen.get(run.wire.role, 0) + 1
        for index, move in enumerate(piece.moves):
            points = [[round(x, 3), round(y, 3), round(z, 3)] for x, y, z in move.path()]
            if points:
                strands.append(StrandDrawn(role=run.wire.role, piece=number, move=index, kind=move.kind, points=points))
    beads = [BeadDrawn(x_mm=b.centre[0], y_mm=b.centre[1], z_mm=b.centre[2], diameter_mm=b.diameter_mm) for b in formed.beads]
    inside = formed.inside
    return Drawing(
        inside_x_mm=round(inside.x_mm, 4),
        inside_y_mm=round(inside.y_mm, 4),
        inside_radius_mm=round(inside.radius_mm, 4),
        strands=strands,
        beads=beads,
    )

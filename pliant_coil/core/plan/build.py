"""From a ring file to its plan: the chain that only composes what the floors below know."""

import math
from functools import lru_cache

from pliant_coil.core.making.advice import advise, hole_needed
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.cutting import Cut, more_of, standard_deviations
from pliant_coil.core.making.markout import Mark as WireMark
from pliant_coil.core.making.minutes import cautioned, working_minutes
from pliant_coil.core.making.planned import Planned, planned
from pliant_coil.core.making.resizing import resize
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.making.solve import Choice, Solver, contributions, schools
from pliant_coil.core.moves.placed import Fate
from pliant_coil.core.plan import model
from pliant_coil.core.plan.drawing import drawing
from pliant_coil.core.plan.steps import step
from pliant_coil.core.ring_file.document import RingFile
from pliant_coil.core.styles.cautions import TORCH
from pliant_coil.core.styles.handed_on import Top
from pliant_coil.core.styles.repeats import Repeats
from pliant_coil.core.trade.hand import KnownHand
from pliant_coil.core.trade.mandrels import TAPER, Along
from pliant_coil.core.trade.sizes import SYSTEMS, US_STEP_MM, MandrelMark, Size, SizeChange, nearest_mark
from pliant_coil.core.words.figures import Count, CutLength, Length, Number, Thickness, inches_up
from pliant_coil.core.words.say import NOTHING, Figure, Reader, Say, listed, say, write

_TELLS_MM = 0.004
"""A cause that changes the size by less isn't told: it would read +0."""


def plan(file: RingFile, *, paths: bool = False, habits: bool = True, hand: KnownHand | None = None) -> model.Plan:
    """The plan of a ring, for a hand if it is known. Raises `Refusal` for what can't be made.

    With `paths` its drawing comes too, with `habits` what every habit of starting would make of it: a ring more for each.
    """
    return plan_of(planned(file, hand=hand), paths=paths, habits=habits)


def plan_of(all_of_it: Planned, *, paths: bool = False, habits: bool = True) -> model.Plan:
    """The plan of a ring that is planned already; see `plan`."""
    ring, solver, made = all_of_it.ring, all_of_it.solver, all_of_it.made
    cuts, marked, tasks = all_of_it.cuts, all_of_it.marks, all_of_it.tasks
    repeats = made.band.repeats
    guide = repeats.guide if repeats else None
    minutes = working_minutes(made.pieces, tasks)
    target = size_in_all(ring.target_mm)
    return model.Plan(
        title=ring.file.title,
        notes=ring.file.notes,
        sentence=[model.Phrase(part=part, text=text) for part, text in phrases(ring, made)],
        target=target,
        target_reason=ring.target_reason,
        aim=size_in_all(ring.aim_mm) if ring.room_us else target,
        wide_band_us=ring.room_us,
        start=size_in_all(made.form.diameter_mm),
        guide=size_in_all(guide.bent_at_mm) if guide else None,
        finished=size_in_all(made.finished_mm),
        contributions=[
            model.Contribution(
                code=c.cause.code,
                cause=c.cause.words,
                us_sizes=c.mm / US_STEP_MM,
                mm=c.mm,
                said=SizeChange(c.mm, signed=True),
            )
            for c in contributions(made)
            if abs(c.mm) >= _TELLS_MM
        ],
        schools=_schools(solver, ring, all_of_it.solved) if habits else [],
        choices=_choices(all_of_it.choices),
        band=_band(made),
        fit=_fit(repeats) if repeats else None,
        wires=_wires(cuts, marked, all_of_it.hand, standard_deviations(ring.file.sizing.risk_of_running_out)),
        beads=_beads(made),
        steps=[step(task, made) for task in tasks],
        minutes=minutes,
        time=_time(minutes),
        torch=cautioned(tasks, TORCH) > 0,
        warnings=[model.Warning(code=w.code, text=w.text, field=w.field) for w in advise(made)],
        drawing=drawing(made, cuts) if paths else None,
    )


def resizing(all_of_it: Planned, wanted_mm: float, reads_mm: float | None = None) -> model.Resizing:
    """How a finished ring is made another size [inside diameter, mm]; as planned unless it `reads_mm`."""
    return model.Resizing(
        finished=size_in_all(reads_mm or all_of_it.solved.finished_mm),
        wanted=size_in_all(wanted_mm),
        ways=[
            model.Way(
                code=way.code,
                reaches=way.reaches,
                low=Size(way.low_mm),
                high=Size(way.high_mm),
                text=way.says,
            )
            for way in resize(all_of_it.solved, wanted_mm, reads_mm)
        ],
    )


def _time(minutes: float) -> Say:
    """About how long, as people say it: by five minutes, from two hours on by quarters."""
    if minutes < 120:
        return say("about {n} min", n=Number(max(5, 5 * round(minutes / 5))))
    return say("about {n} h", n=Number(round(minutes / 15) / 4, 2))


@lru_cache(maxsize=64)
def size_in_all(inside_diameter_mm: float) -> model.Size:
    """An inside diameter in every system; kept, for while anything else is changed a finger's size stays."""
    found = {code: nearest_mark(inside_diameter_mm, system) for code, system in SYSTEMS.items()}
    return model.Size(
        inside_diameter_mm=inside_diameter_mm,
        inside_circumference_mm=math.pi * inside_diameter_mm,
        us=found["us"].label,
        uk=found["uk"].label,
        eu=found["eu"].label,
        jp=found["jp"].label,
        ch=found["ch"].label,
        de=found["de"].label,
        exact={code: mark.text for code, mark in found.items()},
        said=Size(inside_diameter_mm),
        mark=MandrelMark(inside_diameter_mm),
        mark_too=MandrelMark(inside_diameter_mm, 1),
        along=Along(inside_diameter_mm),
        across=Thickness(inside_diameter_mm),
        around=Thickness(math.pi * inside_diameter_mm),
    )


def phrases(ring: Ring, made: MadeRing) -> list[tuple[str, Figure]]:
    """The ring's sentence, phrase by phrase, each with the part of the ring file that it stands for."""
    file = ring.file
    found: list[tuple[str, Figure]] = [] if made.band.absent else [("finger", Size(ring.target_mm, ring.asked_in))]
    found += [(f"wires.{role}", wire.words) for role, wire in ring.wires.items()]
    found += [("band", file.band.phrase()), ("head", file.head.phrase(file.band))]
    if made.locked or Top.TAILS in ring.band.tops():
        found.append(("finish", file.finish.phrase(ring.locks)))
    elif file.finish.surface():
        found.append(("finish", listed(file.finish.surface())))
    if ring.room_us:
        found.append(("sizing", say("with room of {room} for its width", room=SizeChange(ring.room_us * US_STEP_MM))))
    return found


def sentence_text(ring: Ring) -> str:
    """The ring in one sentence, as it stands in lists and is searched."""
    made = Solver(ring).at(ring.band.start_mm(ring.aim_mm))
    return write(listed([text for _, text in phrases(ring, made)]), Reader())


def _schools(solver: Solver, ring: Ring, solved: MadeRing) -> list[model.School]:
    us = SYSTEMS["us"]
    return [
        model.School(
            school=s.school,
            start_us=nearest_mark(s.start_mm, us).label or "",
            start_mm=s.start_mm,
            finished_us=nearest_mark(s.finished_mm, us).label or "",
            finished_mm=s.finished_mm,
            off_by_us=s.off_mm / US_STEP_MM,
            start=MandrelMark(s.start_mm),
            finished=Size(s.finished_mm),
            why=s.why,
        )
        for s in schools(solver, ring.aim_mm, solved)
    ]


def _choices(found: list[Choice]) -> list[model.Choice]:
    return [
        model.Choice(repeats=c.repeats, finished_mm=c.finished_mm, finished=Size(c.finished_mm), off_by_us=c.off_mm / US_STEP_MM)
        for c in found
        if c.repeats is not None and len(found) > 1
    ]


def _band(made: MadeRing) -> model.Band:
    return model.Band(
        strands=made.band.strands,
        width_mm=made.band.width_mm,
        width=Length(made.band.width_mm),
        thickness_mm=made.band.thickness_mm,
        height_mm=made.work.height_mm,
        height=Length(made.work.height_mm),
        mass_g=sum(piece.mass_g for piece in made.pieces),
        edges_differ_mm=made.band.width_mm * TAPER,
        sized_by=made.band.sized_by,
    )


def _fit(repeats: Repeats) -> model.Fit:
    chart = repeats.chart()
    guide = repeats.guide
    return model.Fit(
        name=repeats.name,
        kind=repeats.kind,
        program=repeats.program,
        repeats=repeats.count,
        repeat_mm=repeats.repeat_mm,
        made_mm=repeats.made_mm,
        target_mm=repeats.target_mm,
        left_each_end_mm=(repeats.target_mm - repeats.made_mm) / 2,
        repeat_changes_us=repeats.repeat_changes_mm / US_STEP_MM,
        wire_per_repeat_mm=repeats.wire_per_repeat_mm,
        mirrored=repeats.mirrored,
        guide_mm=guide.length_mm if guide else None,
        guide_at=MandrelMark(guide.bent_at_mm) if guide else None,
        words=_fit_words(repeats),
        wire_mm=chart.wire_mm,
        base=chart.wires,
        passes=chart.passes,
        strands=[[[round(v, 3) for v in point] for point in strand] for strand in chart.strands],
    )


def _fit_words(repeats: Repeats) -> Say:
    changes = (
        say("A repeat more or less changes the ring by {by}.", by=SizeChange(repeats.repeat_changes_mm))
        if repeats.repeat_changes_mm
        else NOTHING
    )
    filled = say("{made} of {length}.", made=Length(repeats.made_mm), length=Length(repeats.target_mm))
    if repeats.kind == "braid":
        return (
            say(
                "Braided {program}, {moves} moves a side, {length}.",
                program=repeats.program,
                moves=repeats.count,
                length=Length(repeats.made_mm),
            )
            + changes
        )
    if repeats.kind == "bind":
        return say(
            "Bound {runs}, from the middle outwards on each side: {coils} coils, {filled}",
            runs=repeats.runs,
            coils=repeats.count,
            filled=filled,
        )
    text = say("{n} repeats of {program}: {filled}", n=Number(repeats.count), program=repeats.program, filled=filled) + changes
    if repeats.guide:
        text += say(
            "A guide bent at {at} is as long as the weave, {length}.",
            at=Size(repeats.guide.bent_at_mm),
            length=Length(repeats.guide.length_mm),
        )
    return text


def _wires(cuts: list[Cut], marked: list[list[WireMark]], hand: KnownHand | None, z: float) -> list[model.Wire]:
    roles = [cut.piece.role for cut in cuts]
    found = []
    for index, (cut, its_marks) in enumerate(zip(cuts, marked, strict=True)):
        piece, wire = cut.piece, cut.piece.wire
        found.append(
            model.Wire(
                id=piece.id,
                role=piece.role,
                piece=roles[: index + 1].count(piece.role),
                pieces=roles.count(piece.role),
                from_reel=piece.from_reel,
                label=wire.words,
                metal=wire.metal.code,
                profile=wire.profile.name,
                width_mm=wire.width_mm,
                height_mm=wire.height_mm,
                net_mm=piece.net_mm,
                sigma_mm=cut.sigma_mm,
                cut_mm=cut.cut_mm,
                cut_in=inches_up(cut.cut_mm, cut.inch_parts),
                cut=CutLength(round(cut.cut_mm) if piece.from_reel else cut.cut_mm, cut.inch_parts),
                mass_g=cut.mass_g,
                cost=None,
                arithmetic=cut.arithmetic,
                hand=_hand(cut, hand, z) if hand else None,
                more=_more(cut),
                risks=[model.Risk(risk=risk, cut_mm=length, cut_in=inches_up(length, cut.inch_parts)) for risk, length in cut.risks],
                marks=[model.Mark(at_mm=m.at_mm, label=m.label, kind=m.kind, at=Length(m.at_mm)) for m in its_marks],
                moves=_moves(cut),
            )
        )
    return found


def _hand(cut: Cut, hand: KnownHand, z: float) -> Say | None:
    usual, own = z * cut.piece.sigma_mm, z * cut.sigma_mm
    if abs(cut.hand_mm) < 0.05 and abs(usual - own) < 0.05:
        return None
    return say(
        f"Your hand, from {{rings}}: {{more}} {'more' if cut.hand_mm >= 0 else 'less'} than planned; kept in case, {{own}} instead of {{usual}}.",
        rings=Count(hand.known_rings, "ring", "rings"),
        more=Length(abs(cut.hand_mm)),
        own=Thickness(own),
        usual=Thickness(usual),
    )


def _more(cut: Cut) -> Say | None:
    more = more_of(cut)
    if more is None:
        return None
    return say(
        "The spare gives {n} more, and keeps the tails for the finish; each takes {each}.",
        n=Count(more.count, more.unit, f"{more.unit}s"),
        each=Length(more.each_mm),
    )


def _moves(cut: Cut) -> list[model.Move]:
    found = []
    for placed, at, length in cut.stretches:
        move = placed.move
        count = move.count
        label = f"{move.label} ×{count:g}" if count is not None and count != 1 else move.label
        found.append(
            model.Move(
                id=placed.id,
                kind=move.kind,
                label=label,
                fate=placed.fate,
                from_mm=at,
                to_mm=at + length,
                count=count,
                length_mm=length,
                in_ring=placed.fate is Fate.RING,
                length=Length(length),
                arithmetic=move.arithmetic(),
            )
        )
    return found


def _beads(made: MadeRing) -> list[model.Bead]:
    return [
        model.Bead(
            what=stone.what,
            diameter_mm=max(stone.length_mm, stone.width_mm),
            hole_mm=stone.hole_mm,
            hole_needed_mm=hole_needed(stone),
            fits=stone.hole_mm >= hole_needed(stone) - 1e-9,
        )
        for stone in made.drilled
        if stone.hole_mm is not None
    ]

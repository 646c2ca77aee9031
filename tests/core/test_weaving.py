"""Woven and bundled bands: the program, whole repeats, and wires that don't pass through each other."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.distance import cdist

from pliant_coil.core.plan import Plan
from pliant_coil.core.planner import plan
from pliant_coil.core.recipe import read_ring
from pliant_coil.core.refusal import Refusal
from pliant_coil.core.weaving import PRESETS, Weave, read_program
from tests.core.polylines import dense

programs = st.sampled_from(sorted(PRESETS))


def base_wires(program: str) -> int:
    return 3 if "C" in program else 2


def woven(program: str, base: str = "0.8 mm", weave: str = "0.4 mm", **rest: Any) -> Plan:
    band = {"style": "woven", "program": program, "base_wires": base_wires(program), **rest.pop("band", {})}
    wires = {"base": {"diameter": base}, "weave": {"diameter": weave, "from_reel": True}}
    return plan(read_ring({"band": band, "wires": wires, **rest}), paths=True)


def test_advance_of_a_cycle_worked_out_beforehand() -> None:
    """A3 AB1 → 4w, A1 AB1 B1 → 2w, AB2 BC2 → 4w; A3 AB1 with d 1.25, w 0.5: 25.6 mm a cycle of 2.0 mm. By hand, for this project."""
    for program, wraps in (("A3 AB1", 4), ("A1 AB1 B1", 2), ("AB2 BC2", 4)):
        count = base_wires(program)
        weave = Weave(read_program(program, count, ""), count, 1.25, 0.5, 0.5, 1.0)
        assert weave.cycle_mm == pytest.approx(wraps * 0.5)
    weave = Weave(read_program("A3 AB1", 2, ""), 2, 1.25, 0.5, 0.5, 1.0)
    assert weave.wire_per_cycle_mm == pytest.approx(25.6, abs=0.05)
    loops = 3 * math.pi * 1.75 + math.pi * 1.75 + 2 * 1.75
    assert loops == pytest.approx(25.5, abs=0.05)
    assert weave.wire_per_cycle_mm == pytest.approx(3 * math.hypot(math.pi * 1.75, 0.5) + math.hypot(math.pi * 1.75 + 3.5, 0.5))


def test_half_way_round_a_flat_bead() -> None:
    """About 380 mm of 0.5 mm wire goes half-way round a 14 mm flat bead and leaves a small tail (common practice, no source)."""
    weave = Weave(read_program("A3 AB1", 2, ""), 2, 1.25, 0.5, 0.5, 1.0)
    # The frame's middle runs outside the bead by the weave wire and half the frame.
    half_way = math.pi * (14 / 2 + 0.5 + weave.pitch_mm / 2 + 1.25 / 2)
    needed = half_way / weave.cycle_mm * weave.wire_per_cycle_mm
    assert 300 < needed < 375


@given(programs, st.sampled_from(["0.25 mm", "0.3 mm", "0.4 mm", "0.5 mm"]), st.integers(4, 14))
def test_a_guide_at_the_size_ends_two_weave_wires_small(program: str, weave: str, size: int) -> None:
    told = woven(program, weave=weave, finger={"size": f"US {size}"}, sizing={"school": "at-size"})
    wide = told.wide_band_us
    assert told.finished.inside_diameter_mm == pytest.approx(
        told.target.inside_diameter_mm + wide * 0.8128 - 2 * float(weave.split()[0]), abs=1e-3
    )


def test_weavers_go_one_up() -> None:
    """0.4 mm over two 0.8 mm wires, to a bare guide at the target, ends one US size small (common practice, no source)."""
    told = woven("A3 AB1", sizing={"school": "at-size"})
    (school,) = (s for s in told.schools if s.school == "at-size")
    assert school.off_by_us == pytest.approx(-1, abs=0.05)
    assert abs(next(s for s in told.schools if s.school == "one-up").off_by_us) < 0.05


@given(programs, st.integers(4, 56))
def test_whole_cycles_mirrored_fill_the_flat_length(program: str, quarters: int) -> None:
    told = woven(program, finger={"size": f"US {quarters / 4}"})
    fit = told.fit
    assert fit is not None
    radius = told.finished.inside_diameter_mm / 2 + 0.4 + 0.4
    assert fit.target_mm == pytest.approx(2 * math.pi * radius - 8, abs=1e-2)
    assert fit.repeats % 2 == 0
    assert fit.made_mm == pytest.approx(fit.repeats * fit.repeat_mm, abs=1e-2)
    assert abs(fit.left_each_end_mm) <= fit.repeat_mm / 2 + 1e-3
    used = sum(w.net_mm for w in told.wires if w.role == "weave")
    assert used == pytest.approx(fit.repeats * fit.wire_per_repeat_mm, rel=1e-3)


@pytest.mark.parametrize("program", sorted(PRESETS))
@pytest.mark.parametrize("weave_wires", [1, 2])
def test_woven_wires_dont_pass_through_each_other(program: str, weave_wires: int) -> None:
    told = woven(program, band={"weave_wires": weave_wires})
    assert told.drawing is not None
    base = [dense(s.points) for s in told.drawing.strands if s.role == "base" and s.kind == "arc"]
    # Every repeat is like the last: the first few are enough.
    fine = [dense(s.points)[:1600] for s in told.drawing.strands if s.kind == "weave"]
    for wire in fine:
        for other in base:
            assert cdist(wire, other).min() >= 0.9 * 0.6
        # Against itself: points that lie more than half a loop apart along the wire.
        apart = round(math.pi * 1.2 / 2 / 0.05)
        distances = cdist(wire, wire)
        rows, columns = np.indices(distances.shape)
        assert distances[np.abs(rows - columns) > apart].min() >= 0.9 * 0.4


def test_the_weave_can_go_either_way() -> None:
    there, back = (woven("A3 AB1", band={"direction": way}) for way in ("left to right", "right to left"))
    assert there.wires[-1].net_mm == pytest.approx(back.wires[-1].net_mm)
    assert there.drawing is not None and back.drawing is not None
    starts = [next(s.points[0] for s in told.drawing.strands if s.kind == "weave") for told in (there, back) if told.drawing]
    assert starts[0][0] > 0 > starts[1][0]


def test_the_ends_of_a_bundle_are_bound_together() -> None:
    short, long = (plan(read_ring({"band": {"style": "bundled", "lap_mm": lap}})).wires[-1] for lap in (4, 8))
    joins = [next(m for m in wire.moves if m.label.startswith("join")) for wire in (short, long)]
    assert [m.label for m in joins] == ["join ×5", "join ×10"]
    assert joins[1].length_mm == pytest.approx(2 * joins[0].length_mm, rel=1e-4)


def test_bundled_coils_dont_pass_through_the_wires() -> None:
    told = plan(read_ring({"band": {"style": "bundled"}, "finger": {"size": "US 3"}}), paths=True)
    assert told.drawing is not None
    base = [dense(s.points) for s in told.drawing.strands if s.role == "base"]
    bind = [dense(s.points) for s in told.drawing.strands if s.kind == "bind"]
    touching = 0.7 / 2 + 2 / (3 * math.pi) * 0.8
    for coil in bind:
        for wire in base:
            assert cdist(coil, wire).min() >= 0.9 * touching


def test_bundled_runs_are_shortened_to_reach_the_size() -> None:
    told = plan(
        read_ring(
            {"band": {"style": "bundled", "runs": "5 inner, 3 all"}, "wires": {"bind": {"diameter": "0.8 mm", "profile": "half-round"}}}
        )
    )
    fit = told.fit
    assert fit is not None
    coils = sum(m.count or 0 for w in told.wires if w.role == "bind" for m in w.moves)
    assert coils % 2 == 0
    assert fit.made_mm == pytest.approx(coils * 0.8)
    assert 0 <= fit.target_mm - fit.made_mm < 2 * 0.8
    runs = [m.label for w in told.wires if w.role == "bind" for m in w.moves if m.kind == "bind"]
    assert runs == runs[::-1]
    small, stretched = told.contributions
    assert small.mm < 0 and small.mm == pytest.approx(-stretched.mm)


@pytest.mark.parametrize(
    ("program", "count", "said"),
    [
        ("A3 AC1", 3, "“AC1” at character 4 isn't a row of neighbours"),
        ("A3 AB1 C1", 2, "“C1” at character 8 names wire C"),
        ("A0 AB1", 2, "“A0” at character 1 asks for 0 wraps"),
        ("AB1000000", 2, "asks for 100000"),
        ("A3 AB", 2, "“AB” at character 4 has no number"),
        ("A3 ?", 2, "“?” at character 4 is no wire's letter"),
        ("", 2, "empty"),
        ("A3", 2, "nothing holds A and B together"),
        ("AB1 " * 13, 2, "13 groups"),
        ("BA1", 2, "isn't a row of neighbours"),
    ],
)
def test_programs_that_cant_be_woven_are_refused_at_the_character(program: str, count: int, said: str) -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"band": {"style": "woven", "program": program, "base_wires": count}}))
    (fault,) = refused.value.faults
    assert fault.field == "band.program"
    assert said in fault.reason


@pytest.mark.parametrize(
    ("band", "wires", "field"),
    [
        ({"style": "woven"}, {"weave": {"diameter": "1 mm"}}, "wires.weave.diameter"),
        ({"style": "woven"}, {"base": {"diameter": "1 mm", "profile": "square"}}, "wires.base.profile"),
        ({"style": "woven", "program": "AB20 A20"}, {"weave": {"diameter": "0.8 mm"}}, "band.program"),
        ({"style": "bundled", "runs": "5 outer"}, {}, "band.runs"),
        ({"style": "bundled", "runs": "5 inner"}, {}, "band.runs"),
        ({"style": "bundled", "runs": "5 all, 99999999 inner"}, {}, "band.runs"),
        ({"style": "stacked"}, {"band": {"diameter": "1.6 mm", "metal": "stainless"}}, "wires.band.metal"),
    ],
)
def test_bands_that_cant_be_made_are_refused(band: dict[str, Any], wires: dict[str, Any], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"band": band, "wires": wires}))
    assert [f.field for f in refused.value.faults] == [field]

"""Woven and bundled bands: the program, whole repeats, and wires that don't pass through each other."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.distance import cdist

from pliant_coil.core.mechanics.program import PRESETS, read_program
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal
from tests.core.polylines import dense

programs = st.sampled_from(sorted(PRESETS))


def base_wires(program: str) -> int:
    return max("ABCD".index(letter) for letter in program if letter in "ABCD") + 1


def woven(program: str, base: str = "0.8 mm", weave: str = "0.4 mm", **rest: Any) -> Plan:
    band = {"style": "woven", "program": program, "base_wires": base_wires(program), **rest.pop("band", {})}
    wires = {"base": {"diameter": base}, "weave": {"diameter": weave, "from_reel": True}}
    return plan(read_ring({"band": band, "wires": wires, **rest}), paths=True)


def test_advance_of_a_cycle_worked_out_beforehand() -> None:
    """A3 AB1 → 4w, A1 AB1 B1 → 2w, AB2 BC2 → 4w: the largest number of wraps that one base wire carries. By counting."""
    for program, wraps in (("A3 AB1", 4), ("A1 AB1 B1", 2), ("AB2 BC2", 4)):
        count = base_wires(program)
        weave = Weave(read_program(program, count, ""), count, 1.25, 0.5, 0.5, 1.0)
        assert weave.cycle_mm == pytest.approx(wraps * 0.5)


def test_half_way_round_a_flat_bead() -> None:
    """About 380 mm of 0.5 mm wire goes half-way round a 14 mm flat bead and leaves a small tail (common practice, no source)."""
    weave = Weave(read_program("A3 AB1", 2, ""), 2, 1.25, 0.5, 0.5, 1.0)
    # The frame's middle runs outside the bead by the weave wire and half the frame.
    half_way = math.pi * (14 / 2 + 0.5 + weave.pitch_mm / 2 + 1.25 / 2)
    needed = half_way / weave.cycle_mm * weave.wire_per_cycle_mm
    assert 300 < needed < 375


@given(st.floats(1, 3), st.floats(0.6, 1.2), st.floats(0.25, 0.5))
def test_a_folded_wire_passes_loose_wraps_too(packing: float, base: float, wire: float) -> None:
    """Each half wraps its own pair twice a cycle, and goes a cycle on: never less than wraps that go on evenly take, nor much more."""
    weave = Weave(read_program("AB2 BC2", 3, ""), 3, base, wire, wire, packing, folded=True)
    loop = 2 * (base + wire) + math.pi * (base + wire)
    evenly = 4 * math.hypot(loop, 4 * wire * packing / 2)
    assert 0.985 * evenly < weave.wire_per_cycle_mm < 1.06 * evenly
    close = Weave(read_program("AB2 BC2", 3, ""), 3, base, wire, wire, 1.0, folded=True)
    assert close.wire_per_cycle_mm == pytest.approx(4 * math.hypot(loop, wire))
    assert weave.wire_per_cycle_mm >= close.wire_per_cycle_mm - 1e-9


@given(programs, st.sampled_from(["0.25 mm", "0.3 mm", "0.4 mm", "0.5 mm"]), st.integers(4, 14))
def test_a_woven_band_comes_off_at_what_it_was_formed_at(program: str, weave: str, size: int) -> None:
    """A scrap of the base wire bent to the mandrel is as long as the weave when it is bent two weave wires larger."""
    told = woven(program, weave=weave, finger={"size": f"US {size}"})
    assert told.finished.inside_diameter_mm == pytest.approx(told.target.inside_diameter_mm, abs=1e-3)
    assert told.start.inside_diameter_mm == pytest.approx(told.finished.inside_diameter_mm, abs=1e-3)
    assert told.guide is not None
    assert told.guide.inside_diameter_mm == pytest.approx(told.start.inside_diameter_mm + 2 * float(weave.split()[0]), abs=1e-3)


def test_a_habit_of_one_up_ends_one_too_large() -> None:
    at_size, one_up = (next(s for s in woven("A3 AB1").schools if s.school == name) for name in ("at-size", "one-up"))
    assert (at_size.off_by_us, one_up.off_by_us) == pytest.approx((0.0, 1.0), abs=0.01)


@given(programs, st.integers(4, 56))
def test_whole_cycles_mirrored_fill_the_flat_length(program: str, quarters: int) -> None:
    told = woven(program, finger={"size": f"US {quarters / 4}"}, band={"start": "third" if base_wires(program) == 3 else "end"})
    fit = told.fit
    assert fit is not None
    # The weave's middle line: half the opening, the fine wire below the base wires, half a base wire.
    radius = told.finished.inside_diameter_mm / 2 + 0.4 + 0.4
    assert fit.target_mm == pytest.approx(2 * math.pi * radius - 8, abs=1e-2)
    assert fit.made_mm == pytest.approx(fit.repeats * fit.repeat_mm, abs=1e-2)
    assert abs(fit.left_each_end_mm) <= fit.repeat_mm / 2 + 1e-3
    used = sum(m.length_mm for w in told.wires for m in w.moves if m.kind == "weave")
    assert used == pytest.approx(fit.repeats * fit.wire_per_repeat_mm, rel=1e-3)


@pytest.mark.parametrize("program", sorted(PRESETS))
@pytest.mark.parametrize("start", ["end", "middle"])
def test_woven_wires_dont_pass_through_each_other(program: str, start: str) -> None:
    told = woven(program, band={"start": start})
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
        # Bent, wraps that lie a wire's width apart on the middle line close up inside: by 1 − (9.07 + 0.2)/(9.07 + 0.8), 6 %. The one wire of
        # four bases squeezes between two of them where it changes over.
        least = 0.68 if base_wires(program) == 4 else 0.84
        assert distances[np.abs(rows - columns) > apart].min() >= least * 0.4
    if len(fine) == 2:
        assert cdist(fine[0], fine[1]).min() >= 0.84 * 0.4


def test_the_weave_can_go_either_way() -> None:
    there, back = (woven("A3 AB1", band={"direction": way}) for way in ("left to right", "right to left"))
    assert there.wires[-1].net_mm == pytest.approx(back.wires[-1].net_mm)
    assert there.drawing is not None and back.drawing is not None
    starts = [next(s.points[0] for s in told.drawing.strands if s.kind == "weave") for told in (there, back) if told.drawing]
    assert starts[0][0] > 0 > starts[1][0]


def test_bundled_coils_dont_pass_through_the_wires() -> None:
    told = plan(read_ring({"band": {"style": "bundled"}, "finger": {"size": "US 3"}}), paths=True)
    assert told.drawing is not None
    base = [dense(s.points) for s in told.drawing.strands if s.role == "base"]
    bind = [dense(s.points) for s in told.drawing.strands if s.role == "bind" and "join" not in s.id]
    assert base and bind
    # A square wire's side from its middle, and a half-round's centroid above its flat, 4/(3π) of its radius (any table of sections).
    touching = 0.8 / 2 + 4 / (3 * math.pi) * 0.45
    one_coil = 250
    for coils in bind:
        # The outer wires come and go within the first and the last coil of a run.
        between = coils[one_coil:-one_coil]
        for wire in base:
            assert not len(between) or cdist(between, wire).min() >= 0.9 * touching


def test_coils_touch_on_the_inside_of_the_bend() -> None:
    """N coils of w side by side fill the angle N·w over the radius of what touches: inside the band, under the strands."""
    told = plan(read_ring({"band": {"style": "bundled"}, "finger": {"size": "US 7"}}))
    fit = told.fit
    assert fit is not None
    assert fit.made_mm == pytest.approx(fit.repeats * 0.9, abs=0.01)
    assert 0 <= fit.target_mm - fit.made_mm < 2 * 0.9
    # Formed a quarter size small, the US system's quarter being 0.2032 mm, and stretched by as much.
    assert told.target.inside_diameter_mm - told.start.inside_diameter_mm == pytest.approx(0.2032, abs=0.3)
    assert told.contributions[0].mm == pytest.approx(0.2032, abs=1e-3)


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
    assert said in str(fault)

"""How a ring wears and how its surface is finished."""

import math
from typing import Any

import pytest

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.making.wearing import head_mass_g
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring

PEARL = {"diameter_mm": 8, "hole_mm": 1.2, "made_of": "pearl-or-shell"}


def planned(**parts: Any) -> Plan:
    return plan(read_ring(parts))


def codes(told: Plan) -> set[str]:
    return {warning.code for warning in told.warnings}


def test_a_heads_mass_is_its_stones_and_its_wire() -> None:
    # Pearl 2.72 g/cm³ (value from memory), copper 8.94; a sphere of 8 mm and the wire past it on both sides.
    ring = make_ring(read_ring({"head": {"style": "bead-lock", "bead": PEARL}, "wires": {"band": {"diameter": "0.8 mm"}}}))
    made = Solver(ring).at(18.0)
    sphere = math.pi / 6 * 8**3 * 2.72e-3
    past = sum(p.length_mm for led in made.work.onward.values() for p in led if p.move.kind != "wrap") * math.pi / 4 * 0.8**2 * 8.94e-3
    assert head_mass_g(made) == pytest.approx(sphere + past, rel=1e-3)


def test_a_heavy_stone_on_a_thin_band_rolls_round_and_a_light_one_stays() -> None:
    stone = {"length_mm": 18, "width_mm": 14, "height_mm": 8, "made_of": "hard-stone"}
    assert "top-heavy" in codes(planned(head={"style": "cage", "stone": stone}, band={"style": "turned"}))
    light = stone | {"length_mm": 10, "width_mm": 7, "height_mm": 4, "made_of": "wood"}
    assert "top-heavy" not in codes(planned(head={"style": "cage", "stone": light}, band={"style": "turned", "turns": 2}))


def test_what_catches_is_said() -> None:
    told = planned(head={"style": "bead-lock", "bead": {"diameter_mm": 15, "hole_mm": 1.5}}, finger={"size": "US 10"})
    assert {"bead-catches", "stands-high"} <= codes(told)


@pytest.mark.parametrize(
    ("metal", "bead", "finish", "expected"),
    [
        ("copper", PEARL, {"patina": True}, {"stone-takes-patina"}),
        ("copper", PEARL, {"polish": "tumbler"}, {"stone-wont-tumble"}),
        ("copper", PEARL, {"polish": "cloth"}, set()),
        ("stainless", {}, {"patina": True}, {"wont-darken"}),
        ("lacquered-copper", {}, {"polish": "rubber"}, {"coat-polished-off"}),
        ("sterling", {}, {"patina": True, "polish": "tumbler"}, set()),
    ],
)
def test_metals_and_stones_that_dont_stand_a_finish_are_named(metal: str, bead: Any, finish: Any, expected: set[str]) -> None:
    # Common practice, no source.
    told = planned(head={"style": "bead-lock", "bead": bead}, wires={"band": {"diameter": "0.8 mm", "metal": metal}}, finish=finish)
    surface = {"stone-takes-patina", "stone-wont-tumble", "wont-darken", "coat-polished-off"}
    assert codes(told) & surface == expected


def test_darkening_comes_before_polishing_and_both_after_the_last_reading() -> None:
    steps = [step.id for step in planned(finish={"patina": True, "polish": "rubber"}).steps]
    assert steps.index("re-round") < steps.index("patina") < steps.index("polish") < steps.index("feel")
    assert not {"patina", "polish"} & {step.id for step in planned().steps}


def test_a_closed_band_without_tails_can_be_darkened_in_the_sentence() -> None:
    phrases = {phrase.part for phrase in planned(band={"style": "stacked"}, finish={"patina": True}).sentence}
    assert "finish" in phrases


def test_a_stone_is_drawn_in_its_colour() -> None:
    told = plan(read_ring({"head": {"style": "bead-lock", "bead": {"colour": "garnet"}}}), paths=True)
    assert told.drawing is not None and {bead.colour for bead in told.drawing.beads} == {"garnet"}

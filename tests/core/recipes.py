"""Ring files for the tests: the example of the documentation, and every ring that hypothesis may think of."""

from typing import Any

from hypothesis import strategies as st

from pliant_coil.core.recipe import read_ring
from pliant_coil.core.refusal import Refusal
from pliant_coil.core.ring import make_ring

AMBER_MEADOW: dict[str, Any] = {
    "format": "pliant-coil/ring",
    "version": 1,
    "title": "Amber meadow ring",
    "finger": {"size": "US 6 1/2"},
    "wires": {"band": {"diameter": "20 AWG", "profile": "round", "metal": "copper", "temper": "soft"}},
    "band": {"style": "turned", "winding": "both-ways", "turns": 1},
    "head": {"style": "bead-lock", "bead": {"shape": "round", "diameter_mm": 7.0, "hole_mm": 1.1}},
    "finish": {"wraps_each_side": 2},
    "sizing": {"school": "geometry", "risk_of_running_out": 0.02, "tape": "1 mm", "grip": "hand"},
}

us_sizes = st.integers(4, 60).map(lambda quarters: quarters / 4)
wires = st.sampled_from([28, 26, 24, 22, 20, 18, 16]).map(lambda gauge: {"diameter": f"{gauge} AWG"})
turned = st.fixed_dictionaries(
    {"style": st.just("turned"), "winding": st.sampled_from(["both-ways", "one-way"]), "turns": st.integers(1, 4)}
)
free_bands = st.one_of(
    st.fixed_dictionaries({"style": st.just("open"), "overlap_mm": st.integers(4, 20), "eye_mm": st.sampled_from([1.5, 2, 3])}),
    st.fixed_dictionaries(
        {"style": st.just("twisted"), "wires": st.integers(2, 4), "lay_mm": st.integers(5, 20), "claw_mm": st.sampled_from([0, 12])}
    ),
    st.fixed_dictionaries({"style": st.just("stacked"), "rings": st.integers(2, 6), "hammered_share": st.sampled_from([0, 0.25, 0.35])}),
    st.sampled_from([("A3 AB1", 2), ("AB1", 2), ("A2 AB1", 2), ("A1 AB1 B1", 2), ("AB2 BC2", 3), ("AB1 BC1", 3)]).map(
        lambda weave: {"style": "woven", "program": weave[0], "base_wires": weave[1]}
    ),
    st.fixed_dictionaries({"style": st.just("braided"), "strands": st.sampled_from([3, 4, 6, 8])}),
    st.fixed_dictionaries({"style": st.just("bundled"), "strands": st.integers(3, 5)}),
)
bead_heads = st.floats(3, 9).map(lambda d: {"style": "bead-lock", "bead": {"diameter_mm": round(d, 1), "hole_mm": 1.5}})


@st.composite
def rings(draw: st.DrawFn) -> dict[str, Any]:
    """A ring file of any style; `makeable` keeps those that can be made."""
    band = draw(st.one_of(turned, st.just({"style": "crossed"}), free_bands))
    head = draw(st.one_of(st.just({"style": "none"}), bead_heads)) if band["style"] in ("turned", "crossed") else {"style": "none"}
    least = 1 if head["style"] == "bead-lock" or band["style"] == "crossed" else 0
    role = {"woven": "base", "bundled": "base"}.get(band["style"], "band")
    wire = draw(wires)
    if band["style"] == "bundled":
        wire = {**wire, "profile": "square"}
    return {
        "finger": {"size": f"US {draw(us_sizes)}"},
        "wires": {role: wire},
        "band": band,
        "head": head,
        "finish": {"wraps_each_side": draw(st.integers(least, 4))},
    }


def can_be_made(document: dict[str, Any]) -> bool:
    """Whether the core takes it."""
    try:
        make_ring(read_ring(document))
    except Refusal:
        return False
    return True


makeable = rings().filter(can_be_made)


def with_main_wire(document: dict[str, Any], diameter: str) -> dict[str, Any]:
    """The same ring with another wire in its main role."""
    ((role, wire),) = document["wires"].items()
    return {**document, "wires": {role: {**wire, "diameter": diameter}}}

"""Ring files for the tests: the example of the documentation, and every ring that hypothesis may think of."""

from typing import Any

from hypothesis import strategies as st

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
bands = st.fixed_dictionaries(
    {"style": st.just("turned"), "winding": st.sampled_from(["both-ways", "one-way"]), "turns": st.integers(1, 4)}
)
heads = st.one_of(
    st.just({"style": "none"}),
    st.floats(3, 9).map(lambda d: {"style": "bead-lock", "bead": {"diameter_mm": round(d, 1), "hole_mm": 1.5}}),
)


@st.composite
def rings(draw: st.DrawFn) -> dict[str, Any]:
    """A ring file that can be made."""
    head = draw(heads)
    return {
        "finger": {"size": f"US {draw(us_sizes)}"},
        "wires": {"band": draw(wires)},
        "band": draw(bands),
        "head": head,
        "finish": {"wraps_each_side": draw(st.integers(1 if head["style"] == "bead-lock" else 0, 4))},
    }

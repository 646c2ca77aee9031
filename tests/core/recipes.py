"""Ring files for the tests: the example of the documentation, and every ring that hypothesis may think of."""

from typing import Any

from hypothesis import strategies as st

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal

AMBER_MEADOW: dict[str, Any] = {
    "format": "pliant-coil/ring",
    "version": 2,
    "title": "Amber meadow ring",
    "finger": {"size": "US 6 1/2"},
    "wires": {"band": {"diameter": "20 AWG", "profile": "round", "metal": "copper", "temper": "soft"}},
    "band": {"style": "turned", "winding": "both-ways", "turns": 1},
    "head": {"style": "bead-lock", "bead": {"shape": "round", "diameter_mm": 7.0, "hole_mm": 1.1}},
    "finish": {"wraps_each_side": 2},
    "sizing": {"school": "geometry", "risk_of_running_out": 0.02, "tape": "1 mm", "tail": "pliers"},
}

us_sizes = st.integers(12, 52).map(lambda quarters: quarters / 4)
beads = st.floats(4, 8).map(lambda d: {"diameter_mm": round(d, 1), "hole_mm": 1.5})
metals = st.fixed_dictionaries(
    {"metal": st.sampled_from(["copper", "brass", "sterling", "bronze"]), "temper": st.sampled_from(["soft", "soft", "half-hard"])}
)
wound_heads = st.one_of(
    st.just({"style": "none"}),
    beads.map(lambda bead: {"style": "bead-lock", "bead": bead}),
    st.builds(lambda bead, by: {"style": "bead-lock", "bead": bead, "pass_by": by}, beads, st.sampled_from(["under-over", "under-both"])),
    beads.map(lambda bead: {"style": "nest", "bead": bead}),
)


supply = st.fixed_dictionaries(
    {"tape": st.sampled_from(["5 mm", "1 mm", "1/8 in", "1/4 in"]), "tail": st.sampled_from(["pliers", "fingers"])},
    optional={"room_for_width": st.sampled_from(["none", "quarter", "half"]), "risk_of_running_out": st.sampled_from([0.1, 0.02, 0.002])},
)
from_reel = st.sampled_from([False, False, True])


def _ring(
    role: str,
    diameters: list[str],
    band: st.SearchStrategy[Any],
    head: st.SearchStrategy[Any],
    sections: st.SearchStrategy[str] = st.just("round"),
) -> st.SearchStrategy[dict[str, Any]]:
    return st.builds(
        lambda size, diameter, section, metal, reel, its_band, its_head, locks, ends, sizing: {
            "finger": {"size": f"US {size}"},
            "wires": {role: {"diameter": diameter, "profile": section, "from_reel": reel, **metal}},
            "band": its_band,
            "head": its_head,
            "finish": {"wraps_each_side": locks, "ends": ends},
            "sizing": sizing,
        },
        us_sizes,
        st.sampled_from(diameters),
        sections,
        metals,
        from_reel,
        band,
        head,
        st.integers(1, 3),
        st.sampled_from(["hidden", "hidden", "loop", "scroll"]),
        supply,
    )


both_ways = st.builds(
    lambda t, g: {"style": "turned", "turns": t, "gather": g}, st.integers(1, 3), st.sampled_from(["none", "under-pass", "tail-wraps"])
)
one_way = st.builds(
    lambda t, g: {"style": "turned", "winding": "one-way", "turns": t, "gather": g},
    st.integers(1, 3),
    st.sampled_from(["none", "short-tail"]),
)
crossed = st.builds(
    lambda mm, w: {"style": "crossed", "crossing_mm": mm, "winding": w}, st.integers(5, 14), st.sampled_from(["both-ways", "one-way"])
)
opened = st.builds(lambda o: {"style": "open", "overlap_mm": o}, st.integers(4, 12))
weaves = st.sampled_from([("A3 AB1", 2), ("A2 AB2", 2), ("A1 AB1 B1", 2), ("AB2 BC2", 3)]).map(
    lambda w: {"style": "woven", "program": w[0], "base_wires": w[1]}
)
none = st.just({"style": "none"})

rings = st.one_of(
    _ring("band", ["22 AWG", "0.7 mm", "20 AWG", "0.9 mm"], st.one_of(both_ways, one_way, crossed), wound_heads),
    _ring("band", ["0.8 mm", "1 mm"], st.one_of(both_ways, one_way), none, st.sampled_from(["square", "half-round"])),
    _ring("band", ["1 mm", "1.1 mm", "18 AWG"], opened, st.one_of(none, st.just({"style": "double-coil", "outer_turns": 3}))),
    _ring("base", ["0.8 mm", "0.9 mm", "1 mm"], weaves, st.one_of(none, st.just({"style": "prongs"}))),
    _ring(
        "base", ["0.8 mm", "0.9 mm"], st.just({"style": "woven", "program": "A1 AB1 B1"}), st.just({"style": "open-frame", "side_mm": 7})
    ),
    _ring(
        "band",
        ["0.9 mm", "1 mm"],
        st.just({"style": "twisted"}),
        st.one_of(none, st.just({"style": "prongs", "stone": {"length_mm": 12, "width_mm": 9}})),
    ),
    _ring("band", ["0.5 mm", "0.6 mm"], st.sampled_from([4, 5, 6, 8]).map(lambda n: {"style": "braided", "strands": n}), none),
    _ring("band", ["1.3 mm", "1.6 mm"], st.integers(1, 4).map(lambda n: {"style": "stacked", "rings": n}), none),
    _ring("band", ["0.7 mm"], st.just({"style": "folded-pair"}), none),
    st.builds(
        lambda size, n: {"finger": {"size": f"US {size}"}, "band": {"style": "bundled", "strands": n}}, us_sizes, st.sampled_from([3, 4, 5])
    ),
)


def can_be_made(document: dict[str, Any]) -> bool:
    """Whether the core takes it."""
    try:
        ring = make_ring(read_ring(document))
        Solver(ring).solved(ring.aim_mm)
    except Refusal:
        return False
    return True


makeable = rings.filter(can_be_made)

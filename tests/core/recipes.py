"""Ring files for the tests: the example of the documentation, and every ring that hypothesis may think of."""

from typing import Any

from hypothesis import strategies as st

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal

AMBER_MEADOW: dict[str, Any] = {
    "format": "pliant-coil/ring",
    "version": 3,
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
    st.builds(
        lambda row, by: {"style": "bead-lock", "beads": row, "pass_by": by},
        st.sampled_from(["3 × 4", "4 5 4", "3 4 3"]),
        st.sampled_from(["beside", "under-over", "under-both"]),
    ),
    beads.map(lambda bead: {"style": "nest", "bead": bead}),
)


strung = st.builds(
    lambda middle, side, play, rows: {"style": "bead-rows", "middle_beads": middle, "side_beads": side, "play_mm": play, "rows": rows},
    st.sampled_from(["3 × 5", "4 6 4", "2 × 4"]),
    st.sampled_from(["4 × 3", "5 × 3", "fill"]),
    st.sampled_from([0, 1.5]),
    st.sampled_from([3, 2]),
)
rosettes = st.builds(
    lambda inner, outer, first, petal: {
        "style": "loop-rosette",
        "loops_inner": inner,
        "loops_outer": outer,
        "first_tail": first,
        "petal_mm": petal,
        "bead": {"diameter_mm": 5, "hole_mm": 0.7},
    },
    st.sampled_from([5, 7, "fill"]),
    st.sampled_from([7, 10, "fill"]),
    st.sampled_from(["right", "left"]),
    st.sampled_from([3.5, 4.5]),
)
hoop_seats = st.builds(
    lambda b, seat, on: {"style": "hoop-seat", "bead": {"diameter_mm": b, "hole_mm": 1.2}, "seat": seat, "lock_on": on},
    st.sampled_from([6, 8]),
    st.sampled_from(["stacked", "facing"]),
    st.sampled_from(["band", "hoops"]),
)
cages = st.builds(
    lambda passes, size, shape, slack, motif: {
        "style": "cage",
        "motif": motif,
        "passes": passes,
        "stone": {"shape": shape, "length_mm": size, "width_mm": 0.7 * size, "height_mm": 6},
        "slack_share": slack,
    },
    st.sampled_from([["front", "back", "middle"], ["back", "front"], ["diagonal", "other-diagonal", "middle"]]),
    st.sampled_from([12, 15]),
    st.sampled_from(["ellipsoid", "slab"]),
    st.sampled_from([0.0, 0.04]),
    st.sampled_from(["none", "spiral", "wave", "crescent", "two-loops"]),
)
wrapped = st.builds(
    lambda turns, lies: {"style": "wrapped-stone", "nest_turns": turns, "lies": lies},
    st.integers(1, 3),
    st.sampled_from(["flat", "climbing"]),
)
swirls = st.builds(
    lambda reach, end: {"style": "swirl", "reach_deg": reach, "end": end}, st.integers(20, 60), st.sampled_from(["scroll", "hook"])
)
signs = st.one_of(
    st.builds(
        lambda rod, tip, lies, to: {"style": "outline", "rod_mm": rod, "tip_angle_deg": tip, "lies": lies, "tip_to": to},
        st.sampled_from([3.5, 4.0]),
        st.integers(70, 100),
        st.sampled_from(["bowed", "flat"]),
        st.sampled_from(["wrist", "nail", "side"]),
    ),
    st.builds(
        lambda n, to: {"style": "outline", "sign": "loops", "loops_count": n, "tip_to": to},
        st.integers(1, 2),
        st.sampled_from(["wrist", "side"]),
    ),
)
discs = st.builds(lambda n, k: {"style": "spiked-disc", "spikes": n, "wraps_between": k}, st.sampled_from([8, 10]), st.integers(2, 3))
sewn_on = st.one_of(discs, st.sampled_from(["chain", "cluster"]).map(lambda layout: {"style": "beaded-hoops", "layout": layout}))


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
        st.one_of(
            none,
            st.sampled_from(["round-all", "eights"]).map(
                lambda binding: {"style": "prongs", "stone": {"length_mm": 12, "width_mm": 9}, "binding": binding}
            ),
        ),
    ),
    _ring("band", ["0.5 mm", "0.6 mm"], st.sampled_from([4, 5, 6, 8]).map(lambda n: {"style": "braided", "strands": n}), none),
    _ring("band", ["1.3 mm", "1.6 mm"], st.integers(1, 4).map(lambda n: {"style": "stacked", "rings": n}), none),
    _ring("band", ["0.7 mm"], st.just({"style": "folded-pair"}), none),
    st.builds(
        lambda size, n, head: {"finger": {"size": f"US {size}"}, "band": {"style": "bundled", "strands": n}, "head": head},
        us_sizes,
        st.sampled_from([3, 4, 5]),
        st.one_of(none, st.just({"style": "swirl"})),
    ),
    _ring("band", ["22 AWG", "0.7 mm"], both_ways, st.one_of(strung, rosettes)),
    _ring("band", ["0.8 mm", "20 AWG"], st.one_of(both_ways, one_way, crossed), st.one_of(hoop_seats, cages, wrapped, swirls)),
    _ring("band", ["1 mm", "18 AWG"], st.one_of(opened, both_ways, crossed), signs),
    _ring("base", ["0.8 mm", "0.9 mm"], weaves, st.sampled_from(["interlace", "framed-bead"]).map(lambda style: {"style": style})),
    _ring("band", ["0.7 mm", "0.8 mm"], st.one_of(both_ways, crossed), sewn_on),
    _ring(
        "band",
        ["1.3 mm", "1.5 mm"],
        st.integers(3, 5).map(lambda n: {"style": "stacked", "rings": n}),
        st.integers(3, 5).map(lambda q: {"style": "wave", "half_waves": q}),
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

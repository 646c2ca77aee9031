"""What rings teach of a hand: the check values of the design, and the same by numpy's own linear algebra."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.belief import Belief
from pliant_coil.core.bench.hand import SizeRead, Used, changed, learned, left_out, size_offset
from pliant_coil.core.trade.hand import HAND

ARCS, WRAPS = (112, 112, 118, 106, 112, 120), (38, 38, 25, 57, 38, 61)
USED = (152, 154, 145, 168, 151, 186)
RINGS = [Used({"arc": a, "wrap": w}, y) for a, w, y in zip(ARCS, WRAPS, USED, strict=True)]


def test_six_rings_of_one_pupil() -> None:
    assert [ring.variance for ring in RINGS] == pytest.approx([4.5648, 4.5648, 3.3924, 7.3220, 4.5648, 8.3936], abs=1e-4)
    after = [learned(RINGS[: n + 1], learn_noise=False, robust=False, forget=False).factor("wrap").share for n in range(6)]
    assert after == pytest.approx([0.0217, 0.0398, 0.0400, 0.0518, 0.0465, 0.0524], abs=1e-4)
    hand = learned(RINGS, learn_noise=False, forget=False)
    arc, wrap = hand.factor("arc"), hand.factor("wrap")
    assert (arc.share, wrap.share, arc.sd, wrap.sd) == pytest.approx((0.0052, 0.0524, 0.0115, 0.0340), abs=1e-4)
    assert (wrap.low, wrap.high) == pytest.approx((-0.014, 0.119), abs=0.001)
    shared = hand.belief.covariance[hand.belief.names.index("arc")][hand.belief.names.index("wrap")]
    assert shared == pytest.approx(-3.102e-4, abs=1e-7)
    z = 2.0537
    more, sigma = hand.expects([("arc", 112), ("wrap", 38)])
    assert (150 + more, z * sigma) == pytest.approx((152.57, 4.37), abs=0.01)
    more, sigma = learned([]).expects([("arc", 112), ("wrap", 38)])
    assert (150 + more, z * sigma) == pytest.approx((150, 6.99), abs=0.01)


def test_a_ring_that_was_read_wrong_counts_hardly() -> None:
    odd = [*RINGS[:3], Used({"arc": 106, "wrap": 57}, 190), *RINGS[4:]]
    assert learned(odd, learn_noise=False, robust=False, forget=False).factor("wrap").share == pytest.approx(0.1521, abs=1e-4)
    hand = learned(odd, learn_noise=False, forget=False)
    assert (hand.factor("arc").share, hand.factor("wrap").share) == pytest.approx((0.0052, 0.0525), abs=2e-4)
    assert hand.weights[3] == pytest.approx(0.0630, abs=2e-4)
    assert hand.factor("wrap").sd == pytest.approx(0.0365, abs=2e-4)
    assert hand.odd == (3,)
    without = learned(left_out(odd, 3, "read wrong"), learn_noise=False, forget=False)
    assert without.weights[3] == 0 and without.odd == ()
    others = [ring for k, ring in enumerate(odd) if k != 3]
    assert without.factor("wrap").share == pytest.approx(learned(others, learn_noise=False, forget=False).factor("wrap").share)


def test_a_hand_steadier_than_others_is_noticed() -> None:
    hand = learned(RINGS, forget=False)
    assert hand.noise == pytest.approx(0.7722, abs=1e-3)
    assert (hand.factor("arc").share, hand.factor("wrap").share) == pytest.approx((0.0048, 0.0549), abs=2e-4)


def test_three_weaves_alone() -> None:
    hand = learned([Used({"weave": x}, y) for x, y in ((400, 428), (410, 441), (395, 418))], learn_noise=False, forget=False)
    weave = hand.factor("weave")
    assert (weave.share, weave.sd) == pytest.approx((0.0601, 0.0272), abs=1e-4)
    assert weave.used and not hand.factor("wrap").used, "a kind that no ring has shown changes no plan"


def test_sizes_by_mandrel_and_band() -> None:
    reads = [SizeRead("a1", "f1", off) for off in (-0.20, -0.30, -0.22)]
    reads += [SizeRead("a1", "f2", off) for off in (-0.10, -0.15)] + [SizeRead("a2", "f2", 0.14)]
    assert size_offset(reads, "a1", "f1")[:2] == pytest.approx((-0.2246, 0.0652), abs=1e-4)
    assert size_offset(reads, "a1", "f2")[:2] == pytest.approx((-0.1207, 0.0767), abs=1e-4)
    assert size_offset(reads, "a2", "f1") == pytest.approx((0.0074, 0.1349, 1), abs=1e-4)


rings = st.lists(
    st.builds(lambda a, w, off: Used({"arc": a, "wrap": w}, a + w + off), st.floats(60, 200), st.floats(5, 90), st.floats(-15, 15)),
    min_size=1,
    max_size=12,
)


@given(rings)
def test_one_ring_after_the_other_is_the_same_as_all_at_once(seen: list[Used]) -> None:
    # Another road: A = Λ + Σ xxᵀ/R, m = A⁻¹ Σ x d/R, by numpy.
    x = np.array([[ring.lengths["arc"], ring.lengths["wrap"]] for ring in seen])
    d = np.array([ring.used_mm - ring.planned_mm for ring in seen])
    r = np.array([ring.variance for ring in seen])
    precision = np.diag([1 / HAND["arc"].bias ** 2, 1 / HAND["wrap"].bias ** 2]) + (x / r[:, None]).T @ x
    posterior = np.linalg.inv(precision)
    mean = posterior @ (x.T @ (d / r))
    hand = learned(seen, learn_noise=False, robust=False, forget=False)
    assert [hand.factor("arc").share, hand.factor("wrap").share] == pytest.approx(mean, abs=1e-8)
    assert [hand.factor("arc").sd, hand.factor("wrap").sd] == pytest.approx(np.sqrt(np.diag(posterior)), rel=1e-6)


def test_simulated_makers_are_covered_as_often_as_said() -> None:
    """Makers drawn from the spread between makers, twenty rings each, one in twenty odd: 93 to 97 % of the intervals hold the truth."""
    random = np.random.default_rng(20261125)
    held, runs = 0, 400
    for _ in range(runs):
        truth = {"arc": random.normal(0, HAND["arc"].bias), "wrap": random.normal(0, HAND["wrap"].bias)}
        seen = []
        for _ in range(20):
            lengths = {"arc": random.uniform(90, 130), "wrap": random.uniform(20, 70)}
            own = random.normal(0, HAND["arc"].noise * lengths["arc"]) + random.normal(0, HAND["wrap"].noise * lengths["wrap"])
            used = float(sum(lengths[kind] * (1 + truth[kind]) for kind in lengths) + own + random.normal(0, 1))
            if random.random() < 0.05:
                used *= 1 + random.choice([-1, 1]) * random.uniform(0.1, 0.3)
            seen.append(Used({"arc": lengths["arc"], "wrap": lengths["wrap"]}, used))
        wrap = learned(seen, forget=False).factor("wrap")
        held += int(wrap.low <= truth["wrap"] <= wrap.high)
    assert 0.93 <= held / runs <= 0.975


@given(st.floats(0.01, 1), st.floats(-5, 5), st.floats(0.001, 4), st.floats(0.1, 3))
def test_seeing_more_is_never_knowing_less(spread: float, value: float, noise: float, taken: float) -> None:
    belief = Belief.prior({"a": spread, "b": 1.0})
    after = belief.observed({"a": taken, "b": -1.0}, value, noise)
    for row in ({"a": 1.0}, {"b": 1.0}, {"a": 0.3, "b": 2.0}):
        assert after.variance(row) <= belief.variance(row) + 1e-12
    assert math.isfinite(after.value({"a": 1.0}))


def rings_of(random: np.random.Generator, share: float, n: int) -> list[Used]:
    """Rings of a hand that is off by this share in its wraps, with the noise of makers at large."""
    made = []
    for _ in range(n):
        arc, wrap = random.uniform(90, 130), random.uniform(25, 60)
        used = arc * (1 + random.normal(0, HAND["arc"].noise)) + wrap * (1 + share + random.normal(0, HAND["wrap"].noise))
        made.append(Used({"arc": arc, "wrap": wrap}, used + random.normal(0, 1)))
    return made


def test_a_changed_hand_raises_its_alarm() -> None:
    random = np.random.default_rng(11)
    rings_until = []
    for _ in range(40):
        rings = rings_of(random, 0.03, 25)
        then = rings_of(random, 0.03 + 0.20, 15)
        rings_until.append(next((n for n in range(1, 16) if changed([*rings, *then[:n]])), 99))
    assert np.median(rings_until) <= 5
    assert sorted(rings_until)[-4] < 99, "and hardly ever not at all"


def test_a_steady_hand_hardly_ever_does() -> None:
    random = np.random.default_rng(12)
    alarms = 0
    for _ in range(25):
        rings = rings_of(random, 0.04, 30)
        alarms += any(changed(rings[:n]) for n in range(8, 31, 2))
    assert alarms <= 5, "the design says 8 % in 48 rings"
    assert not changed(rings_of(random, 0.5, 6)), "six rings have nothing before them to differ from"

"""Wires as makers name them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.styles.parameters import WireSpec, read_wire
from pliant_coil.core.trade.gauges import awg_mm, nearest_awg, nearest_swg, read_diameter, swg_mm
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write


@pytest.mark.parametrize(
    ("text", "diameter", "doubtful"),
    [("20 AWG", 0.812, False), ("20awg", 0.812, False), ("AWG 22", 0.644, False), ("18 SWG", 1.219, False), ("20 ga", 0.812, True),
     ("20", 0.812, True), ("0.8", 0.8, False), (".8mm", 0.8, False), ("0,8 mm", 0.8, False), ("1/32 in", 0.794, False), ('0.032"', 0.813, False), ("2", 2.0, False)],
)  # fmt: skip
def test_reads_a_diameter(text: str, diameter: float, doubtful: bool) -> None:
    read = read_diameter(text, "wires.band.diameter")
    assert read.diameter_mm == pytest.approx(diameter, abs=6e-4)
    assert bool(read.doubt) == doubtful


def test_doubt_says_what_the_number_means_elsewhere() -> None:
    doubt = write(read_diameter("20 ga", "").doubt, Reader())
    assert "0.81 mm" in doubt and "0.91 mm" in doubt and "0.8 mm" in doubt


@pytest.mark.parametrize("text", ["", "thick", "99", "0", "0 mm", "-1 mm", "9 mm", "5 AWG", "1/0 in", "nan", "20 20"])
def test_refuses_a_diameter(text: str) -> None:
    with pytest.raises(Refusal, match=r"wires\.band\.diameter"):
        read_diameter(text, "wires.band.diameter")


@given(st.integers(0, 36))
def test_gauge_numbers_go_both_ways(number: int) -> None:
    assert nearest_awg(awg_mm(number)) == number
    assert nearest_swg(swg_mm(number)) == number
    assert awg_mm(number) > awg_mm(number + 1)


def test_a_strip_on_its_edge_is_refused() -> None:
    with pytest.raises(Refusal, match=r"wires\.band\.strip_width_mm"):
        read_wire(WireSpec(diameter="2 mm", profile="flat", strip_width_mm=1), "band")

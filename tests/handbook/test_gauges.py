"""Wire gauges against the tables that the `fluids` package carries (ASTM B258, BS 3737) and printed values."""

import pytest
from fluids import gauge_from_t, t_from_gauge

from pliant_coil.core.trade.gauges import awg_mm, swg_mm


@pytest.mark.parametrize("number", range(8, 37))
def test_american_gauge_against_fluids(number: int) -> None:
    # fluids tabulates AWG to 4 or 5 decimals of an inch.
    assert awg_mm(number) == pytest.approx(t_from_gauge(number, SI=True, schedule="AWG") * 1000, abs=0.004)
    assert gauge_from_t(awg_mm(number) / 1000, SI=True, schedule="AWG") == number


@pytest.mark.parametrize("number", range(1, 41))
def test_british_gauge_against_fluids(number: int) -> None:
    assert swg_mm(number) == pytest.approx(t_from_gauge(number, SI=True, schedule="BSWG") * 1000, abs=0.003)


def test_printed_values() -> None:
    """ASTM B258: 0000 is 0.46 in and 36 is 0.005 in by definition."""
    assert awg_mm(-3) == pytest.approx(0.46 * 25.4)
    assert awg_mm(36) == pytest.approx(0.005 * 25.4)
    assert [round(awg_mm(n), 3) for n in (20, 22, 26)] == [0.812, 0.644, 0.405]

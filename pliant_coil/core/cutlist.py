"""What to cut: the wire's net length, what is held, trimmed and risked on top, and the tape's next mark.

cut = net + grip tails + 1 mm a flush trim + z·σ, rounded up. Tails and trims are common practice, no source.
"""

from dataclasses import dataclass
from functools import lru_cache
from statistics import NormalDist

from pliant_coil.core.measures import MM_PER_INCH, fraction_text, round_up
from pliant_coil.core.moves import Grip, Move, Spare
from pliant_coil.core.recipe import Sizing, Tape
from pliant_coil.core.wires import WireRun

GRIP_MM = {"hand": 25.0, "pliers": 12.0}
"""What an end needs to be pulled on, by hand and with pliers."""
TRIM_MM = 1.0
"""Lost at each end that is cut flush."""
TAPE_STEP_MM: dict[Tape, float] = {"1 mm": 1.0, "5 mm": 5.0, "1/8 in": MM_PER_INCH / 8, "1/4 in": MM_PER_INCH / 4}
OTHER_RISKS = (0.1, 0.02, 0.002)
"""Shown side by side, so that the choice is made on what it costs."""


@dataclass(frozen=True, slots=True)
class Cut:
    """A piece as it is cut. For work off the reel, `cut_mm` is what runs off, and nothing is rounded."""

    net_mm: float
    sigma_mm: float
    cut_mm: float
    cut_in: str
    mass_g: float
    moves: tuple[Move, ...]
    """The whole piece from end to end: spare, hold, the ring's own moves, hold, spare."""
    arithmetic: str


@lru_cache(maxsize=64)
def standard_deviations(risk: float) -> float:
    """z for which a normal variable exceeds it with probability `risk`."""
    return NormalDist().inv_cdf(1 - risk)


def inches_text(length_mm: float, parts: int = 8) -> str:
    """`length_mm` raised to the next 1/`parts` inch, as a fraction: `8 1/4`."""
    return fraction_text(round_up(length_mm / MM_PER_INCH, 1 / parts), parts)


def cut_length_mm(run: WireRun, sizing: Sizing, risk: float) -> float:
    """What to cut for `run` at a given risk of running out, on the maker's tape."""
    return _rounded(_needed_mm(run, sizing, risk), run, sizing.tape)


def _needed_mm(run: WireRun, sizing: Sizing, risk: float) -> float:
    held = GRIP_MM[sizing.grip] * sum(run.held_ends)
    return run.net_mm + run.scrap_mm + held + 2 * TRIM_MM + standard_deviations(risk) * run.sigma_mm


def _rounded(needed_mm: float, run: WireRun, tape: Tape) -> float:
    return needed_mm if run.wire.from_reel else round_up(needed_mm, TAPE_STEP_MM[tape])


def cut(run: WireRun, sizing: Sizing) -> Cut:
    """The piece that `run` needs, laid out from end to end."""
    net, sigma, risk = run.net_mm, run.sigma_mm, sizing.risk_of_running_out
    grip = GRIP_MM[sizing.grip]
    held = sum(run.held_ends)
    length = _rounded(_needed_mm(run, sizing, risk), run, sizing.tape)
    spare = (length - net - run.scrap_mm - held * grip) / 2
    z = standard_deviations(risk)
    why = f"{TRIM_MM:g} mm to trim, half of {z:.2f} × {sigma:.1f} mm in case, and of the rounding to the tape"
    moves: list[Move] = [Spare("spare", spare, why)]
    if run.held_ends[0]:
        moves.append(Grip("hold", grip))
    moves += run.moves
    if run.held_ends[1]:
        moves.append(Grip("hold", grip))
    moves.append(Spare("spare", spare, why))
    scrap = f" + {run.scrap_mm:.1f} left over" if run.scrap_mm else ""
    to_hold = f" + {held} × {grip:g} to hold" if held else ""
    arithmetic = f"{net:.1f} in the ring{scrap}{to_hold} + 2 × {TRIM_MM:g} to trim + {z:.2f} × {sigma:.1f} in case"
    if not run.wire.from_reel:
        arithmetic += f", up to the next {sizing.tape}"
    parts = 4 if sizing.tape == "1/4 in" else 8
    return Cut(net, sigma, length, inches_text(length, parts), length * run.wire.grams_per_mm, tuple(moves), arithmetic)

"""What to cut: the wire's net length, what is held, trimmed and risked on top, and the tape's next mark.

cut = net + what the work takes beside it + a tail to hold at each end that is drawn tight + 1 mm a flush trim + z·σ, rounded up.
"""

import math
from functools import lru_cache
from statistics import NormalDist

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.moves.grip import Spare, to_hold
from pliant_coil.core.moves.loop_row import LoopRow
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed, laid_out
from pliant_coil.core.ring_file.document import OwnTail, Sizing, Tape
from pliant_coil.core.trade.hand import KnownHand
from pliant_coil.core.trade.measures import round_up
from pliant_coil.core.words.figures import MM_PER_INCH, Length, Number, Thickness
from pliant_coil.core.words.say import NOTHING, Say, say

TAIL_MM = {"pliers": 12.0, "fingers": 25.0}
"""What an end needs so that its last move can be drawn tight (common practice, no source)."""
TRIM_MM = 1.0
"""Lost at each end that is cut flush (common practice, no source)."""
TAPE_STEP_MM: dict[Tape, float] = {"1 mm": 1.0, "5 mm": 5.0, "1/8 in": MM_PER_INCH / 8, "1/4 in": MM_PER_INCH / 4}
OTHER_RISKS = (0.1, 0.02, 0.002)
"""Shown side by side where they lead to different cuts."""


@dataclass(frozen=True)
class Cut:
    """A piece as it is cut. For work off the reel, `cut_mm` is what runs off, and nothing is rounded."""

    piece: Piece
    sigma_mm: float
    hand_mm: float
    """What the maker's own hand takes beyond the plan, as far as it is known."""
    cut_mm: float
    inch_parts: int
    moves: tuple[Placed, ...]
    """The whole piece from end to end: spare, hold, the ring's own moves, hold, spare."""
    arithmetic: Say
    risks: tuple[tuple[float, float], ...]
    """Other risks of running out and what they would cut, those alike only once."""

    @property
    def mass_g(self) -> float:
        return self.cut_mm * self.piece.wire.grams_per_mm

    @cached_property
    def stretches(self) -> list[tuple[Placed, float, float]]:
        """The whole piece as it lies on the table."""
        return laid_out(self.moves)


@dataclass(frozen=True)
class More:
    """How many repeats of a row the spare of a cut would still give, every tail for the finish kept."""

    unit: str
    each_mm: float
    count: int


def more_of(cut: Cut) -> More | None:
    """What the spare gives: each row of loops grows from the spare at its own end. None where nothing is repeated at an end."""
    rows = [(k, placed.move) for k, placed in enumerate(cut.moves) if isinstance(placed.move, LoopRow)]
    if not rows:
        return None
    spares = [(k, placed.length_mm) for k, placed in enumerate(cut.moves) if placed.fate is Fate.SPARE]
    found = 0
    for k, row in rows:
        own = sum(mm for at, mm in spares if (at < k) == (k < len(cut.moves) / 2))
        found += math.floor(own / row.each_mm)
    return More("loop", rows[0][1].each_mm, found)


@lru_cache(maxsize=64)
def standard_deviations(risk: float) -> float:
    """z for which a normal variable exceeds it with probability `risk`."""
    return NormalDist().inv_cdf(1 - risk)


def tail_mm(sizing: Sizing) -> float:
    """What is left to hold at an end that is drawn tight."""
    return sizing.tail.mm if isinstance(sizing.tail, OwnTail) else TAIL_MM[sizing.tail]


def cut_all(pieces: tuple[Piece, ...], sizing: Sizing, hand: KnownHand | None = None) -> list[Cut]:
    """Every piece as it is cut, for a hand if it is known; pieces of one role that only differ at their ends are cut alike, to the longest."""
    longest: dict[str, float] = {}
    expected = [hand.expects(piece.lengths) if hand else (0.0, piece.sigma_mm) for piece in pieces]
    bases = [_base_mm(piece, sizing) for piece in pieces]
    z = standard_deviations(sizing.risk_of_running_out)
    needs = [base + more + z * sigma for base, (more, sigma) in zip(bases, expected, strict=True)]
    for piece, need in zip(pieces, needs, strict=True):
        longest[piece.role] = max(longest.get(piece.role, 0.0), need)
    found = []
    for piece, base, need, (more, sigma) in zip(pieces, bases, needs, expected, strict=True):
        alike = longest[piece.role] if longest[piece.role] < 1.25 * need else need
        found.append(_cut(piece, sizing, base_mm=base, sigma=sigma, hand_mm=more, extra_mm=alike - need))
    return found


def _base_mm(piece: Piece, sizing: Sizing) -> float:
    drawn = sum(care is EndCare.DRAWN for care in piece.ends)
    trimmed = sum(care is not EndCare.SAWN for care in piece.ends)
    return piece.net_mm + piece.beside_mm + drawn * tail_mm(sizing) + trimmed * TRIM_MM


def _rounded(needed_mm: float, piece: Piece, tape: Tape) -> float:
    return needed_mm if piece.from_reel else round_up(needed_mm, TAPE_STEP_MM[tape])


def _cut(piece: Piece, sizing: Sizing, *, base_mm: float, sigma: float, hand_mm: float, extra_mm: float) -> Cut:
    tail = tail_mm(sizing)
    base = base_mm + hand_mm
    z = standard_deviations(sizing.risk_of_running_out)
    length = _rounded(base + z * sigma + extra_mm, piece, sizing.tape)
    drawn = [care is EndCare.DRAWN for care in piece.ends]
    spare = max(0.0, (length - piece.net_mm - piece.beside_mm - sum(drawn) * tail) / 2)
    why = say(
        "{trim} to trim, half of {z} × {sigma} in case, and of the rounding to the tape",
        trim=Length(TRIM_MM),
        z=Number(z, 2),
        sigma=Thickness(sigma),
    )
    over, held = Spare("spare", spare, why), to_hold("hold", tail)
    moves = [Placed(f"{piece.id}.first.spare", over, fate=Fate.SPARE)]
    if drawn[0] and tail:
        moves.append(Placed(f"{piece.id}.first.hold", held, fate=Fate.HELD))
    moves += piece.moves
    if drawn[1] and tail:
        moves.append(Placed(f"{piece.id}.last.hold", held, fate=Fate.HELD))
    moves.append(Placed(f"{piece.id}.last.spare", over, fate=Fate.SPARE))
    risks: dict[float, float] = {}
    for risk in OTHER_RISKS:
        risks.setdefault(round(_rounded(base + standard_deviations(risk) * sigma + extra_mm, piece, sizing.tape), 3), risk)
    parts = 4 if sizing.tape == "1/4 in" else 8
    return Cut(
        piece,
        sigma,
        hand_mm,
        length,
        parts,
        tuple(moves),
        _arithmetic(piece, sizing, sum(drawn), z, sigma=sigma, hand_mm=hand_mm),
        tuple((risk, cut) for cut, risk in sorted(risks.items())),
    )


def _arithmetic(piece: Piece, sizing: Sizing, drawn: int, z: float, *, sigma: float, hand_mm: float) -> Say:
    beside = say(" + {beside} the work takes beside it", beside=Length(piece.beside_mm)) if piece.beside_mm > 0.05 else NOTHING
    to_hold_words = say(" + {n} × {tail} to hold", n=drawn, tail=Length(tail_mm(sizing))) if drawn and tail_mm(sizing) else NOTHING
    trims = sum(care is not EndCare.SAWN for care in piece.ends)
    to_trim = say(" + {n} × {trim} to trim", n=trims, trim=Length(TRIM_MM)) if trims else NOTHING
    tape = NOTHING if piece.from_reel else say(", up to the tape’s next {tape}", tape=Length(TAPE_STEP_MM[sizing.tape]))
    own = NOTHING
    if abs(hand_mm) > 0.05:
        own = say(" + {more} your hand takes" if hand_mm > 0 else " − {more} your hand saves", more=Length(abs(hand_mm)))
    return say(
        "{net} that stays{own}{beside}{held}{trim} + {z} × {sigma} in case{tape}",
        net=Length(piece.net_mm),
        own=own,
        beside=beside,
        held=to_hold_words,
        trim=to_trim,
        z=Number(z, 2),
        sigma=Thickness(sigma),
        tape=tape,
    )

"""The bench steps of a ring in the order of the trade, with what to check and the usual cautions."""

from dataclasses import dataclass

DEFER = "Follow your local rules and the people who trained you."
CUT_CAUTION = f"Cut ends fly: glasses on, a finger over the off-cut, the flat of the cutter to the keeper. {DEFER}"
EDGE_CAUTION = "Feel every end with a finger and pull a thread over it: whatever catches will scratch."
SWOLLEN_CAUTION = "A ring that won't come off over a swollen finger has to be cut: offer a size check before it is sold."


@dataclass(frozen=True, slots=True)
class Step:
    """One thing to do: its stage in the order of work, its words, how often, what to check, what to mind."""

    stage: str
    text: str
    count: int | None = None
    check: str | None = None
    cautions: tuple[str, ...] = ()

"""How the ring wears: how high it stands, how far it reaches along the finger, and whether its head's weight turns it round."""

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.moves.placed import Fate
from pliant_coil.core.styles.handed_on import Warn
from pliant_coil.core.styles.stones import HIGH_MM
from pliant_coil.core.words.figures import Length, Number, Thickness
from pliant_coil.core.words.say import say

CATCHES_MM = 14.0
"""Along the finger: a wider stone catches on the next fingers (common practice, no source)."""
HEAVY = 1.5
"""A head so many times as heavy as the rest of the ring rolls it round a finger (common practice, no source)."""


def head_mass_g(made: MadeRing) -> float:
    """Mass of stones and of all wire that the head adds [g]."""
    wires = {piece.id: piece.wire for piece in made.pieces}
    own = sum(piece.mass_g for piece in made.work.pieces)
    led = sum(
        placed.length_mm * wires[piece].grams_per_mm
        for (piece, _), moves in made.work.onward.items()
        for placed in moves
        if piece in wires and placed.fate is Fate.RING and not placed.id.endswith(".lock")
    )
    return own + led + sum(stone.mass_g for stone in made.stones)


def advise_wearing(made: MadeRing) -> list[Warn]:
    """What its wearer would find out on the first day."""
    found = []
    widest = max(made.stones, key=lambda stone: stone.width_mm, default=None)
    if widest is not None and widest.width_mm > CATCHES_MM:
        text = say("{width} along the finger catches on the next fingers.", width=Thickness(widest.width_mm))
        field = widest.field.rpartition(".")[0] or "head"
        found.append(Warn("bead-catches", text, field))
    height = made.work.height_mm
    if height > HIGH_MM:
        found.append(
            Warn("stands-high", say("It stands {height} above the finger: it catches on pockets and hair.", height=Length(height)), "head")
        )
    head = head_mass_g(made)
    rest = sum(piece.mass_g for piece in made.pieces) + sum(stone.mass_g for stone in made.stones) - head
    if rest > 0 and head > HEAVY * rest:
        text = say(
            "Its head weighs {head} g, {times} times the rest: it rolls round the finger unless it fits close. A wider or thicker band, or a lighter stone, stays on top.",
            head=Number(head, 1),
            times=Number(head / rest, 1),
        )
        found.append(Warn("top-heavy", text, "head"))
    return found

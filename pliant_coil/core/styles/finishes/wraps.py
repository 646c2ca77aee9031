"""How tails are finished: the locks beside the head or where the ends meet, and what becomes of the last of the wire."""

import math
from functools import cache, lru_cache
from typing import Literal

from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.base import Move, Obstacle
from pliant_coil.core.moves.loop import Eye, Scroll
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import LOCKS, End, FormedBand, HeadWork
from pliant_coil.core.styles.locks import edge_of, led_to, seen, wrap_at
from pliant_coil.core.styles.parameters import Part, choice, millimetres, number
from pliant_coil.core.styles.tasks import Phase, Task, look, reads
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Thickness, Times, Tolerance
from pliant_coil.core.words.say import Say, listed, say

SCROLL_TURNS = 1.5
MOST_REACH_RAD = math.radians(150)
Polish = Literal["none", "cloth", "rubber", "tumbler"]
POLISHED: dict[Polish, str] = {"none": "", "cloth": "polished", "rubber": "polished with rubber", "tumbler": "tumbled"}


class Finish(Part):
    """What is done with the tails."""

    wraps_each_side: int | None = number(
        None, "Wraps each side", 0, 8, "Lock wraps on each side; 0 leaves the band free. The head's usual unless given."
    )
    ends: Literal["hidden", "loop", "scroll"] = choice("hidden", "Ends", "Tucked in, or turned into a loop or a scroll.")
    loop_mm: float = millimetres(2.0, "Loop, inside", 0.8, 6, rare=True)
    polish: Polish = choice("none", "Polished", "With a cloth, a rubber wheel, or in the tumbler with steel shot.")
    patina: bool = choice(False, "Darkened", "Patina, rubbed back where it is high.")

    def phrase(self, locks: int) -> Say:
        """Its words in the ring's sentence."""
        locked = say("locked {times} each side", times=Times(locks)) if locks else Say("ends left free")
        if self.ends != "hidden":
            locked = say("{locked}, ends in {shape}s", locked=locked, shape=self.ends)
        return listed([locked, *self.surface()])

    def surface(self) -> list[Say]:
        """The words for how it is polished and darkened."""
        return [Say(words) for words in ("darkened" if self.patina else "", POLISHED[self.polish]) if words]

    def lock(self, band: FormedBand, work: HeadWork) -> HeadWork:
        """Every tail that is left wrapped round its own shoulder, and its end."""
        onward = {}
        ledger = work.ledger
        locks = band.form.locks
        for tail in work.tails:
            turned, backwards = tail.side == "left", tail.which == "first"
            angle, _ = seen(tail)
            from_rad = max(angle, ledger.of(tail.side).free_rad)
            moves: list[Placed] = []
            at = tail.at
            if locks:
                wrap = wrap_at(band, tail.wire, locks, from_rad, edge=edge_of(band, tail), turned=turned)
                way = led_to(wrap, tail, turned)
                if way:
                    moves.append(Placed(f"{tail.name}.to-lock", way, turned=turned, backwards=backwards))
                moves.append(Placed(f"{tail.name}.lock", wrap, turned=turned, backwards=backwards))
                reach = from_rad + wrap.advance_mm / (band.inside_mm / 2)
                ledger = ledger.wrapped(tail.side, locks, reach)
                at = wrap.ends if self.ends != "hidden" else at
            if self.ends != "hidden":
                seen_at = at if locks else ((-at[0], at[1], -at[2]) if turned else at)
                moves.append(Placed(f"{tail.name}.end", self._end(tail, seen_at), turned=turned, backwards=backwards))
            onward[tail.key] = tuple(moves)
        return HeadWork(onward=onward, ledger=ledger, tied=bool(locks and work.tails))

    def likely_inside(self, locks: int, wire: Wire, radius_mm: float, shoulder_rad: float) -> tuple[Obstacle, ...]:
        """What its locks put inside a band of this radius that gives them its shoulders, whatever else they go round."""
        bare = Bundle(((0.0, 0.0),), 0.0)
        lock = Wrap("lock", locks, bare, wire.profile, radius_mm, shoulder_rad, inside_mm=wire.height_mm, cause=LOCKS).obstacles
        return (*lock, *(obstacle.turned() for obstacle in lock))

    def _end(self, tail: End, at: Point3) -> Move:
        """A loop or a scroll on the outside of the band, just past the lock."""
        angle = math.atan2(at[0], at[1])
        along = (math.cos(angle), -math.sin(angle), 0.0)
        outwards = (math.sin(angle), math.cos(angle), 0.0)
        if self.ends == "loop":
            return Eye("loop", self.loop_mm, tail.wire.width_mm, at, along, outwards)
        width = tail.wire.width_mm
        return Scroll("scroll", 0.6 * width, 1.15 * width, SCROLL_TURNS, at, along, outwards)

    def tasks(self, band: FormedBand, tails: tuple[End, ...]) -> list[Task]:
        """Locking, trimming and what is done with the ends."""
        if not tails:
            return []
        tasks: list[Task] = []
        locks = band.form.locks
        if locks:
            tasks.append(_reading(bool(band.ledger.left.wraps or band.ledger.right.wraps)))
            tasks += [_locking(tail.name, k, len(tails), locks) for k, tail in enumerate(tails)]
        cut = (look("A finger finds no end."),)
        return [*tasks, Task("trim", Phase.TRIM, self._trimming(), checks=cut, cautions=(cautions.CUT, cautions.EDGES))]

    def _trimming(self) -> Say:
        if self.ends == "hidden":
            return say(
                "Flush cutter on the outer face, its flat side to the ring: cut each tail, {stands} or less standing, and press the end in, pointing away "
                "from the finger.",
                stands=Tolerance(1),
            )
        if self.ends == "loop":
            return say(
                "Cut each tail, turn its end into a loop {inside} inside and lay it on the band, its cut end inwards.",
                inside=Thickness(self.loop_mm),
            )
        return Say("Cut each tail, roll its end into a small scroll and lay it on the band, its cut end inwards.")


# The same for many rings: made once.
@cache
def _reading(bound: bool) -> Task:
    otherwise = Say(
        "Otherwise stretch it, or push the wraps together: it is bound already."
        if bound
        else "Otherwise draw the tails, or form it again there: nothing is locked yet."
    )
    text = Say("Slide it back on the mandrel before anything is locked.")
    return Task("read-before-locks", Phase.READ, text, checks=(reads(otherwise=otherwise),), cautions=(cautions.LAST_EASY,))


@lru_cache(maxsize=64)
def _locking(name: str, number: int, tails: int, locks: int) -> Task:
    """Locking one of so many tails: the last of them is read after."""
    which = ("one tail", "the other tail")[min(number, 1)] if tails > 1 else "the tail"
    alike = look("The wraps touch and none crosses another." if number == 0 else "Both sides have the same count and sit alike.")
    return Task(
        f"lock-{name}",
        Phase.LOCK,
        say(
            "Off the mandrel, wrap {tail} round its shoulder {times}: in through the ring, out over the outside, away from the head; "
            "pliers from the second wrap.",
            tail=which,
            times=Times(locks),
        ),
        makes=(f"{name}.lock",),
        checks=(alike, reads(0.15)) if number == tails - 1 else (alike,),
    )

"""One wire hammered flat and then twisted about itself, worked with like a wire: how turned, crossed and open bands may be worked."""

from dataclasses import replace
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics import twisting
from pliant_coil.core.moves.placed import PLAIN, Piece, Worked
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.parameters import Part, choice, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

USUAL_LAY_WIDTHS = 6


class StripParameters(Part):
    """How the wire is worked before it is wound."""

    hammered_share: float = number(0.33, "Hammered flat by", 0.15, 0.45, "Share of the thickness.")
    lay_mm: float | None = millimetres(None, "One full turn in", 0, 40, "Six widths of the strip unless given; 0 leaves it flat.")
    direction: Literal["right", "left"] = choice("right", "Twisted to the", rare=True)

    def strip(self, wire: Wire) -> twisting.Strip:
        """The strip that this wire becomes."""
        t = wire.size_mm * (1 - self.hammered_share)
        flat = twisting.Strip(wire.size_mm, t, 0.0)
        return replace(flat, lay_mm=USUAL_LAY_WIDTHS * flat.width_mm if self.lay_mm is None else self.lay_mm)

    def check(self, wire: Wire, field: str) -> None:
        """Raise `Refusal` for a wire that can't be worked so."""
        if wire.profile.name != "round":
            refuse("wires.band.profile", "strip is hammered from round wire", "round")
        if wire.metal.coated:
            refuse("wires.band.metal", "the coat flakes where it is hammered", "solid wire")
        strip = self.strip(wire)
        if strip.lay_mm and strip.lay_mm < 3 * strip.width_mm:
            refuse(
                f"{field}.lay_mm",
                "so tight a twist cracks the strip's edges",
                say("at least {lay}, or 0 for flat", lay=Thickness(3 * strip.width_mm)),
            )

    def phrase(self) -> Say:
        """Its words behind the band's own."""
        return Say(" from strip left flat") if self.lay_mm == 0 else Say(" from twisted strip")


@dataclass(frozen=True)
class Strip:
    """What is wound: a plain wire, or strip. `lane_mm` from lane to lane, `stands_mm` from the finger to the neutral line."""

    wire: Wire
    lane_mm: float
    stands_mm: float
    worked: Worked
    strip: twisting.Strip | None = None

    @staticmethod
    def of(wire: Wire, parameters: StripParameters | None) -> "Strip":
        """The wire as it is wound."""
        if parameters is None:
            return Strip(wire, wire.width_mm, wire.centroid_mm, PLAIN)
        strip = parameters.strip(wire)
        if not strip.lay_mm:
            worked = Worked("hammered", strip.width_mm, strip.thickness_mm, strip.strip_per_wire, strip.strain)
            flat = replace(wire, profile=Profile("flat", strip.thickness_mm, strip.width_mm))
            return Strip(flat, strip.width_mm, strip.thickness_mm / 2, worked, strip)
        # It stands on its crests; neighbours and locks lie on its mean thickness.
        worked = Worked("twisted", strip.width_mm, strip.width_mm, strip.strip_per_wire, strip.strain)
        crest = replace(wire, profile=Profile("round", strip.width_mm))
        return Strip(crest, strip.mean_mm, strip.width_mm / 2, worked, strip)


def strip_tasks(parameters: StripParameters | None, wound: Strip, piece: Piece) -> list[Task]:
    """Hammering and twisting the wire, where it is worked."""
    strip = wound.strip
    if parameters is None or strip is None:
        return []
    made = piece.net_mm * strip.strip_per_wire
    tasks = [
        Task(
            "hammer-strip",
            Phase.WORK,
            say(
                "Hammer the wire evenly along its whole length to {thick}, up to {away} from whatever is threaded on it.",
                away=Length(5),
                thick=Thickness(strip.thickness_mm),
            ),
            checks=(Check(say("{width} wide by the caliper, at three places.", width=Thickness(strip.width_mm))),),
            cautions=(cautions.THREAD_FIRST, cautions.HAMMER),
            stage="flatten",
        )
    ]
    if strip.lay_mm:
        ridges = round(2 * 30 / strip.lay_mm)
        tasks.append(
            Task(
                "twist-strip",
                Phase.WORK,
                say(
                    "Clamp one end and twist it evenly to the {direction}, one full turn in {lay}.",
                    direction=parameters.direction,
                    lay=Length(strip.lay_mm),
                ),
                checks=(
                    Check(
                        say("{ridges} in {span}, in the middle and at both ends.", ridges=Count(ridges, "ridge", "ridges"), span=Length(30))
                    ),
                    Check(say("The strip is now {made} long where it will be wound.", made=Length(made))),
                ),
                cautions=(cautions.DRILL,),
                stage="twist",
            )
        )
    return tasks

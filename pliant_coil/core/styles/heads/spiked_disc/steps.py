"""A spiked disc at the bench: hoop, spikes, crystal, sewing."""

from __future__ import annotations

from typing import TYPE_CHECKING

from pliant_coil.core.moves.spike import Spike
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Length, Number, Thickness, Tolerance
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.spiked_disc import Disc, SpikedDisc

_HOLDS_MM = 30.0
"""What fingers need to sew with (common practice, no source)."""


def short_tail_mm(work: HeadWork) -> float:
    """What the short tail needs: what it does, and something to hold."""
    return sum(p.length_mm for p in work.pieces[0].moves if p.id.startswith("sew.short")) + _HOLDS_MM


def tasks(style: SpikedDisc, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    disc: Disc = work.facts
    placed = {p.id: p for p in work.pieces[0].moves}
    spikes = [p.move for p in placed.values() if isinstance(p.move, Spike)]
    kinds = list({spike.label: spike for spike in spikes}.values())
    short = short_tail_mm(work) if style.short_tail_mm is None else style.short_tail_mm
    folds = " and ".join(f"{{{k.label}}} for a {k.label} one" for k in kinds)
    twists = ", ".join(f"{{{k.label}}} turns for a {k.label} one" for k in kinds)
    rest = disc.places - disc.needed
    disc_first = [
        Task(
            "hoop",
            Phase.FLAT,
            say(
                "Leave {tail} of the fine wire, and wind {turns} full turns on the {rod} rod, lying on each other; {start} round them with the long end, tight.",
                tail=Length(short),
                turns=Number(style.hoop_turns),
                rod=Thickness(style.rod_mm),
                start=Count(style.start_wraps, "wrap", "wraps"),
            ),
            makes=("sew.hoop", "sew.start"),
            checks=(look("The hoop can't open.", "Crooked: begin again, it is cheap now."),),
        ),
        Task(
            "spikes",
            Phase.FLAT,
            say(
                f"{{turn}}Measure from the hoop, {folds}; grip there with fine pliers, lead the wire under the jaw back to the hoop and up through it, and draw it snug. "
                "Then {wraps} close together, always the same way round. {n} in all.",
                wraps=Count(style.wraps_between, "wrap", "wraps"),
                n=Count(style.spikes, "spike", "spikes"),
                turn=say("In groups of {group}, L long and S short. ", group=" ".join(style.group)) if style.pattern == "own" else Say(""),
                **{k.label: Length(k.fold_mm) for k in kinds},
            ),
            makes=tuple(i for i in placed if i.startswith(("sew.spike", "sew.wraps"))),
            checks=(
                Check(
                    say("Each within {off}; after half of them, opposite spikes are opposite.", off=Tolerance(0.3)),
                    say("Push the wraps along the hoop; {rest} wraps' room is left over to share.", rest=Number(rest, 0)),
                ),
            ),
            count=style.spikes,
        ),
        Task(
            "twist",
            Phase.FLAT,
            say(
                f"Twist each spike: grip its very tip, hold the hoop, {twists}, all one way, and stop at the count.",
                **{k.label: Number(k.full_turns, 2) for k in kinds},
            ),
            checks=(
                Check(
                    say("Straight, and as long as planned within {off}.", off=Tolerance(0.3)),
                    Say("Untwist half a turn. A broken spike can't be put back."),
                ),
            ),
            cautions=(cautions.TIPS,),
            count=style.spikes,
            stage="spikes",
        ),
        Task(
            "crystal",
            Phase.FLAT,
            say(
                "Long tail up beside the hoop, through one channel and down on the other side{second}; then three wraps on each side, lost among the hoop's own.",
                second=Say(", once round the hoop between two spikes, and through the other channel")
                if style.stone.channels == 2
                else Say(""),
            ),
            makes=("sew.crystal", "sew.anchor"),
            checks=(look("The crystal lies flat and doesn't rock."),),
            cautions=(cautions.FINE_PULL, cautions.STONE),
        ),
    ]
    ends = "one wire of the band; cut it between the wires" if not band.absent else "the hoop between two spikes; cut it on the inside"
    end = Task(
        "sew-end",
        Phase.TRIM,
        say(f"Finish each tail with {{n}} on {ends} and press it in.", n=Count(3, "wrap", "wraps")),
        makes=("sew.long.end", "sew.short.end"),
        checks=(look("A finger finds no end."),),
        cautions=(cautions.CUT, cautions.EDGES),
        stage="trim",
    )
    if band.absent:
        return [*disc_first, end]
    return [
        *disc_first,
        Task(
            "sew-on",
            Phase.HEAD,
            say(
                "Both tails down through two opposite {places} at the ring's top; then each up and down through all four, {stitches} a place, now and then round the hoop. "
                "{long} of wire a tail.",
                places="eyes" if band.anchors else "wires",
                stitches=Count(style.stitches_per_eye, "stitch", "stitches"),
                long=Length(placed["sew.long.on"].length_mm),
            ),
            makes=("sew.long.on", "sew.short.on"),
            checks=(look("The disc doesn't lift or turn.", "One more through the loosest place."), reads(0.15)),
            cautions=(cautions.FINE_PULL,),
        ),
        end,
    ]

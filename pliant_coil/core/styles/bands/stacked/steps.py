"""A stack at the bench: coiled, sawn, soldered, hammered, stacked."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, Opening
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.mandrels import TAPER
from pliant_coil.core.trade.sizes import US_STEP_MM, Size
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Degrees, Length, Number, Thickness
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.bands.stacked import Hammered, Stacked

START_MM = 10.0
"""Of wire bent to the mandrel's curve before coiling, waste (common practice, no source)."""


def tasks(style: Stacked, band: FormedBand, opening: Opening) -> list[Task]:
    """What is done at the bench to make it."""
    wire = band.pieces[0].wire
    return [
        *_coiling(style, band, wire),
        *_closing(style, band, wire),
        *(_stacking(style, band, opening) if style.rings > 1 else []),
        *_finishing(band, opening),
    ]


def _coiling(style: Stacked, band: FormedBand, wire: Wire) -> list[Task]:
    ring: Hammered = band.facts
    start = Size(ring.coiled_mm)
    low = ring.coiled_mm - style.wound_down_us * US_STEP_MM
    turns = (style.rings + 0.25) * (ring.coiled_mm + wire.size_mm) / (low + wire.size_mm)
    rings = tuple(f"ring.{k + 1}" for k in range(style.rings))
    ends = (style.rings - 1) * wire.size_mm * TAPER
    coil = say(
        "Bend the first {start_mm} to the mandrel's curve with half-round pliers; wind {turns} turns at {low}, close.",
        start_mm=Length(START_MM),
        turns=Number(turns, 2),
        low=Size(low),
    )
    push = say(
        "Push the coil up the taper, turning with its lay, until its middle turn lies at {start}; turn it end for end, and again.",
        start=start,
    )
    tasks = [
        Task(
            "coil",
            Phase.FLAT,
            coil,
            makes=("start", *rings, "lap"),
            checks=(look("No gaps between the turns."),),
            cautions=(cautions.WHIP,),
            count=style.rings,
        ),
    ]
    if style.wound_down_us:
        tasks.append(
            Task(
                "push-up",
                Phase.FLAT,
                push,
                checks=(
                    Check(
                        say(
                            "Its middle reads {start}; its ends {apart} apart in diameter, for the mandrel tapers.",
                            start=start,
                            apart=Thickness(ends),
                        ),
                        Say("Turns gape: push them together, half a size down, and up again."),
                    ),
                ),
                stage="coil",
            )
        )
    saw_words = Say(
        "Mark one line along the coil, hold it in wood or leather, and saw through every turn: not cutters, they pinch the ends."
    )
    tasks.append(
        Task(
            "saw",
            Phase.FORM,
            saw_words,
            makes=tuple(f"saw.{k + 1}" for k in range(style.rings)) if style.kerf_mm else (),
            checks=(Check(say("{rings}.", rings=Count(style.rings, "ring", "rings"))),),
            cautions=(cautions.SAW,),
            count=style.rings,
        )
    )
    return tasks


def _closing(style: Stacked, band: FormedBand, wire: Wire) -> list[Task]:
    ring: Hammered = band.facts
    n = style.rings
    tasks = [
        Task(
            "fit",
            Phase.FORM,
            Say("Push each ring's ends past each other and back, so that they spring together with their faces flush."),
            checks=(look("Held against the light, no gap: solder doesn't fill one.", "Saw through the closed joint once more."),),
            count=n,
            stage="form",
        ),
        Task(
            "seam",
            Phase.FORM,
            Say(
                "Flux, and one chip of hard solder on each seam. Warm the whole ring first, then the joint, a pick in hand; solder runs to the hotter side. "
                "Quench when it is dark, pickle, rinse."
            ),
            checks=(look("The seam is filled on both faces and inside.", "On one side only: heat the other until it flows across."),),
            cautions=(cautions.TORCH, cautions.FLUX, cautions.PICKLE, cautions.DEFER),
            count=n,
            stage="solder",
        ),
        Task("true", Phase.FORM, Say("True each ring on the mandrel with a soft mallet."), count=n, stage="round"),
    ]
    if style.hammered_share:
        flat = say(
            "Hammer each ring flat from {thick} to {thin}: ring on the edge of a flat stake, half of it over the edge in your fingers, turning a little at "
            "each blow, then over. It opens.",
            thick=Thickness(wire.size_mm),
            thin=Thickness(ring.thick_mm),
        )
        check = Check(
            say("{thin} at four places, and the mandrel reads {opened}.", thin=Thickness(ring.thick_mm), opened=Size(ring.opened_mm)),
            Say("One small: a few blows more. One large: it sets the size, bring the others to it."),
        )
        tasks.append(Task("hammer", Phase.FORM, flat, checks=(check,), cautions=(cautions.HAMMER,), count=n, stage="flatten"))
    if style.true_up_mm:
        tasks.append(
            Task(
                "true-up",
                Phase.FORM,
                say("True each ring up to {size} on the mandrel with a soft mallet, turned end for end.", size=Size(ring.finished_mm)),
                checks=(look("All rings lie at one mark."),),
                count=n,
                stage="round",
            )
        )
    return tasks


def _stacking(style: Stacked, band: FormedBand, opening: Opening) -> list[Task]:
    ring: Hammered = band.facts
    arc = style.soldered_rad(opening) * (band.inside_mm + ring.wide_mm) / 2
    if style.seams == "spread":
        place = Say("spread, none at the back")
    elif opening.seam_mm:
        place = say("in line, {aside} to one side of the top, where no crest falls", aside=Length(opening.seam_mm))
    else:
        place = Say("in line at the top")
    chips = max(1, round(arc * (ring.wide_mm - ring.thick_mm) * 0.1))
    return [
        Task(
            "faces",
            Phase.FORM,
            say("Rub each flat face on abrasive on a flat plate until it is bright all over, {off} off.", off=Thickness(style.faces_mm)),
            checks=(look("Two stacked rings let no light through at the back."),),
            cautions=(cautions.GRIND,),
            count=2 * style.rings,
            stage="faces",
        ),
        Task(
            "tie",
            Phase.FORM,
            say(
                "Mark the seams with a pen and stack the rings with them {place}. Tie them with soft steel wire at both ends of what will be soldered, snug, not tight.",
                place=place,
            ),
            stage="tie",
        ),
        Task(
            "solder",
            Phase.FORM,
            say(
                "Flux {arc} round the back, {angle}, and nowhere else: solder stops about where flux stops. Lay {chips} of medium solder on each joint, which "
                "melts before the seams; easy is kept for later. Warm until the chips ball and sit, then heat all evenly until each joint flashes.",
                arc=Length(arc),
                angle=Degrees(style.soldered_rad(opening)),
                chips=Count(chips, "small chip", "small chips"),
            ),
            checks=(
                look(
                    "Each joint is filled on both faces, and no further than the flux.",
                    "A dry joint: cool, flux, one chip, the flame from the other side.",
                ),
            ),
            cautions=(cautions.TORCH, cautions.FLUX),
            count=style.rings - 1,
        ),
        Task(
            "clean",
            Phase.FORM,
            Say("Let it cool, take the steel ties off, then pickle and rinse."),
            checks=(look("Looked at inside, solder is seen all through."),),
            cautions=(cautions.PICKLE, cautions.DEFER),
            stage="pickle",
        ),
        Task(
            "shank",
            Phase.ROUND,
            say(
                "File and smooth the back as one, {filed} off its outside, the inside with a half-round file; nothing off the top yet.",
                filed=Thickness(style.shank_filed_mm),
            ),
            cautions=(cautions.GRIND,),
            stage="shape the shank",
        ),
        *_opened_tops(style, opening),
    ]


def _opened_tops(style: Stacked, opening: Opening) -> list[Task]:
    if opening.foot_rad:
        # A head in the tops has parted them.
        return []
    says = say("Part the tops evenly, {free} of them free of solder.", free=Degrees(2 * math.pi - style.soldered_rad(opening)))
    return [Task("open-tops", Phase.ROUND, says, stage="open")]


def _finishing(band: FormedBand, opening: Opening) -> list[Task]:
    return [
        Task(
            "finish",
            Phase.ROUND,
            Say("Finish it: file, emery from coarse to fine, rubber wheel, and the tumbler if you have one."),
            checks=(reads(0.1, Say("Small: stretch it on the mandrel, 2 % of the way round at most.")),),
            cautions=(cautions.GRIND,),
            stage="finish",
        )
    ]

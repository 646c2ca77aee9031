"""What is done at the bench to wave the tops of a stack."""

from typing import TYPE_CHECKING

from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import HeadWork
from pliant_coil.core.styles.heads.wave.lanes import Waves
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Article, Count, Length, Thickness
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.wave import Wave

JAW_MM = 3.5
"""How far apart the jaws of fine round-nose pliers grip (common practice, no source)."""


def tasks(style: "Wave", work: HeadWork) -> list[Task]:
    """Parting, levering, soldering and cleaning the tops."""
    waves: Waves = work.facts
    ids = tuple(p.id for led in work.through.values() for p in led)
    total = sum(waves.contacts)
    out = max(waves.places_mm)
    tasks = [
        Task(
            "part",
            Phase.HEAD,
            say(
                "Work a thin blade between the rings at the top, from the middle towards the solder, and ease them apart; the outer rings furthest, {out} from the middle.",
                out=Thickness(out),
            ),
            checks=(look("The solder's ends aren't torn.", "Solder them again before going on."),),
            cautions=(cautions.SAW,),
            stage="waves",
        ),
        Task(
            "lever",
            Phase.HEAD,
            say(
                "Fine round-nose pliers: one jaw in the hollow, the other {jaw} on, don't squeeze, twist. Begin at the solder; the next bite the other way, one jaw in the curve just made: "
                "{crests}, {swing} to each side, {half} from crest to crest. Then the next ring, its first bite turned against its neighbour's.",
                jaw=Thickness(JAW_MM),
                crests=Count(style.half_waves, "crest", "crests"),
                swing=Thickness(style.amplitude_mm),
                half=Length(waves.half_wave_mm),
            ),
            makes=ids,
            checks=(
                look(
                    say("Crest meets crest at {n} in all, as on the card's drawing of the tops.", n=Count(total, "place", "places")),
                    "Move single crests by a hair: contacts first.",
                ),
            ),
            count=style.half_waves,
            stage="waves",
        ),
        Task(
            "touch",
            Phase.HEAD,
            say(
                "Ease the rings together until every contact closes, then level the top on the mandrel with light taps until it lies round.",
            ),
            checks=(Check(say("Against the light no contact shows a gap over {gap}.", gap=Thickness(0.1))), reads(0.2)),
            cautions=(cautions.HAMMER,),
            stage="waves",
        ),
        Task(
            "solder-contacts",
            Phase.HEAD,
            say(
                "Flux on the contacts only, a chip of {solder} solder on each of {n}, heat the whole top evenly and quickly.",
                solder=style.contact_solder,
                n=Count(total, "contact", "contacts"),
            ),
            checks=(look("Each is filled from above and inside; the back hasn't moved.", "A dry one: flux again, one more chip."),),
            cautions=(cautions.TORCH, cautions.FLUX),
            count=total,
            stage="solder",
        ),
        Task("pickle-top", Phase.HEAD, Say("Quench, pickle, rinse."), cautions=(cautions.PICKLE,), stage="pickle"),
    ]
    if style.settings:
        says = say(
            "Stand {n} of {tube} in the windows, each touching the lanes on both sides. Flux only there, a chip of easy solder each; "
            "warm the whole top until they flash. Then quench, pickle and rinse again.",
            n=Count(style.settings.count, "tube", "tubes"),
            tube=Article(Thickness(style.settings.diameter_mm)),
        )
        stands = look("Each stands upright and is held on both sides; no contact has opened.", "Flux again, one more chip.")
        care = (cautions.TORCH, cautions.FLUX, cautions.PICKLE)
        tasks.append(Task("settings", Phase.HEAD, says, checks=(stands,), cautions=care, count=style.settings.count, stage="solder"))
    tasks.append(
        Task(
            "clean-top",
            Phase.ROUND,
            Say(
                "Clean joints and plier marks only; don't file the top flat; a thin abrasive disc in the windows, then finer; polish or tumble."
            ),
            cautions=(cautions.GRIND,),
            stage="finish",
        )
    )
    return tasks

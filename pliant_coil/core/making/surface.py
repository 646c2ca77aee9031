"""How the finished ring is darkened and polished: its tasks, and what its metals and stones don't stand."""

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.finishes.wraps import Polish
from pliant_coil.core.styles.handed_on import Warn
from pliant_coil.core.styles.tasks import Phase, Task, look
from pliant_coil.core.words.say import Say, say

_POLISHING: dict[Polish, Say] = {
    "cloth": Say("Rub it with a polishing cloth, along the wires."),
    "rubber": Say("Go over the high places with a rubber wheel, slowly; keep it moving and off every stone."),
    "tumbler": Say("Tumble it with steel shot, water and a drop of soap until it shines, about half an hour; rinse and dry it."),
}


def surface_tasks(made: MadeRing) -> list[Task]:
    """Darkening, then polishing, which brightens the high places again."""
    finish = made.ring.file.finish
    tasks = []
    if finish.patina:
        says = Say("Wash off all grease. Darken it in warm patina, a little at a time, until it is dark enough; rinse and dry it.")
        after = look("The hollows are dark.", "Wash it again and dip it once more.")
        tasks.append(Task("patina", Phase.ROUND, says, checks=(after,), cautions=(cautions.PATINA,), stage="polish"))
    if finish.polish != "none":
        care = {"cloth": (), "rubber": (cautions.GRIND,), "tumbler": (cautions.TUMBLER,)}[finish.polish]
        shines = look("The high places shine." if finish.patina else "It shines all over.")
        tasks.append(Task("polish", Phase.ROUND, _POLISHING[finish.polish], checks=(shines,), cautions=care, stage="polish"))
    return tasks


def advise_surface(made: MadeRing) -> list[Warn]:
    """Metals that don't darken, coats that come off, stones that soak or scratch."""
    finish = made.ring.file.finish
    found = []
    metals = {piece.wire.metal.code: piece.wire.metal for piece in made.pieces}.values()
    natures = {(stone.what, stone.gem.made_of): stone.gem for stone in made.stones if stone.gem}.items()
    if finish.patina:
        bright = sorted({metal.name for metal in metals if not metal.darkens})
        if bright:
            found.append(Warn("wont-darken", say("Patina doesn't take on {metals}.", metals=" and ".join(bright)), "finish.patina"))
        for (what, made_of), gem in natures:
            if not gem.nature.stands_patina:
                text = say(
                    "A {what} of {made_of} takes up patina: darken the wire before the {what} goes on, or leave it bright.",
                    what=what,
                    made_of=made_of.replace("-", " "),
                )
                found.append(Warn("stone-takes-patina", text, "finish.patina"))
    if finish.polish == "tumbler":
        for (what, made_of), gem in natures:
            if not gem.nature.stands_tumbling:
                text = say("A {what} of {made_of} doesn't stand the tumbler: use a cloth.", what=what, made_of=made_of.replace("-", " "))
                found.append(Warn("stone-wont-tumble", text, "finish.polish"))
    if finish.polish in ("rubber", "tumbler"):
        coated = sorted({metal.name for metal in metals if metal.coated})
        if coated:
            text = say("The coat of {metals} wears off so: use a cloth.", metals=" and ".join(coated))
            found.append(Warn("coat-polished-off", text, "finish.polish"))
    return found

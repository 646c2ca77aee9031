"""An open frame at the bench: bent, met by its band, doubled, woven half by half."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.mechanics.polygons import sharp_angles
from pliant_coil.core.moves.figure import Figure
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import FormedBand, HeadWork
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Count, Length, Number, Thickness, Tolerance
from pliant_coil.core.words.say import Say, listed, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.open_frame import Frame, OpenFrame

_AT_THE_MARK_MM = 0.2


def tasks(style: OpenFrame, band: FormedBand, work: HeadWork) -> list[Task]:
    """What is done at the bench to make it."""
    frame: Frame
    frame, (parting, repeats, corner) = work.facts
    outline = work.through[0]
    doubles = tuple(p.id for moves in work.onward.values() for p in moves if p.id.endswith("double"))
    near = tuple(p.id for moves in work.onward.values() for p in moves if p.id.startswith("near.") and not p.id.endswith("double"))
    far = tuple(p.id for piece in work.pieces for p in piece.moves)
    start = MandrelMark(band.form.diameter_mm)

    bent = outline[1].move
    assert isinstance(bent, Figure)
    off = [abs(corner - bent.length_mm / 2) for corner in bent.corners_mm]
    away = sorted({round(mm, 1) for mm in off if mm > _AT_THE_MARK_MM})
    first = "the first at the mark, the next" if len(off) > 2 * len(away) else "at"
    turns = say(
        f"{{turns}}° corners, {first} {{away}} from it on both sides, each with the jaws a wire's width short, as on the strip",
        turns=Number(math.degrees(math.pi - sharp_angles(frame.outline)[0]), 0),
        away=listed([Length(mm) for mm in away]),
    )
    second = (
        "a piece cut from the rest of the fine wire (or a new one, if that is shorter)"
        if style.second_weave == "rest"
        else "a new fine wire"
    )
    shape = turns if style.outer_corners(frame) else Say("pressed round something of its shape")
    corner_words = (
        say("; {corner} on the outer wire at each corner", corner=Count(corner, "plain wrap", "plain wraps"))
        if corner and style.outer_corners(frame)
        else Say("")
    )
    return [
        Task(
            "outline",
            Phase.FLAT,
            say("Bend the outline from the wire's middle mark, {around} round: {shape}.", around=Length(frame.around_mm), shape=shape),
            makes=(outline[1].id,),
            checks=(
                look(
                    say("Sides equal within {off}; the tails cross at the last corner.", off=Tolerance(0.3)),
                    "Open it, move the bend: once only.",
                ),
            ),
            stage="bend",
        ),
        Task(
            "neck",
            Phase.FLAT,
            say(
                "Bend both tails out until they run straight away, {pitch} apart, on the outline's own middle line.",
                pitch=Thickness(frame.pitch_mm),
            ),
            makes=(outline[0].id, outline[2].id),
            checks=(look("Parallel. Bent once: straightened and bent again it breaks."),),
            stage="bend",
        ),
        Task(
            "meet",
            Phase.FORM,
            say("Press the outline on the mandrel at {start}, hold it, and pull the band round to its far point.", start=start),
            makes=tuple(p.id for piece in band.pieces if piece.role == "base" for p in piece.moves),
            checks=(
                Check(
                    say("The weave's end just reaches the fork, {fork} from the frame's middle.", fork=Length(frame.fork_mm)),
                    Say("Short: a repeat more. Long: take one off."),
                ),
                reads(0.1),
            ),
            cautions=(cautions.LAST_EASY,),
        ),
        Task(
            "part",
            Phase.HEAD,
            Say("Part the tails gently at the weave's end, jaw on the last wrap, to follow the outline."),
            checks=(look("The point drops into the fork, the gap alike on both sides."),),
        ),
        Task(
            "first-half",
            Phase.HEAD,
            say(
                "Wrap the fine wire {parting} up the near wire; then {program}, A the outer wire, {repeats} on this half{corner}, bending the outer wire only as you get "
                "there. Push each group down.",
                parting=Count(parting, "time", "times"),
                program=style.frame_program,
                repeats=Count(repeats, "repeat", "repeats"),
                corner=corner_words,
            ),
            makes=(*near, *(i for i in doubles if i.startswith("near"))),
            checks=(look("The gap is even, the outer wire follows the outline."),),
            count=repeats,
        ),
        Task(
            "butt",
            Phase.HEAD,
            say(
                "Cut the outer wire long, offer it up, and take slivers until its end butts the band's wire; {half} from the fork.",
                half=Length(frame.half_mm),
            ),
            checks=(look("No gap, no push.", "A small gap is hidden by one group more."),),
            cautions=(cautions.CUT,),
        ),
        Task(
            "second-half",
            Phase.HEAD,
            say(
                "The other half in mirror, with {fine}, begun by two wraps at the fork: {repeats}.",
                fine=second,
                repeats=Count(repeats, "repeat", "repeats"),
            ),
            makes=(*far, *(i for i in doubles if i.startswith("far"))),
            takes=work.pieces[0].id,
            checks=(look("Left and right counts are equal, the frame is true."), reads(0.15)),
            cautions=(cautions.FINE_PULL, cautions.PAUSE),
            count=repeats,
        ),
        Task(
            "tuck",
            Phase.TRIM,
            say("Trim the fine ends in the corners to {stands} and roll them down between the wires.", stands=Tolerance(1)),
            checks=(look("A finger finds no end."),),
            cautions=(cautions.CUT, cautions.EDGES),
            stage="trim",
        ),
    ]

"""Claws: all ends are bound side by side in a base, then folded over a rough stone."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import row_at
from pliant_coil.core.moves.base import Cause
from pliant_coil.core.moves.eights import Eights
from pliant_coil.core.moves.loop import Eye
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed
from pliant_coil.core.moves.prong import Claw
from pliant_coil.core.moves.straight import Lead, Straight
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Warn, Wires
from pliant_coil.core.styles.heads.prongs.stone import Facts, placed
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Article, Count, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.prongs import Prongs

BINDING = Cause("binding-inside", "the binding of the claws' base")
_TAIL_MM = 8.0
_CRACKS = {"soft": 0.5, "half-hard": 0.35, "hard": 0.25}
"""Strain of a fold at which a claw may crack (values from memory)."""


def made(style: Prongs, form: Form, band: FormedBand, wires: Wires, facts: Facts, ends: list[End]) -> HeadWork:
    """All ends bound in a base, each folded over the stone."""
    d = band.strand_wire.size_mm
    stone = style.stone
    rounding = max(stone.height_mm / 3 if stone.edge_radius_mm is None else stone.edge_radius_mm, d / 2)
    apart = 0.4 * stone.width_mm if style.claws_apart_mm is None else style.claws_apart_mm
    lip = max(0.2 * stone.length_mm, 2.5 * d) if style.lip_mm is None else style.lip_mm
    if 2 * lip > stone.length_mm - 2 * rounding:
        refuse(
            "head.lip_mm",
            "the claws' tips meet in the middle of the stone",
            say("up to {most}", most=Length((stone.length_mm - 2 * rounding) / 2)),
        )
    if rounding * 2 > stone.height_mm:
        refuse(
            "head.stone.edge_radius_mm",
            "the edge's rounding is more than half the stone's height",
            say("up to {most}", most=Thickness(stone.height_mm / 2)),
        )
    chord = stone.length_mm
    if stone.shape in ("oval", "round"):
        chord *= math.sqrt(max(0.1, 1 - (apart / stone.width_mm) ** 2))
    top = facts.radius_mm + d / 2
    onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
    claw: Claw | None = None
    for side in ("right", "left"):
        of_side = sorted((e for e in ends if e.side == side), key=lambda e: e.at[2])
        for k, end in enumerate(of_side):
            z = apart * (k / (len(of_side) - 1) - 0.5) if len(of_side) > 1 else 0.0
            own = 1 if side == "right" else -1
            out = own if style.claw_path == "own-side" else -own
            edge = (out * (chord / 2 - rounding), top, z)
            claw = Claw("claw", end.at, edge, rounding + d / 2, stone.height_mm - 2 * rounding, lip, d)
            tip = claw.path()[-1]
            trim = Straight("trim", tip, (tip[0] - out * style.trimmed_mm, tip[1], tip[2]))
            backwards = end.which == "first"
            moves = [Placed(f"{end.name}.claw", claw, backwards=backwards)]
            if style.tip == "curled":
                curl = Eye("curl", style.lip_eye_mm, d, tip, (-out, 0.0, 0.0), (0.0, 1.0, 0.0))
                moves.append(Placed(f"{end.name}.curl", curl, backwards=backwards))
            moves.append(Placed(f"{end.name}.trim", trim, fate=Fate.TRIM, backwards=backwards))
            onward[end.key] = tuple(moves)
    binding, wraps = _binding(style, band, wires, facts, len(ends), d)
    done = Facts(facts.radius_mm, facts.theta, facts.half_spread_mm, facts.lanes, (), claw, wraps)
    return HeadWork(
        onward=onward,
        pieces=(binding,),
        stones=(placed(style.stone, top + d / 2),),
        ledger=band.ledger,
        tied=True,
        height_mm=2 * d + stone.height_mm,
        facts=done,
    )


def _binding(style: Prongs, band: FormedBand, wires: Wires, facts: Facts, abreast: int, d: float) -> tuple[Piece, int]:
    """Fine wire round all the ends side by side, from one end of the base to the other."""
    fine = wires["bind"]
    inner = band.inside_mm / 2
    wrap = (
        _round_all(style, band, fine, inner, abreast, d)
        if style.binding == "round-all"
        else _in_eights(style, band, fine, inner, abreast, d)
    )
    first = Lead("anchor", _beyond(wrap.begins, 6 * fine.width_mm, -1), wrap.begins)
    tails = [Straight("twisted tail", at, (at[0], at[1] + _TAIL_MM, at[2])) for at in (first.start, wrap.ends)]
    moves = (
        Placed("bind.first.tail", tails[0], fate=Fate.TRIM, backwards=True),
        Placed("bind.anchor", first),
        Placed("bind.wraps", wrap),
        Placed("bind.last.tail", tails[1], fate=Fate.TRIM),
    )
    return Piece("bind.1", "bind", fine, moves, ends=(EndCare.DRAWN, EndCare.DRAWN)), round(wrap.wraps)


def _round_all(style: Prongs, band: FormedBand, fine: Wire, inner: float, abreast: int, d: float) -> Wrap:
    """Round all the ends at once."""
    return Wrap(
        "bind",
        max(1, round(style.base_mm / fine.width_mm)),
        row_at(band.strand_wire.profile, tuple((k - (abreast - 1) / 2) * d for k in range(abreast))),
        fine.profile,
        inner,
        -style.base_mm / 2 / inner,
        start=(0.0, 9.0),
        inside_mm=fine.height_mm,
        cause=BINDING,
        host="the base",
    )


def _in_eights(style: Prongs, band: FormedBand, fine: Wire, inner: float, abreast: int, d: float) -> Wrap:
    """Round one half of the ends and the other in turn, which the fine wire keeps its own width apart."""
    half, w = abreast // 2, fine.width_mm
    pairs = [row_at(band.strand_wire.profile, tuple(side * (w / 2 + (k + 0.5) * d) for k in range(half))) for side in (1, -1)]
    eights = max(1, round(style.base_mm / (2 * w)))
    return Eights(
        "bind",
        eights,
        pairs[0],
        fine.profile,
        inner,
        -style.base_mm / 2 / inner,
        start=(0.0, band.strand_wire.centroid_mm),
        inside_mm=fine.height_mm,
        cause=BINDING,
        pitch_mm=2 * w,
        inside_to=eights - 0.25,
        host="the base",
        other=pairs[1],
    )


def advise(style: Prongs, band: FormedBand, claw: Claw) -> list[Warn]:
    """What lets a stone out of its claws."""
    wire, stone = band.strand_wire, style.stone
    d = wire.size_mm
    found = []
    if claw.lip_mm < 2.5 * d - 1e-9:
        text = say("Tips so short sit on the slope and slide off: {least} on the stone.", least=Thickness(2.5 * d))
        found.append(Warn("tips-slide", text, "head.lip_mm"))
    rounding = max(stone.height_mm / 3 if stone.edge_radius_mm is None else stone.edge_radius_mm, d / 2)
    if d / (2 * rounding + d) > _CRACKS[wire.temper]:
        rod = Article(Thickness(d / _CRACKS[wire.temper] - d))
        found.append(
            Warn("claws-crack", say("These claws may crack at the fold: bend them round {rod} rod, or anneal them.", rod=rod), "head.stone")
        )
    apart = 0.4 * stone.width_mm if style.claws_apart_mm is None else style.claws_apart_mm
    if stone.width_mm > 2.2 * style.base_mm and (stone.width_mm - apart) / 2 > 0.3 * stone.width_mm + 1e-9:
        found.append(Warn("stone-turns", Say("It can turn: spread the claws."), "head.claws_apart_mm"))
    if d < 0.7 and wire.temper == "soft" and stone.length_mm > 14:
        found.append(Warn("claws-thin", Say("Thin soft claws open: thicker or harder wire."), f"wires.{band.pieces[0].role}.diameter"))
    return found


def tasks(style: Prongs, band: FormedBand, work: HeadWork, facts: Facts) -> list[Task]:
    """From the cut ends to the filed tips."""
    claw = facts.claw
    assert claw is not None
    ids = [p.id for moves in work.onward.values() for p in moves]
    claws = tuple(i for i in ids if i.endswith((".claw", ".curl")))
    cut_ends = claw.length_mm + style.trimmed_mm
    return [
        Task(
            "try",
            Phase.WIRE,
            say("Measure the stone and try a scrap of the same wire over it: its tip lies {lip} on the top.", lip=Length(claw.lip_mm)),
            stage="test",
        ),
        Task(
            "ends",
            Phase.GATHER,
            say("Cut the ends alike, {length} beyond the twist or weave, and file them square.", length=Length(cut_ends)),
            cautions=(cautions.CUT,),
        ),
        Task(
            "base",
            Phase.GATHER,
            Say(
                "Bring the ends together at the top, flat and parallel, one from the left, one from the right in turn"
                + ("; leave the fine wire's width between the two pairs." if style.binding == "eights" else ".")
            ),
            checks=(reads(0.2),),
        ),
        Task(
            "bind",
            Phase.GATHER,
            _how_bound(style, facts.wraps),
            makes=("bind.anchor", "bind.wraps"),
            checks=(
                Check(say("The base is {base} long, flat, no wire on another.", base=Length(style.base_mm))),
                reads(0.15, Say("Small: tap on. More than a quarter size small: stretch. Big: bind it again.")),
            ),
            count=facts.wraps,
            cautions=(cautions.LAST_EASY,),
        ),
        Task(
            "twist-tails",
            Phase.GATHER,
            say(
                "Twist its two ends together, cut the twist at {tail}, roll it up and press it flat on the stone's side.",
                tail=Length(_TAIL_MM),
            ),
            checks=(look("Nothing is felt inside."),),
        ),
        Task(
            "fold",
            Phase.HEAD,
            say(
                "Splay the claws and bend each up {leg} from the twist, jaws a wire short of the mark; set the stone in without force.",
                leg=Length(claw.leg_mm),
            ),
            makes=claws,
            count=len(claws),
        ),
        Task(
            "over",
            Phase.HEAD,
            Say("Fold the claws over one after the other, opposite ones in turn, pressing along the stone with wood or nylon."),
            checks=(Check(Say("It neither rattles nor turns."), Say("Rattles: press the wall in first, then the tip.")),),
            cautions=(cautions.STONE, cautions.NO_MALLET),
        ),
        Task("tips", Phase.HEAD, Say("Cut the tips to match and file them round."), cautions=(cautions.CUT, cautions.GRIND)),
    ]


def _how_bound(style: Prongs, wraps: int) -> Say:
    if style.binding == "eights":
        return say(
            "Push one end of the fine wire through the last turn and bind {eights} round the two pairs: down between them, under one and over it, "
            "down between them again, under the other and over it; each close to the last, pulled flat.",
            eights=Count(wraps, "eight", "eights"),
        )
    return say(
        "Push one end of the fine wire through the last turn and bind {wraps} across all of them, each close to the last.",
        wraps=Count(wraps, "wrap", "wraps"),
    )


def _beyond(at: Point3, by: float, side: int) -> Point3:
    return (at[0] + side * by, at[1], at[2])

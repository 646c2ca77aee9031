"""Prongs: two ends lock round the others at the shoulders, the rest stand up at the stone's corners."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING

from pliant_coil.core.mechanics.hulls import Bundle, row_at
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Move, on_circle
from pliant_coil.core.moves.loop import Eye
from pliant_coil.core.moves.placed import Fate, Placed
from pliant_coil.core.moves.prong import Prong
from pliant_coil.core.moves.straight import Lead, Straight
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.handed_on import LOCKS, End, Form, FormedBand, HeadWork, Wires
from pliant_coil.core.styles.heads.prongs.stone import Facts, HeldStone, placed
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Length, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, listed, say

if TYPE_CHECKING:
    from pliant_coil.core.styles.heads.prongs import Prongs

_EYE_MM = 1.2


def made(style: Prongs, form: Form, band: FormedBand, wires: Wires, facts: Facts, ends: list[End]) -> HeadWork:
    """All ends cross in turn; the outermost of each side lock, the rest stand up."""
    n, d = facts.lanes, band.strand_wire.size_mm
    places = [(n - 0.5 - j) * d for j in range(2 * n)]
    onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
    prongs: list[Prong] = []
    for end in ends:
        # From +z on: left, right, left, right …
        order = n - 1 - end.lane
        left = end.side == "left"
        z = places[2 * order + (0 if left else 1)]
        locking = order == 0 if left else order == n - 1
        sign = 1 if left else -1
        z_from = end.at[2]
        cross = Arc("cross", facts.radius_mm, -sign * facts.theta, 2 * sign * facts.theta, z_from, z)
        backwards = end.which == "first"
        moves = [Placed(f"{end.name}.cross", cross, backwards=backwards)]
        if locking:
            locked = _lock(style, form, band, wires, facts, places, z, right=left)
            moves += [Placed(f"{end.name}.{name}", move, turned=not left, backwards=backwards) for name, move in locked]
        else:
            prong = _prong(style, facts, d, z, right=left, order=order - (1 if left else 0), count=n - 1)
            _check_bends(prong, d)
            prongs.append(prong)
            tip = prong.path()[-1]
            trim = Straight("trim", tip, (tip[0], tip[1] + style.trimmed_mm, tip[2]))
            moves += [
                Placed(f"{end.name}.prong", prong, backwards=backwards),
                Placed(f"{end.name}.trim", trim, fate=Fate.TRIM, backwards=backwards),
            ]
        onward[end.key] = tuple(moves)
    for k, tail in enumerate(end for end in band.ends if end.role == "weave"):
        onward[tail.key] = _weave_tail(style, band, wires, facts, tail, k)
    stone = placed(style.stone, facts.radius_mm + d / 2)
    done = Facts(facts.radius_mm, facts.theta, facts.half_spread_mm, n, tuple(prongs))
    return HeadWork(onward=onward, stones=(stone,), ledger=band.ledger, tied=True, height_mm=d + style.stone.height_mm, facts=done)


def _lock(
    style: Prongs, form: Form, band: FormedBand, wires: Wires, facts: Facts, places: list[float], z: float, *, right: bool
) -> list[tuple[str, Move]]:
    """A locking end round all the others at the far shoulder, and its curl, seen on the right side."""
    d = band.strand_wire.size_mm
    fine = wires["weave"].size_mm if "weave" in wires else 0.0
    others = tuple(p if right else -p for p in places if abs(p - z) > 1e-9)
    own = z if right else -z
    wrap = Wrap(
        "lock",
        form.locks,
        row_at(band.strand_wire.profile, others),
        band.strand_wire.profile,
        facts.radius_mm - d / 2,
        facts.theta,
        start=(math.copysign(1e3, own), d / 2),
        # Beside the weave, which lies inside already.
        inside_mm=d - fine,
        cause=LOCKS,
        host="the crossing ends",
    )
    found: list[tuple[str, Move]] = [("lock", wrap)]
    if style.curl_mm:
        x, y, at_z = wrap.ends
        radius, angle = math.hypot(x, y), math.atan2(x, y)
        curl = Arc("curl", radius, angle, style.curl_mm / radius, at_z, at_z)
        end_angle = angle + style.curl_mm / radius
        along = (math.cos(end_angle), -math.sin(end_angle), 0.0)
        outwards = (math.sin(end_angle), math.cos(end_angle), 0.0)
        found += [("curl", curl), ("eye", Eye("eye", _EYE_MM, d, on_circle(radius, end_angle, at_z), along, outwards))]
    return found


def _prong(style: Prongs, facts: Facts, d: float, z: float, *, right: bool, order: int, count: int) -> Prong:
    """A wire from its place in the crossing to its corner: upper wire to upper corner."""
    corner = foot_of(style.stone, d, 1 - 2 * order / (count - 1) if count > 1 else 0.0, count)
    side = 1 if right else -1
    x, y, _ = on_circle(facts.radius_mm, side * facts.theta, z)
    start, foot = (x, y, z), (side * corner[0], facts.radius_mm, corner[1])
    bend = (d / 2 if style.foot_radius_mm is None else style.foot_radius_mm) + d / 2
    lip = (style.lip_eye_mm + d) / 2
    edge = style.stone.height_mm if style.stone.edge_height_mm is None else style.stone.edge_height_mm
    return Prong("prong", start, foot, math.dist(start, foot), edge + d, bend, lip, 1.0 if style.lip == "full" else 0.5, d)


def _check_bends(prong: Prong, d: float) -> None:
    """Raise `Refusal` for bends so wide that they leave nothing straight between them."""
    most = min(prong.run_mm, prong.wall_mm / 2)
    if prong.bend_mm > most + 1e-9:
        refuse(
            "head.foot_radius_mm",
            "bends so wide leave no wall beside the stone",
            say("up to {most}", most=Thickness(math.floor(10 * max(0.0, most - d / 2)) / 10)),
        )


def foot_of(stone: HeldStone, d: float, share: float, count: int) -> tuple[float, float]:
    """Where one of `count` wires a side stands up, from the outermost at one edge (share 1) to that at the other (−1).

    At the middle of a cut corner, or on the straight edge between the corners; on a curved edge at even angles all round. Half a wire
    outside the stone.
    """
    a, b = stone.length_mm / 2, stone.width_mm / 2
    if stone.shape in ("oval", "round"):
        angle = math.pi / 2 * (1 - 1 / count) * share
        x, z = a * math.cos(angle), b * math.sin(angle)
        nx, nz = x / a**2, z / b**2
        norm = math.hypot(nx, nz)
        return x + d / 2 * nx / norm, z + d / 2 * nz / norm
    c = 0.0 if stone.shape == "rectangle" else min(stone.corner_mm, 2 * a / 3, 2 * b / 3)
    out = d / (2 * math.sqrt(2))
    return a - c / 2 + out if abs(share) > 0.5 else a + d / 2, (b - c / 2 + out) * share


def _weave_tail(style: Prongs, band: FormedBand, wires: Wires, facts: Facts, tail: End, k: int) -> tuple[Placed, ...]:
    """The weave's tails bind the curls' eyes to the band's edge and are coiled off behind the stone."""
    fine, d = wires["weave"], band.strand_wire.size_mm
    backwards = tail.which == "first"
    own: float = 1 if tail.at[0] > 0 else -1
    side = own if k == 0 else -own
    edge = max(band.strand_z(0)) + d
    angle = facts.theta + (style.curl_mm + 1.0) / facts.radius_mm
    bind = Wrap(
        "bind",
        2,
        Bundle(((side * (edge - d), 0.0), (side * edge, 0.0)), d / 2),
        fine.profile,
        facts.radius_mm,
        side * angle,
        start=(0.0, 9.0),
        pitch_mm=0.0,
        host="the curl's eye and the edge",
    )
    coil = Wrap("coil", 3, Bundle(((0.0, 0.0),), d / 2), fine.profile, facts.radius_mm, 0.0, start=(0.0, 9.0), host="a crossing wire")
    # Over the crossing, on the outside: nothing of it is felt.
    out = facts.radius_mm + (d + fine.size_mm) / 2
    if style.curl_mm:
        moves: list[tuple[str, Move]] = [("lead", Lead("to the curl", tail.at, bind.begins, out)), ("bind", bind)]
        here = bind.ends
    else:
        moves, here = [], tail.at
    moves += [("lead2", Lead("behind the stone", here, coil.begins, out)), ("coil", coil)]
    return tuple(Placed(f"{tail.name}.{name}", move, backwards=backwards) for name, move in moves)


def tasks(style: Prongs, band: FormedBand, work: HeadWork, facts: Facts) -> list[Task]:
    """From the crossing to the set stone."""
    ids = [p.id for moves in work.onward.values() for p in moves]
    d = band.strand_wire.size_mm
    crosses = tuple(i for i in ids if i.endswith("cross"))
    locks = [i for i in ids if i.endswith("lock")]
    curls = tuple(i for i in ids if i.endswith((".curl", ".eye")))
    binds = tuple(i for i in ids if i.startswith("weave."))
    prongs = tuple(i for i in ids if i.endswith("prong"))
    wraps = Count(band.form.locks, "full turn", "full turns")
    lay = "Off the mandrel, lay the ends over each other in turn: left, right, left, right, none crossing another twice."
    mark = say(
        "Mark each remaining end {runs} and bend it up square there, jaws a wire short of the mark.",
        runs=_runs(facts.prongs),
    )
    if style.order == "against-stone":
        mark = say(
            "Cut each end to {length}, hold the stone on, and push each wire up along its corner until its bend shows.",
            length=Length(facts.prongs[0].length_mm + style.trimmed_mm),
        )
    tasks = [
        Task(
            "cross",
            Phase.GATHER,
            Say(lay),
            makes=crosses,
            checks=(
                look("Side by side and flat on the mandrel; no two neighbours from one side."),
                reads(0.1, Say("Form it one mark smaller: it springs back.")),
            ),
        ),
        Task(
            "lock-1",
            Phase.GATHER,
            say(
                "Hold the crossing; take the outermost left end across to the right shoulder and {wraps} round all the others, close to the weave.",
                wraps=wraps,
            ),
            makes=tuple(locks[:1]),
            checks=(look("Tight against the weave; the rest lie flat."),),
        ),
        Task(
            "lock-2",
            Phase.GATHER,
            say("The outermost right end the same on the left, half a turn's image of the first."),
            makes=tuple(locks[1:]),
            checks=(reads(0.15, Say("Slacken both by a quarter, slide it on the mandrel, draw tight again.")),),
            cautions=(cautions.LAST_EASY,),
        ),
    ]
    if curls:
        tasks.append(
            Task(
                "curl",
                Phase.GATHER,
                say(
                    "Curve both locking ends along the band's edge, cut them {length} long, and turn each into a small eye.",
                    length=Length(style.curl_mm + math.pi * (_EYE_MM + d)),
                ),
                makes=curls,
                checks=(look("Left and right match, turned half round."),),
                cautions=(cautions.CUT,),
            )
        )
    if binds:
        tasks.append(
            Task(
                "bind",
                Phase.GATHER,
                Say(
                    "Bind each eye to the band's edge with a tail of the weave, twice, drawn down; the farther tail is led across behind the stone first. Coil what is left three times on a crossing wire there, trim, press in."
                ),
                makes=binds,
                checks=(look("Flat, no end felt."),),
                cautions=(cautions.FINE_PULL,),
            )
        )
    wall = facts.prongs[0].above_foot_mm
    tasks += [
        Task(
            "fan",
            Phase.HEAD,
            say("Fan the {ends} ends evenly, stone face down on a cloth, each wire under its corner.", ends=number_words(len(prongs))),
            checks=(
                look(
                    "Wires leave at the middle of each corner; a pointed back stands clear of the finger, a coated one is touched by nothing but wire.",
                    "Move them by hand before any bend.",
                ),
            ),
        ),
        Task("feet", Phase.HEAD, mark, makes=prongs, checks=(look("All feet are square; none was bent twice."),)),
        Task(
            "trim-prongs",
            Phase.HEAD,
            say("Trim each to {above} above its bend.", above=Length(wall)),
            checks=(look("All alike."),),
            cautions=(cautions.CUT,),
            count=len(prongs),
        ),
        Task(
            "lips",
            Phase.HEAD,
            say("Roll a {lip} loop, {eye} inside, outwards at each tip.", lip=style.lip, eye=Thickness(style.lip_eye_mm)),
            count=len(prongs),
        ),
        Task(
            "set",
            Phase.HEAD,
            Say(
                "Set the stone in and bend the loops over its edge, opposite ones in turn, a little each; then draw each in with the pliers in its loop."
            ),
            checks=(
                Check(
                    Say("It neither rattles nor turns."),
                    Say("Loose: a small twist of the wall, not of the loop. Too tight: open that foot by hand, once."),
                ),
            ),
            cautions=(cautions.STONE, cautions.NO_MALLET),
        ),
    ]
    return tasks


def _runs(prongs: Sequence[Prong]) -> Say:
    """How far from the lock each stands up."""
    runs = list(dict.fromkeys(round(p.run_mm, 1) for p in sorted(prongs, key=lambda p: round(abs(p.start[2]), 6))))
    order = ", counted from the middle of the crossing outwards," if len(runs) > 1 else ""
    return say(f"{{runs}} from the lock{order}", runs=listed([Length(run) for run in runs]))

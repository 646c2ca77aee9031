"""The finished ring as it is drawn: every wire's path in space, its beads, its solder."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import replace
from itertools import pairwise

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.cutting import Cut
from pliant_coil.core.making.joints import drawn
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.placed import Fate
from pliant_coil.core.plan import model
from pliant_coil.core.styles.stones import PlacedStone

_THREADED = ("through", "bead-row")
"""Kinds of moves that run through beads."""
_SKIN = 0.95
"""What a wire has to run within to be inside a bead: a little less than its skin, on which other wires lie."""


def drawing(made: MadeRing, cuts: list[Cut]) -> model.Drawing:
    """What a screen, a card and a turning picture draw: the moves' own paths, the stones and the solder."""
    strands, seen = [], dict[str, int]()
    # A barrel is a coil itself, and what is in it is seen.
    drilled = [stone for stone in made.stones if stone.hole_mm is not None and stone.shape != "barrel"]
    for cut in cuts:
        role = cut.piece.role
        number = seen[role] = seen.get(role, 0) + 1
        lines = drawn(replace(cut.piece, moves=tuple(cut.moves)))
        for index, (placed, line) in enumerate(zip(cut.moves, lines, strict=True)):
            points = _rounded(line)
            # What a head has cut off is no part of the ring; ends that wait for a head are.
            if points and (placed.fate is not Fate.TRIM or made.ring.head.waits):
                strands.append(
                    model.Strand(
                        role=role,
                        piece=number,
                        move=index,
                        id=placed.id,
                        kind=placed.move.kind,
                        width_mm=placed.worked.width_mm or cut.piece.wire.width_mm,
                        height_mm=placed.worked.height_mm or cut.piece.wire.height_mm,
                        points=points,
                        hidden=_hidden(points, drilled) if placed.move.kind in _THREADED else [],
                    )
                )
    inside = made.inside
    return model.Drawing(
        inside_x_mm=inside.x_mm,
        inside_y_mm=inside.y_mm,
        inside_radius_mm=inside.radius_mm,
        strands=strands,
        beads=[
            model.Stone(
                what=s.what,
                shape=s.shape,
                x_mm=s.centre[0],
                y_mm=s.centre[1],
                z_mm=s.centre[2],
                diameter_mm=max(s.length_mm, s.height_mm),
                length_mm=s.length_mm,
                width_mm=s.width_mm,
                height_mm=s.height_mm,
                colour=s.gem.colour if s.gem else None,
            )
            for s in made.stones
        ],
        soldered=[model.Soldered(what=s.what, points=_rounded(s.points)) for s in (*made.band.soldered(), *made.work.soldered())],
    )


def _hidden(points: list[list[float]], drilled: list[PlacedStone]) -> list[int]:
    return [k for k, (a, b) in enumerate(pairwise(points)) if any(_runs_through(stone, a, b) for stone in drilled)]


def _runs_through(stone: PlacedStone, a: Sequence[float], b: Sequence[float]) -> bool:
    """Whether what lies half-way between two points is inside a bead, where nobody sees it."""
    half = (stone.length_mm / 2, stone.height_mm / 2, stone.width_mm / 2)
    return math.hypot(*(((p + q) / 2 - c) / h for p, q, c, h in zip(a, b, stone.centre, half, strict=True))) < _SKIN


def _rounded(line: Iterable[Point3]) -> list[list[float]]:
    """A line's points as a drawing takes them: finer than any screen."""
    return [[round(x, 3), round(y, 3), round(z, 3)] for x, y, z in line]

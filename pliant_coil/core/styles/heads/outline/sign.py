"""Signs in their own plane: a heart, loops in a row, one by a program of straights and arcs; how they lie on the band."""

import math
import re
from collections.abc import Sequence

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, turtle
from pliant_coil.core.words.figures import Degrees
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import say

Part = tuple[float, float]
"""A straight or an arc: its length [mm] and its turn [rad], to the left positive."""
SLANT = math.pi / 4
"""How tails that leave along the finger come back to the band's line."""
_STEP = re.compile(r"(straight|left|right)\s+(\d+(?:\.\d+)?)(?:\s+(\d+(?:\.\d+)?))?")


@dataclass(frozen=True)
class Sign:
    """Named parts in the sign's own plane, (along the band, away from the band's line), from the left exit to the right one."""

    parts: tuple[tuple[str, tuple[Point, ...]], ...]
    """Each with its points; the heights follow from where it lies in the sign."""
    lifted: tuple[tuple[float, float], ...]
    """Per part, height above the band's wire at its beginning and its end, in wires."""
    exit_mm: float
    width_mm: float
    height_mm: float
    below_mm: float
    """How far it reaches past the band's line towards its tip."""
    leg_mm: float = 0.0


@dataclass(frozen=True)
class Laid:
    """A sign as it lies on a band: parts along the band and along the finger, from foot to foot, where the wire is the band's again."""

    sign: Sign
    parts: tuple[tuple[str, tuple[Point, ...]], ...]
    lifted: tuple[tuple[float, float], ...]
    foot_mm: float
    along_mm: float
    """What it takes of the band; its tails may come back beyond it."""
    reach_mm: float
    """How far it reaches along the band from its middle, at most."""
    beside_mm: float
    """How far it reaches past the band's line along the finger, at most."""
    base: int = 0
    """Wires that lie under it."""
    slant_mm: float = 0.0
    """Between the two bends of a tail that is bent back, 0 where it leaves along the band."""
    level_mm: float = 0.0
    """Where such a tail is level again, along the band from the middle."""


def upright(sign: Sign, sense: float) -> Laid:
    """Its tip along the finger, to the wrist (1) or the nail (-1); its tails leave along the band."""
    parts = tuple((name, tuple((u, sense * v) for u, v in points)) for name, points in sign.parts)
    return Laid(sign, parts, sign.lifted, sign.exit_mm, sign.width_mm, sign.width_mm / 2, sign.below_mm)


def on_its_side(sign: Sign, d: float, *, over: bool) -> Laid:
    """Turned by a quarter, its tip to the right; its tails in wire `d` bent back to the band's line, `over` other strands or not.

    A tail leaves at the exit along the finger, turns by a right angle and the slant, and the slant back on the band's line.
    """
    turned = math.pi / 2 + SLANT
    slant = (sign.exit_mm + d * (2 * math.cos(SLANT) - 1)) / math.sin(SLANT)
    out = turtle((0.0, sign.exit_mm), math.pi / 2, ((d * turned, -turned), (slant, 0.0), (d * SLANT, SLANT)), 0.1)
    level = out[-1][0]
    parts = [
        ("left.bent-back", _half_round(out)),
        *((name, tuple((-v, u) for u, v in points)) for name, points in sign.parts),
        ("right.bent-back", tuple(out)),
    ]
    base = int(over)
    lifted = [(base, base), *((first + base, last + base) for first, last in sign.lifted), (base, base)]
    foot = level
    if over:
        # Down beside the strands that it lies on.
        foot += 3 * d
        down = _level(level, foot)
        parts = [("left.down", _half_round(down)), *parts, ("right.down", down)]
        lifted = [(0, 1), *lifted, (1, 0)]
    return Laid(
        sign,
        tuple(parts),
        tuple(lifted),
        foot,
        along_mm=sign.height_mm,
        reach_mm=max(foot, sign.below_mm, sign.height_mm - sign.below_mm),
        beside_mm=max(sign.width_mm / 2, sign.exit_mm + 1.5 * d),
        base=base,
        slant_mm=slant,
        level_mm=level,
    )


def heart(d: float, *, rod_mm: float, tip_rad: float, gap_mm: float, tip_bend_mm: float) -> Sign:
    """A heart in wire `d`: its tip at `tip_rad` on a bend of `tip_bend_mm`, its lobes on a rod, `gap_mm` between them."""
    r, phi, rho = (rod_mm + d) / 2, tip_rad / 2, tip_bend_mm
    leg = (r * (1 + math.cos(phi)) + (d + gap_mm) / 2) / math.sin(phi)
    cut = rho * math.tan(math.pi / 2 - phi)
    line = leg * math.cos(phi) + r * math.sin(phi) - r
    rounded = rho * (1 / math.sin(phi) - 1)
    tip: list[Part] = [(rho * (math.pi / 2 - phi), math.pi / 2 - phi)]
    bottom = (0.0, rounded - line)
    half_tip = turtle(bottom, 0.0, tuple(tip))
    right_leg = turtle(half_tip[-1], math.pi / 2 - phi, ((leg - cut, 0.0),))
    sweep = 1.5 * math.pi + phi
    lobe = turtle(right_leg[-1], math.pi / 2 - phi, ((sweep * r, sweep),), 0.1)
    parts = (
        ("left.lobe", _mirrored(lobe)),
        ("left.leg", _mirrored(right_leg)),
        ("tip", (*_mirrored(half_tip), *half_tip[1:])),
        ("right.leg", tuple(right_leg)),
        ("right.lobe", tuple(lobe)),
    )
    exit_mm = r + (d + gap_mm) / 2
    return Sign(
        parts,
        ((0, 1), (1, 1), (1, 1), (1, 1), (1, 0)),
        exit_mm,
        2 * exit_mm + 2 * r + d,
        line + 2 * r + d - rounded,
        line - rounded + d / 2,
        leg,
    )


def loops(d: float, *, rod_mm: float, count: int, gap_mm: float) -> Sign:
    """Whole turns round a rod, `count` in a row, `gap_mm` between them; each begins and ends on the band's line."""
    r, k = (rod_mm + d) / 2, count
    step = 2 * r + d + gap_mm
    down = 3 * d
    at = -(k - 1) * step / 2
    exit_mm = -at + down
    parts: list[tuple[str, tuple[Point, ...]]] = [("left.way", _level(-exit_mm, at))]
    lifted: list[tuple[float, float]] = [(0, 0)]
    for n in range(1, k + 1):
        parts.append((f"loop.{n}", tuple(turtle((at, 0.0), 0.0, ((2 * math.pi * r, 2 * math.pi),), 0.1))))
        lifted.append((0, 1))
        if n < k:
            parts.append((f"way.{n}", _level(at, at + step)))
            lifted.append((1, 0))
        at += step
    at -= step
    parts.append(("right.way", _level(at, exit_mm)))
    lifted.append((1, 0))
    return Sign(tuple(parts), tuple(lifted), exit_mm, (k - 1) * step + 2 * r + d, 2 * r + d, 0.0)


def own_parts(program: str) -> tuple[Part, ...]:
    """The straights and arcs of one half. Raises `Refusal` where they can't be read, or don't come out level."""
    found = _STEP.findall(program)
    parts = tuple(
        (float(size), 0.0)
        if way == "straight"
        else (float(size) * math.radians(float(turn or 0)), (1 if way == "left" else -1) * math.radians(float(turn or 0)))
        for way, size, turn in found
    )
    turned = math.degrees(sum(turn for _, turn in parts)) % 360
    accepted = "such as left 1 45, straight 6, left 2.5 315"
    if not parts or len(parts) > 40:
        refuse("head.program", "no sign can be read from it", accepted)
    if min(turned, 360 - turned) > 1:
        refuse(
            "head.program",
            say("its last stretch isn't level with the band: all turns come to {sum}", sum=Degrees(math.radians(turned))),
            "turns that add up to 360°, or to none",
        )
    return parts


def own_sign(d: float, program: str) -> Sign:
    """A sign by its program. Raises `Refusal` for one whose tails would leave inwards."""
    points = turtle((0.0, 0.0), 0.0, own_parts(program), 0.1)
    drop = points[-1][1]
    half = [(x, y - drop) for x, y in points]
    if half[-1][0] <= d:
        refuse("head.program", "the tails would leave it on the wrong side", "a half that ends to the right of its middle")
    xs, ys = [x for x, _ in half], [y for _, y in half]
    wide = 2 * max(max(xs), -min(xs)) + d
    parts = (("left.half", _mirrored(half)), ("right.half", tuple(half)))
    return Sign(parts, ((0, 1), (1, 0)), half[-1][0], wide, max(ys) - min(ys) + d, max(0.0, -min(ys)) + d / 2)


def _mirrored(points: Sequence[Point]) -> tuple[Point, ...]:
    """The left half of a right one, walked towards the middle."""
    return tuple((-x, y) for x, y in reversed(points))


def _half_round(points: Sequence[Point]) -> tuple[Point, ...]:
    """The same after half a turn, walked towards the middle."""
    return tuple((-x, -z) for x, z in reversed(points))


def _level(first: float, last: float) -> tuple[Point, ...]:
    """Straight along the band's line."""
    return tuple(turtle((first, 0.0), 0.0, ((last - first, 0.0),)))

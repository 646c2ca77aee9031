"""The wires of a weave: the base wires round the finger with what they end in, and the fine wire that is woven on them."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import TYPE_CHECKING, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.mechanics.program import program_text
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import on_band, on_circle
from pliant_coil.core.moves.grip import Fold
from pliant_coil.core.moves.loop import Eye
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed
from pliant_coil.core.moves.stitch import Hitch
from pliant_coil.core.moves.straight import Straight
from pliant_coil.core.moves.weaving import Weaving
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.handed_on import Anchor, End, Opening, Side, Slot
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.say import Say

if TYPE_CHECKING:
    from pliant_coil.core.styles.bands.woven import Woven


@dataclass(frozen=True)
class Laid:
    """The circle and the woven length that go with it, and what is left over."""

    radius_mm: float
    inside_mm: float
    weave: Weave
    cycles: int
    woven_mm: float
    """What there is to fill."""

    @property
    def made_mm(self) -> float:
        return self.cycles * self.weave.cycle_mm


def laid_base(style: Woven, wire: Wire, laid: Laid, opening: Opening) -> tuple[list[Piece], tuple[Slot, ...], list[End]]:
    """The base wires, where a head goes between them, and their ends."""
    half = laid.woven_mm / 2 / laid.radius_mm
    if opening.root:
        return _rooted(wire, laid, opening, half)
    bare = opening.bare_mm / laid.radius_mm
    pieces, ends = [], []
    sides: tuple[tuple[Side, float], tuple[Side, float]] = (("right", math.pi - half), ("left", -(math.pi - half)))
    for lane in range(style.base_wires):
        z = laid.weave.z_mm(lane)
        name = f"base.{lane + 1}"
        share = {"middle": 0.5, "third": 1 / 3, "end": 0.0, "fold": 0.0}[style.begins]
        if style.direction == "right to left":
            share = 1 - share
        woven = Arc(
            "woven",
            laid.radius_mm,
            math.pi - half,
            2 * half,
            z,
            z,
            mark="begin weaving",
            mark_share=share,
            host="the mandrel",
        )
        moves = [Placed(f"{name}.woven", woven)]
        if opening.lead_mm and opening.gap_rad is not None:
            # Up to the head it leaves the circle as a tangent, woven all the way.
            bent = math.pi - opening.gap_rad
            lead = laid.woven_mm / 2 - bent * laid.radius_mm - opening.corner_mm
            arc = replace(woven, from_rad=math.pi - bent, sweep_rad=2 * bent)
            ups = []
            for side_sign in (-1, 1):
                edge = bent * laid.radius_mm
                a, b = (on_band(laid.radius_mm, side_sign * (edge + more), 0.0, z, edge) for more in (0.0, lead))
                ups.append(Straight("woven, straight", a, b))
            moves = [
                Placed(f"{name}.first.lead", ups[0], backwards=True),
                Placed(f"{name}.woven", arc),
                Placed(f"{name}.last.lead", ups[1]),
            ]
            ends.append(End(name, "first", "right", lane, ups[0].end, wire, "base", f"right.{lane + 1}"))
            ends.append(End(name, "last", "left", lane, ups[1].end, wire, "base", f"left.{lane + 1}"))
            pieces.append(Piece(name, "base", wire, tuple(moves), ends=(EndCare.CUT, EndCare.CUT)))
            continue
        if bare:
            first = Arc("bare", laid.radius_mm, math.pi - half - bare, bare, z, z)
            last = Arc("bare", laid.radius_mm, math.pi + half, bare, z, z)
            moves = [Placed(f"{name}.first.bare", first), *moves, Placed(f"{name}.last.bare", last)]
        care = EndCare.CUT
        if style.close == "eyes":
            moves = _with_eyes(style, lane, moves, laid, wire, sides)
        elif opening.gap_rad is None:
            first_end, last_end = (_free_end(style, laid, angle, z) for _, angle in sides)
            moves = [
                Placed(f"{name}.first.end", first_end, fate=Fate.TRIM, backwards=True),
                *moves,
                Placed(f"{name}.last.end", last_end, fate=Fate.TRIM),
            ]
            care = EndCare.SAWN
        else:
            right = on_circle(laid.radius_mm, math.pi - half - bare, z)
            left = on_circle(laid.radius_mm, math.pi + half + bare, z)
            ends.append(End(name, "first", "right", lane, right, wire, "base", f"right.{lane + 1}"))
            ends.append(End(name, "last", "left", lane, left, wire, "base", f"left.{lane + 1}"))
        pieces.append(Piece(name, "base", wire, tuple(moves), ends=(care, care)))
    return pieces, (), ends


@dataclass(frozen=True)
class LaidEye:
    """An eye as it lies on the ring's top, level: its middle, the direction away from the top along the band, and how far it has parted from its lane."""

    centre: Point3
    away: Point3
    parted_mm: float


_PARTS_BY = 1.4
"""Wires' widths that a stem's end may stand off its eye in drawings: nearer to each other than that the wires drift together."""


def eye_of(style: Woven, laid: Laid, lane: int, side: Side) -> LaidEye:
    """Facing eyes touch in the ring's top; those of one side lie beside each other, as far as their stems can part."""
    d = laid.weave.base_mm
    across, r = style.eye_mm + 2 * d, (style.eye_mm + d) / 2
    sign = 1 if side == "right" else -1
    middle = lane - (style.base_wires - 1) / 2
    z = laid.weave.z_mm(lane)
    most = math.sqrt(max(0.0, (r + _PARTS_BY * d) ** 2 - (across / 2) ** 2))
    parted = math.copysign(min(abs(middle * across - z), most), middle) if middle else 0.0
    angle = sign * across / 2 / laid.radius_mm
    return LaidEye(on_circle(laid.radius_mm, angle, z + parted), (sign * math.cos(angle), -sign * math.sin(angle), 0.0), parted)


def anchors(style: Woven, laid: Laid) -> tuple[Anchor, ...]:
    """Its eyes, where it closes itself with them."""
    if style.close != "eyes":
        return ()
    d = laid.weave.base_mm
    sides: tuple[Side, Side] = ("left", "right")
    return tuple(
        Anchor(eye_of(style, laid, lane, side).centre, laid.radius_mm + d / 2, style.eye_mm + 2 * d)
        for side in sides
        for lane in (0, style.base_wires - 1)
    )


def _free_end(style: Woven, laid: Laid, angle: float, z: float) -> Straight:
    foot = on_circle(laid.radius_mm, angle, z)
    up = on_circle(style.ends_mm, angle, 0.0)
    return Straight("for the head", foot, (foot[0] + up[0], foot[1] + up[1], z))


def _with_eyes(
    style: Woven, lane: int, moves: list[Placed], laid: Laid, wire: Wire, sides: tuple[tuple[Side, float], tuple[Side, float]]
) -> list[Placed]:
    found = list(moves)
    name, z = f"base.{lane + 1}", laid.weave.z_mm(lane)
    for side, angle in sides:
        sign = -1 if side == "right" else 1
        stem_rad = sign * style.stem_mm / laid.radius_mm
        end = angle + stem_rad
        stem = Arc("stem", laid.radius_mm, angle, stem_rad, z, z)
        eye = _eye(style, wire, eye_of(style, laid, lane, side), on_circle(laid.radius_mm, end, z))
        which = "first" if side == "right" else "last"
        extra = [Placed(f"{name}.{which}.stem", stem), Placed(f"{name}.{which}.eye", eye)]
        if not style.stem_mm:
            extra = extra[1:]
        if which == "first":
            found = [*(_outwards(p) for p in reversed(extra)), *found]
        else:
            found += extra
    return found


def _rooted(wire: Wire, laid: Laid, opening: Opening, half: float) -> tuple[list[Piece], tuple[Slot, ...], list[End]]:
    """One wire whose middle is the head: its two tails are the lanes, from the neck round to the fork."""
    neck = opening.neck_mm / laid.radius_mm
    fork = neck + 2 * half
    zs = (laid.weave.z_mm(0), laid.weave.z_mm(1))
    lanes = []
    for lane, z in enumerate(zs):
        arc = Arc("woven", laid.radius_mm, neck, 2 * half, z, z, mark="begin weaving" if lane == 1 else "", host="the mandrel")
        lanes.append(Placed(f"base.lane{lane + 1}.woven", arc, backwards=lane == 0))
    piece = Piece("base.1", "base", wire, tuple(lanes), ends=(EndCare.CUT, EndCare.CUT))
    feet = [on_circle(laid.radius_mm, neck, z) for z in zs]
    slot = Slot("base.1", 1, 0, feet[0], feet[1])
    ends = [
        End("base.1", "first", "left", 0, on_circle(laid.radius_mm, fork, zs[0]), wire, "base", "fork.1"),
        End("base.1", "last", "left", 1, on_circle(laid.radius_mm, fork, zs[1]), wire, "base", "fork.2"),
    ]
    return [piece], (slot,), ends


def laid_fine(style: Woven, fine: Wire, laid: Laid, straight: float | None) -> tuple[list[Piece], list[End]]:
    """The fine wire, or both of them, and what is left at its ends."""
    weave, cycles = laid.weave, laid.cycles
    radius, made = laid.radius_mm, laid.made_mm
    label = program_text(weave.groups)
    leftwards = style.direction == "right to left"
    begin = made / 2 if leftwards else -made / 2
    sense = -1 if leftwards else 1
    moves: tuple[Placed, ...]
    if style.begins == "fold":
        # Each half lies round its own pair; the fold holds the middle base wire where the weave begins.
        halves = [
            Weaving(label, weave, cycles, radius, begin, backwards=leftwards, half=k, straight_from_mm=straight, host="the base wires")
            for k in (0, 1)
        ]
        ways = [m.begins for m in halves]
        fold = Fold("fold", weave.base_mm, weave.wire_mm, (ways[0], ways[1]), mark="fold", mark_share=0.5)
        moves = (
            Placed("weave.first.weave", halves[0], backwards=True),
            Placed("weave.fold", fold),
            Placed("weave.last.weave", halves[1]),
        )
        ends = [_tail("weave.1", "first", 0, halves[0], fine), _tail("weave.1", "last", 1, halves[1], fine)]
        return [Piece("weave.1", "weave", fine, moves)], ends
    # Where the weave begins on a straight lead, its first wrap isn't drawn.
    plain = _plain("start", 1, laid, begin, -sense)
    start = plain if straight is None else Hitch("start", plain.length_mm, Say("one wrap on the first base wire"))
    if style.weave_wires == 2 or style.begins == "middle":
        half = cycles // 2
        out = Weaving(label, weave, half, radius, 0.0, straight_from_mm=straight, host="the base wires")
        back = Weaving(
            label,
            weave,
            half,
            radius,
            0.0,
            backwards=True,
            mirrored=style.lean == "mirrored",
            straight_from_mm=straight,
            host="the base wires",
        )
        if style.weave_wires == 2:
            return [
                Piece("weave.1", "weave", fine, (Placed("weave.1.weave", back),)),
                Piece("weave.2", "weave", fine, (Placed("weave.2.weave", out),)),
            ], [_tail("weave.1", "last", 0, back, fine), _tail("weave.2", "last", 0, out, fine)]
        moves = (Placed("weave.near.weave", back, backwards=True), Placed("weave.far.weave", out))
        ends = [_tail("weave.1", "first", 0, back, fine), _tail("weave.1", "last", 0, out, fine)]
        return [Piece("weave.1", "weave", fine, moves)], ends
    if style.begins == "third":
        near = max(1, round(cycles / 3))
        at = begin + sense * near * weave.cycle_mm
        # The short side first, with the tail; then the work is turned like a page and goes on from the reel.
        short = Weaving(label, weave, near, radius, at, backwards=not leftwards, straight_from_mm=straight, host="the base wires")
        long = Weaving(label, weave, cycles - near, radius, at, backwards=leftwards, straight_from_mm=straight, host="the base wires")
        moves = (Placed("weave.near.weave", short, backwards=True), Placed("weave.far.weave", long))
        ends = [_tail("weave.1", "first", 0, short, fine), _tail("weave.1", "last", 0, long, fine)]
        return [Piece("weave.1", "weave", fine, moves)], ends
    whole = Weaving(label, weave, cycles, radius, begin, backwards=leftwards, straight_from_mm=straight, host="the base wires")
    placed = [Placed("weave.start", start, backwards=True), Placed("weave.weave", whole)]
    ends = [_tail("weave.1", "last", 0, whole, fine)]
    if style.end_wraps:
        closing = _plain("finish", style.end_wraps, laid, begin + sense * made, sense)
        if straight is None:
            placed.append(Placed("weave.finish", closing))
            ends = [_tail("weave.1", "last", 0, closing, fine)]
        else:
            placed.append(Placed("weave.finish", Hitch("finish", closing.length_mm, Say("plain wraps on the first base wire"))))
    return [Piece("weave.1", "weave", fine, tuple(placed))], ends


def _plain(label: str, wraps: int, laid: Laid, at_mm: float, towards: int) -> Wrap:
    """Plain wraps on the first base wire, before the program begins or after it ends."""
    weave = laid.weave
    base = weave.base_mm / 2
    angle = math.pi + at_mm / laid.radius_mm
    r = (weave.base_mm + weave.wire_mm) / 2
    return Wrap(
        label,
        wraps,
        Bundle(((weave.z_mm(0), 0.0),), base),
        Profile("round", weave.wire_mm),
        laid.radius_mm,
        angle,
        towards,
        start=(weave.z_mm(0) - r, 0.0),
        pitch_mm=weave.step_mm,
        host="the first base wire",
    )


def _tail(piece: str, which: Literal["first", "last"], k: int, move: Weaving | Wrap, fine: Wire) -> End:
    at: Point3 = move.ends
    side: Side = "right" if at[0] > 0 else "left"
    return End(piece, which, side, k, at, fine, "weave", f"{piece}.{which}")


def _outwards(placed: Placed) -> Placed:
    return replace(placed, backwards=True)


def _eye(style: Woven, wire: Wire, laid: LaidEye, stem_ends: Point3) -> Eye:
    """Once round, begun where it is nearest to its stem, in the plane in which the eye lies."""
    away, (cx, cy, cz) = laid.away, laid.centre
    to = tuple(a - b for a, b in zip(stem_ends, laid.centre, strict=True))
    along, aside = sum(a * b for a, b in zip(to, away, strict=True)), to[2]
    off = math.hypot(along, aside)
    u, v = along / off, aside / off
    r = (style.eye_mm + wire.size_mm) / 2
    begins = (cx + r * u * away[0], cy + r * u * away[1], cz + r * v)
    inwards = (-u * away[0], -u * away[1], -v)
    across = (-v * away[0], -v * away[1], u)
    return Eye("eye", style.eye_mm, wire.size_mm, begins, across, inwards)

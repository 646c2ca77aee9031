"""The plan as a readable card, for the terminal."""

from collections.abc import Sequence

from pliant_coil.core.plan.model import Plan, Size
from pliant_coil.core.styles.handed_on import SizedBy
from pliant_coil.core.words.say import Figure, Reader, write

_NOTHING_MM = 0.05
"""A step to the next stretch that is hardly there isn't listed."""
_LONGEST, _OFTEN = 4, 3
"""Stretches in what is said once, and how often it has to come."""


def card(plan: Plan, reader: Reader) -> str:
    """The plan in plain lines for `reader`."""

    def w(said: Figure) -> str:
        return write(said, reader)

    def size(of: Size) -> str:
        return ", ".join(of.exact[code] for code in reader.systems)

    lines = [plan.title, ""] if plan.title else []
    lines += [", ".join(w(phrase.text) for phrase in plan.sentence) + ".", ""]
    if plan.band.sized_by != SizedBy.NOTHING:
        lines += [f"Finger    {size(plan.target)}", f"Start at  {size(plan.start)}"]
        lines += [f"Guide at  {size(plan.guide)}"] if plan.guide else []
        lines.append(f"Comes off {size(plan.finished)}")
    lines += [f"  {c.cause}: {w(c.said)}" for c in plan.contributions]
    if plan.fit:
        lines += ["", w(plan.fit.words)]
    for wire in plan.wires:
        lines += [
            "",
            f"{'Run off' if wire.from_reel else 'Cut'} {w(wire.cut)} of {w(wire.label)}, {wire.mass_g:.2f} g",
            f"  {w(wire.arithmetic)}",
            *([f"  {w(wire.more)}"] if wire.more else []),
        ]
        lines += [f"  {line}" for line in repeats([f"{m.label}: {w(m.length)}" for m in wire.moves if m.length_mm > _NOTHING_MM])]
        lines += [f"  mark {w(m.at)}  {m.label}" for m in wire.marks]
    lines += ["", "Steps"]
    for number, step in enumerate(plan.steps, 1):
        lines.append(f"{number:3}. {w(step.text)}" + (f" Check: {w(step.check)}" if step.check else ""))
        lines += [f"     ! {w(caution)}" for caution in step.cautions]
    lines += ["", *(f"Mind: {w(warning.text)}" for warning in plan.warnings)] if plan.warnings else []
    return "\n".join(lines)


def repeats(lines: Sequence[str]) -> list[str]:
    """The same, what comes again and again said once: `25 × (bead: 7.4 mm, wrap: 5.4 mm)`."""
    found, at = [], 0
    while at < len(lines):
        long, times = max(((long, _times(lines, at, long)) for long in range(1, _LONGEST + 1)), key=lambda way: way[0] * (way[1] - 1))
        if times < _OFTEN:
            found.append(lines[at])
            at += 1
            continue
        block = ", ".join(lines[at : at + long])
        found.append(f"{times} × ({block})" if long > 1 else f"{times} × {block}")
        at += long * times
    return found


def _times(lines: Sequence[str], at: int, long: int) -> int:
    """How often the next so many lines come one after the other."""
    block, times = lines[at : at + long], 1
    while lines[at + long * times : at + long * (times + 1)] == block:
        times += 1
    return times

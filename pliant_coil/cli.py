"""The terminal: plans, sizes and styles, with no server and no database.

Heavy imports stay inside the commands, so that `sizes` answers at once.
"""

import argparse
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

from pliant_coil import __version__
from pliant_coil.core.refusal import Refusal

if TYPE_CHECKING:
    from pliant_coil.core.plan import Plan


def main(arguments: Sequence[str] | None = None) -> int:
    """Run a command. Returns 0, or 2 for input that can't be accepted, with the field and the reason on stderr."""
    parser = _parser()
    options = parser.parse_args(arguments)
    try:
        options.run(options)
    except Refusal as refusal:
        for fault in refusal.faults:
            print(f"pliant-coil: {fault}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        # The reader (head, less) has seen enough; Python must not complain when it closes the stream.
        sys.stdout = None
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="pliant-coil", description="From a finger size to a cut wire ring.")
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    plan = commands.add_parser("plan", help="plan a ring file and print the card")
    plan.add_argument("file", metavar="FILE", help="a ring file (*.ring.json); - reads standard input")
    plan.add_argument("--json", action="store_true", help="print the plan as JSON, as POST /api/plan returns it")
    plan.add_argument("--paths", action="store_true", help="with --json: the wires' paths in space too")
    plan.set_defaults(run=_plan)
    sizes = commands.add_parser("sizes", help="convert a ring size to every system")
    sizes.add_argument("text", metavar="TEXT", nargs="+", help='a size as people type it: "UK M", 7 1/4, 54.4 mm')
    sizes.set_defaults(run=_sizes)
    styles = commands.add_parser("styles", help="list every style with its parameters")
    styles.set_defaults(run=_styles)
    return parser


def _plan(options: argparse.Namespace) -> None:
    from pliant_coil.core.planner import plan
    from pliant_coil.core.recipe import read_ring_text
    from pliant_coil.core.refusal import refuse

    try:
        text = sys.stdin.buffer.read() if options.file == "-" else Path(options.file).read_bytes()
    except (OSError, ValueError) as error:
        refuse(options.file, getattr(error, "strerror", None) or str(error), "a ring file that can be read")
    told = plan(read_ring_text(text), paths=options.paths)
    print(told.model_dump_json(indent=2) if options.json else _card(told))


def _card(told: "Plan") -> str:
    lines = [told.title, ""] if told.title else []
    lines.append(", ".join(phrase.text for phrase in told.sentence) + ".")
    lines.append("")
    lines += [
        f"Finger    {told.target.exact['us']:<22} {told.target.exact['uk']:<22} {told.target.inside_diameter_mm:.2f} mm inside",
        f"Start at  {told.start.exact['us']:<22} {told.start.exact['uk']:<22} {told.start.inside_diameter_mm:.2f} mm inside",
        f"Comes off {told.finished.exact['us']:<22} {told.finished.exact['uk']:<22} {told.finished.inside_diameter_mm:.2f} mm inside",
    ]
    lines += [f"  {c.cause}: {c.us_sizes:+.2f} US, {c.mm:+.2f} mm" for c in told.contributions]
    for wire in told.wires:
        lines += [
            "",
            f"{'Run off' if wire.from_reel else 'Cut'} {wire.cut_mm:.0f} mm ({wire.cut_in} in) of {wire.label}, {wire.mass_g:.2f} g",
        ]
        lines += [f"  {wire.arithmetic}"]
        lines += [f"  {m.from_mm:7.1f} – {m.to_mm:6.1f}  {m.label}" for m in wire.moves]
        lines += [f"  mark {m.at_mm:.1f}  {m.label}" for m in wire.marks]
    for bead in told.beads:
        verdict = "fits" if bead.fits else "too small"
        lines += [
            "",
            f"{bead.what.capitalize()} {bead.diameter_mm:g} mm: hole {bead.hole_mm:g}, needs {bead.hole_needed_mm:.2f} mm, {verdict}",
        ]
    lines += ["", "Steps"]
    for number, step in enumerate(told.steps, 1):
        lines.append(f"{number:3}. {step.text}" + (f" Check: {step.check}" if step.check else ""))
        lines += [f"     ! {caution}" for caution in step.cautions]
    lines += ["", *(f"Mind: {warning.text}" for warning in told.warnings)] if told.warnings else []
    return "\n".join(lines)


def _sizes(options: argparse.Namespace) -> None:
    import math

    from pliant_coil.core.sizes import SYSTEMS, nearest_mark, read_size

    diameter = read_size(" ".join(options.text), "size").inside_diameter_mm
    print(f"inside diameter {diameter:.2f} mm, circumference {math.pi * diameter:.2f} mm")
    for system in SYSTEMS.values():
        print(f"{nearest_mark(diameter, system).text:<24} {system.name}")


def _styles(_: argparse.Namespace) -> None:
    from pliant_coil.core.bands.base import all_bands
    from pliant_coil.core.heads.base import all_heads

    for kind, styles in (("band", all_bands()), ("head", all_heads())):
        for name, style in styles.items():
            print(f"{kind} {name}")
            _print_parameters(style.model_json_schema(), "  ")


def _print_parameters(schema: dict[str, Any], indent: str) -> None:
    parts = schema.get("$defs", {})
    for name, field in schema["properties"].items():
        if name == "style":
            continue
        inner = field.get("$ref")
        if inner:
            print(f"{indent}{name}")
            _print_parameters({**parts[inner.rsplit("/", 1)[-1]], "$defs": parts}, indent + "  ")
            continue
        choices = " | ".join(map(str, field["enum"])) if "enum" in field else str(field.get("const", field.get("type", "")))
        bounds = [f"{word} {field[key]:g}" for key, word in (("minimum", "from"), ("maximum", "to")) if key in field]
        usual = f"usually {field['default']}" if "default" in field else ""
        print(f"{indent}{name}: " + ", ".join(filter(None, [choices, *bounds, usual])))


if __name__ == "__main__":
    sys.exit(main())

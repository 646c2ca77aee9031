"""The terminal: plans, sizes and styles, with no server and no database.

Heavy imports stay inside the commands, so that `sizes` answers at once.
"""

import argparse
import gc
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

from pliant_coil import __version__
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader


def main(arguments: Sequence[str] | None = None, serve: Callable[[argparse.Namespace], None] | None = None) -> int:
    """Run a command. Returns 0, or 2 for input that can't be accepted, with the field and the reason on stderr."""
    parser = _parser(serve)
    options = parser.parse_args(arguments)
    # A command ends before there is anything worth looking through for waste; a server turns that on again.
    gc.disable()
    try:
        options.run(options)
    except Refusal as refusal:
        for fault in refusal.faults:
            print(f"pliant-coil: {fault}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        # The reader (head, less) has seen enough; Python must not complain when it closes the stream.
        sys.stdout = None
    finally:
        # Nor when it ends: leaving, Python would look through everything twice, a tenth of the time that a plan takes.
        gc.freeze()
    return 0


def _parser(serve: Callable[[argparse.Namespace], None] | None) -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="pliant-coil", description="From a finger size to a cut wire ring.")
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    plan = commands.add_parser("plan", help="plan a ring file and print the card")
    plan.add_argument("file", metavar="FILE", help="a ring file (*.ring.json); - reads standard input")
    plan.add_argument("--json", action="store_true", help="print the plan as JSON, as POST /api/plan returns it")
    plan.add_argument("--paths", action="store_true", help="with --json: the wires' paths in space too")
    plan.set_defaults(run=_plan)
    resize = commands.add_parser("resize", help="say how a finished ring is made another size")
    resize.add_argument("file", metavar="FILE", help="its ring file; - reads standard input")
    resize.add_argument("size", metavar="SIZE", nargs="+", help='the wanted size as people type it: "UK M", US 7 1/4')
    for command in (plan, resize):
        command.add_argument("--units", choices=("mm", "in"), default="mm", help="units of every length")
        command.add_argument("--sizes", default="us,uk", metavar="CODES", help="size systems, the first one first: uk,us")
    resize.set_defaults(run=_resize)
    sizes = commands.add_parser("sizes", help="convert a ring size to every system")
    sizes.add_argument("text", metavar="TEXT", nargs="+", help='a size as people type it: "UK M", 7 1/4, 54.4 mm')
    sizes.set_defaults(run=_sizes)
    styles = commands.add_parser("styles", help="list every style with its parameters")
    styles.set_defaults(run=_styles)
    if serve:
        serving = commands.add_parser("serve", help="serve the application, on a PostgreSQL that DATABASE_URL names")
        serving.add_argument("--port", type=int, default=8420)
        serving.set_defaults(run=serve)
    return parser


def _plan(options: argparse.Namespace) -> None:
    from pliant_coil.core.plan.build import plan
    from pliant_coil.core.plan.card import card
    from pliant_coil.core.ring_file.document import read_ring_text

    text, reader = _text_of(options.file), _reader_of(options)
    planned = plan(read_ring_text(text), paths=options.paths)
    print(planned.json(reader, indent=2).decode() if options.json else card(planned, reader))


def _resize(options: argparse.Namespace) -> None:
    from pliant_coil.core.making.planned import planned
    from pliant_coil.core.plan.build import resizing
    from pliant_coil.core.ring_file.document import read_ring_text
    from pliant_coil.core.trade.sizes import read_size
    from pliant_coil.core.words.say import write

    text, reader = _text_of(options.file), _reader_of(options)
    wanted = read_size(" ".join(options.size), "size", reader.systems).inside_diameter_mm
    told = resizing(planned(read_ring_text(text)), wanted)
    print(f"Comes off {write(told.finished.said, reader)}, wanted {write(told.wanted.said, reader)}")
    for way in told.ways:
        print(f"{'  yes' if way.reaches else '   no'}  {way.code}: {write(way.text, reader)}")


def _text_of(file: str) -> bytes:
    from pliant_coil.core.words.refusal import refuse

    try:
        return sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except (OSError, ValueError) as error:
        refuse(file, getattr(error, "strerror", None) or str(error), "a ring file that can be read")


def _reader_of(options: argparse.Namespace) -> Reader:
    from pliant_coil.core.trade.sizes import SYSTEMS
    from pliant_coil.core.words.refusal import refuse

    codes = tuple(code.strip().lower() for code in options.sizes.split(",") if code.strip())
    if not codes or any(code not in SYSTEMS for code in codes):
        refuse("--sizes", f"“{options.sizes[:40]}” names a size system that isn't known", ", ".join(SYSTEMS))
    return Reader(options.units, codes)


def _sizes(options: argparse.Namespace) -> None:
    import math

    from pliant_coil.core.trade.sizes import SYSTEMS, nearest_mark, read_size

    diameter = read_size(" ".join(options.text), "size").inside_diameter_mm
    print(f"inside diameter {diameter:.2f} mm, circumference {math.pi * diameter:.2f} mm")
    for system in SYSTEMS.values():
        print(f"{nearest_mark(diameter, system).text:<24} {system.name}")


def _styles(_: argparse.Namespace) -> None:
    from pliant_coil.core.styles.registry import all_bands, all_heads

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

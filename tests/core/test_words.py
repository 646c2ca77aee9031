"""What every style says, held against what it does and how it is spoken."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

import pliant_coil.core
from pliant_coil.core.making.fitting import heads_for
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import all_bands
from pliant_coil.core.words.figures import Length
from pliant_coil.core.words.say import Reader, listed, say, write

PAIRS = [(band, head) for band, style in all_bands().items() for head in heads_for(style())]
MEASURES = {"Thickness", "Length", "CutLength", "Number", "Tolerance"}


def template(node: ast.expr) -> str:
    """The words of a template, whatever is put together in it."""
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        return node.value
    if isinstance(node, ast.JoinedStr):
        return "".join(template(part) for part in node.values)
    return " ".join(template(part) for part in (node.body, node.orelse)) if isinstance(node, ast.IfExp) else "?"


def articles_of_their_own() -> Iterator[str]:
    """Templates that say `a` before a measure, which may be 8 or 11: `an` then."""
    for file in Path(pliant_coil.core.__path__[0]).rglob("*.py"):
        source = ast.parse(file.read_text())
        kept = {
            target.id: node.value
            for node in ast.walk(source)
            if isinstance(node, ast.Assign)
            for target in node.targets
            if isinstance(target, ast.Name)
        }
        for call in ast.walk(source):
            if not (isinstance(call, ast.Call) and isinstance(call.func, ast.Name) and call.func.id == "say" and call.args):
                continue
            for name in re.findall(r"\b[Aa]n? \{(\w+)\}", template(call.args[0])):
                value = next((k.value for k in call.keywords if k.arg == name), None)
                value = kept.get(value.id, value) if isinstance(value, ast.Name) else value
                if isinstance(value, ast.Call) and isinstance(value.func, ast.Name) and value.func.id in MEASURES:
                    yield f"{file.name}:{call.lineno} {name}"


def test_articles_agree_with_their_measures() -> None:
    assert list(articles_of_their_own()) == []


@pytest.mark.parametrize(("band", "head"), PAIRS)
def test_the_sentence_says_locked_where_something_is(band: str, head: str) -> None:
    """Held against the words on the strips: a lock is a stretch of wire that is called so."""
    told = plan(read_ring({"band": {"style": band}, "head": {"style": head}}))
    said = any("locked" in write(phrase.text, Reader()) for phrase in told.sentence)
    assert said == any(move.label.startswith("lock") for wire in told.wires for move in wire.moves)


@pytest.mark.parametrize(("band", "head"), PAIRS)
def test_every_warning_leads_to_what_would_mend_it(band: str, head: str) -> None:
    """A field of the ring file: of a wire that the ring has, or of its own styles."""
    for size in ("US 3", "US 7", "US 13"):
        document = {"finger": {"size": size}, "band": {"style": band}, "head": {"style": head}}
        file, told = read_ring(document), plan(read_ring(document))
        for warning in told.warnings:
            part, *rest = warning.field.split(".")
            if part == "wires":
                assert rest[0] in {wire.role for wire in told.wires}, warning.code
            else:
                assert not rest or rest[0] in type(getattr(file, part)).model_fields, warning.code


def test_templates_take_any_words_and_say_a_figure_twice() -> None:
    said = say("{much} % of {length}, {{so}}: {length}", length=Length(30), much="100 %s {x}")
    assert write(said, Reader()) == "100 %s {x} % of 30 mm, {so}: 30 mm"
    assert write(listed([said, say("50 %")], "; "), Reader("in")) == "100 %s {x} % of 1 3/16 in, {so}: 1 3/16 in; 50 %"
    assert write(listed([Length(k) for k in range(20)]), Reader()) == ", ".join(f"{k} mm" for k in range(20))

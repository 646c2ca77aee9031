"""Steps in few words, and what the trade's words in them mean."""

import re

import pytest

from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.trade.glossary import GLOSSARY, explained
from pliant_coil.core.words.say import Reader, Say, say, write
from tests.core.recipes import AMBER_MEADOW

HERE = Reader()
RINGS = [{"band": {"style": name}} for name in all_bands()] + [{"head": {"style": name}} for name in all_heads()]


def test_a_step_in_few_words_has_its_figures() -> None:
    steps = {step.id: step for step in plan(read_ring(AMBER_MEADOW)).steps}
    few = {name: write(step.brief, HERE) for name, step in steps.items()}
    assert few["cut-1"] == "Cut 197 mm (7 7/8 in), band." and few["lock-left"] == "lock: 2."
    assert few["form"].startswith("Form at just short of US 7 3/4.")
    assert few["trim"] == "", "nothing to count, nothing to read"
    assert write(steps["cut-1"].brief, Reader(units="in")) == "Cut 7 7/8 in (197 mm), band."


@pytest.mark.parametrize("document", RINGS, ids=lambda ring: next(iter(ring.values()))["style"])
def test_few_words_say_nothing_that_the_whole_text_and_its_moves_dont(document: dict[str, dict[str, str]]) -> None:
    band = document.get("band", {"style": "turned"})["style"]
    head = all_heads()[document["head"]["style"]]() if "head" in document else None
    if head and head.fits(all_bands()[band]()):
        band = next(name for name, style in all_bands().items() if not head.fits(style()))
    told = plan(read_ring({"finger": {"size": "US 8"}, **document, "band": {"style": band}}))
    counts = {move.id: move.count for wire in told.wires for move in wire.moves}
    for step in told.steps:
        few = write(step.brief, HERE)
        assert len(few) < 120
        for counted in re.findall(r": (?:\d+ times )?([\d., /]+)[.;]", few):
            for n in counted.split(", "):
                assert any(c and abs(c - float(n)) < 0.06 for i, c in counts.items() if i in step.makes), few


def test_words_are_explained_where_they_stand_and_nowhere_else() -> None:
    assert explained(Say("Wind the left tail round its shoulder.")) == [GLOSSARY["shoulder"][1], GLOSSARY["tail"][1]]
    assert explained(say("{first} {then}", first=Say("Press it."), then=Say("The mandrel reads so."))) == [GLOSSARY["mandrel"][1]]
    assert explained(Say("Locksmiths detail mandrelled words.")) == []
    assert explained(say("{band}", band="locked")) == [GLOSSARY["lock"][1]]

"""Steps in few words, and what the trade's words in them mean."""

import re

import pytest

from pliant_coil.core.bench.brief import in_few_words, meanings
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.making.fitting import simplest_head
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.styles.tasks import Phase, Task, look
from pliant_coil.core.trade.glossary import GLOSSARY, explained
from pliant_coil.core.words.figures import CutLength
from pliant_coil.core.words.say import Reader, Say, say, write
from tests.core.recipes import AMBER_MEADOW

HERE = Reader()
RINGS = [{"band": {"style": name}, "head": {"style": simplest_head(style())}} for name, style in all_bands().items()]
RINGS += [{"head": {"style": name}} for name in all_heads()]


def ring_of(document: dict[str, dict[str, str]]) -> RingAtBench:
    """A ring of a style with its usual values, on a band that its head fits."""
    band = document.get("band", {"style": "turned"})["style"]
    head = all_heads()[document["head"]["style"]]() if "head" in document else None
    if head and head.fits(all_bands()[band]()):
        band = next(name for name, style in all_bands().items() if not head.fits(style()))
    return RingAtBench.of(read_ring({"finger": {"size": "US 8"}, **document, "band": {"style": band}}))


def few(ring: RingAtBench, reader: Reader = HERE) -> dict[str, str]:
    return {task.id: write(in_few_words(task, ring.planned, ring.placed), reader) for task in ring.tasks}


def test_a_step_in_few_words_has_its_figures() -> None:
    ring = RingAtBench.of(read_ring(AMBER_MEADOW))
    told = few(ring)
    assert told["cut-1"] == "Cut 197 mm (7 7/8 in), band wire." and told["lock-left"] == "lock: 2."
    assert told["form"].startswith("At just short of US 7 3/4.") and told["mark-1"].startswith("Mark the band wire at ")
    assert told["trim"] == "", "nothing to count, nothing to read"
    assert few(ring, Reader(units="in"))["cut-1"] == "Cut 7 7/8 in (197 mm), band wire."


@pytest.mark.parametrize("document", RINGS, ids=lambda ring: next(iter(ring.values()))["style"])
def test_few_words_say_nothing_that_the_ring_itself_doesnt(document: dict[str, dict[str, str]]) -> None:
    ring = ring_of(document)
    counts = {move: placed.move.count for move, placed in ring.placed.items()}
    lengths = {(cut.piece.role, CutLength(cut.cut_mm, cut.inch_parts)) for cut in ring.cuts}
    for task in ring.tasks:
        text = write(in_few_words(task, ring.planned, ring.placed), HERE)
        assert len(text) < 130
        if task.id.startswith("cut-") and "role" in task.brief.figures and "Cut" in task.brief.template:
            # Of several wires each cut names its own, as its whole text does.
            assert (task.brief.figures["role"], task.brief.figures["length"]) in lengths
            assert task.brief.figures["length"] == task.says.figures["length"]
        for counted in re.findall(r": (?:\d+ times )?([\d., /]+)[.;]", "" if task.brief else text):
            for n in counted.split(", "):
                assert any(c and abs(c - float(n)) < 0.06 for i, c in counts.items() if i in task.makes), text


def test_two_wires_of_a_weave_are_cut_each_to_its_own_length() -> None:
    told = few(RingAtBench.of(read_ring({"finger": {"size": "US 8"}, "band": {"style": "woven"}})))
    assert told["cut-1"].startswith("Cut 2 pieces of ") and told["cut-1"].endswith("base wire.")
    assert told["cut-2"].startswith("Weave wire from the reel: about 721 mm")


def test_words_are_explained_where_they_stand_and_nowhere_else() -> None:
    assert explained(Say("Wind the left tail round its shoulder.")) == [GLOSSARY["shoulder"][1], GLOSSARY["tail"][1]]
    assert explained(say("{first} {then}", first=Say("Press it."), then=Say("The mandrel reads so."))) == [GLOSSARY["mandrel"][1]]
    assert explained(Say("Locksmiths detail mandrelled words.")) == []
    assert explained(say("{band}", band="locked")) == [GLOSSARY["lock"][1]]
    checked = Task("x", Phase.HEAD, Say("Press it."), checks=(look("No tail stands.", "Anneal it."),))
    assert meanings(checked) == [GLOSSARY["tail"][1], GLOSSARY["anneal"][1]]

"""Every style on one page: planned at the maker's size, with what it takes and its picture."""

import math
import re
from itertools import pairwise
from typing import Any

import pytest

from pliant_coil.core.making.minutes import working_minutes
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.gallery import gallery
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import USUAL_HEAD, all_bands, all_heads
from pliant_coil.core.words.say import Reader


@pytest.mark.parametrize("inside", [14.9, 17.3, 20.6])
def test_no_style_is_left_out(inside: float) -> None:
    shown = {(entry.kind, entry.style) for entry in gallery(inside).entries}
    heads = {("head", name) for name in all_heads() if name != USUAL_HEAD}
    assert shown == heads | {("band", name) for name in all_bands()}


def test_an_entry_is_a_ring_to_start_from() -> None:
    for entry in gallery(17.3).entries:
        told = plan(read_ring({**entry.ring, "finger": {"size": "54.4 mm"}}))
        assert [w.role for w in told.wires] == [w.role for w in entry.wires]
        assert entry.minutes == pytest.approx(told.minutes, rel=0.02)
        assert entry.mass_g == pytest.approx(told.band.mass_g, rel=0.02)
        assert (told.torch, len(told.steps)) == (entry.torch, entry.steps)


def test_pictures_stay_in_their_frame_and_are_small() -> None:
    for entry in gallery(17.3).entries:
        left, top, wide, high = entry.picture.box
        for line in entry.picture.lines:
            numbers = [float(n) for n in re.findall(r"-?\d+\.\d+", line.d)]
            for x, y in zip(numbers[::2], numbers[1::2], strict=True):
                assert left <= x <= left + wide, entry.style
                assert top <= y <= top + high, entry.style
        assert len(entry.picture.json()) < 45_000, entry.style
        assert wide < 45, f"{entry.style} shows what is no part of the ring"


def test_a_gallery_is_written_for_its_reader() -> None:
    text = gallery(17.3).json(Reader("in", ("uk",))).decode()
    cuts = re.findall(r'"cut":"([^"]+)"', text)
    assert len(cuts) > 30
    assert all(re.match(r"[\d /]+ in \(", cut) for cut in cuts)


def test_more_work_takes_longer() -> None:
    def minutes(**parts: object) -> float:
        return plan(read_ring(parts)).minutes

    assert minutes(band={"style": "woven"}) > minutes(band={"style": "turned"})
    few, many = (minutes(head={"style": "spiked-disc", "spikes": n, "wraps_between": 2}) for n in (6, 10))
    assert many > few + 3
    assert minutes(band={"style": "stacked"}) > 40, "the torch heats and cools"
    assert working_minutes([], []) == 0


@pytest.mark.parametrize(
    "head", [{"style": "bead-lock"}, {"style": "bead-lock", "beads": "4 5 4"}, {"style": "bead-rows"}, {"style": "nest"}]
)
def test_what_runs_through_a_bead_is_hidden_and_nothing_else(head: dict[str, Any]) -> None:
    drawing = plan(read_ring({"head": head}), paths=True).drawing
    assert drawing is not None
    hidden = 0
    for strand in drawing.strands:
        for k, (a, b) in enumerate(pairwise(strand.points)):
            middle = [(p + q) / 2 for p, q in zip(a, b, strict=True)]
            # Beads are balls here: what is nearer to a bead's middle than its own radius is inside it.
            inside = min(math.dist(middle, (bead.x_mm, bead.y_mm, bead.z_mm)) - bead.diameter_mm / 2 for bead in drawing.beads)
            if k in strand.hidden:
                hidden += 1
                assert inside < 0
            else:
                assert inside > -0.1 * max(bead.diameter_mm for bead in drawing.beads), strand.id
    assert hidden >= len(drawing.beads)

"""Every ring that the terminal plans can be entered on the Plan screen: by its phrases, menus and fields, and nothing else."""

import json
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from pliant_coil.core.making.fitting import fitting_bands
from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.words.refusal import Refusal

DEMO = sorted(Path("pliant_coil/demo").glob("*.ring.json"))
DRAFT = "() => JSON.parse(Object.entries(localStorage).find(([name]) => name.includes('draft.new'))?.[1] ?? '{}').draft ?? null"
FIRST = {"finger": {"size": "US 6 1/2"}, "band": {"style": "turned"}, "head": {"style": "bead-lock"}}
"""What stands on the desk before anything is typed."""


@pytest.fixture
def form(plan: Page) -> Page:
    """The Plan screen without its drawings: what is entered is looked at, and not what it looks like."""
    plan.add_init_script(
        """const asItIs = window.fetch;
        window.fetch = async (asked, how) => {
          if (!(asked instanceof Request) || !asked.url.includes('paths=true')) return asItIs(asked, how);
          const { method, headers, signal } = asked;
          const body = await asked.text();
          return asItIs(asked.url.replace('paths=true', 'paths=false'), { method, headers, signal, body });
        };"""
    )
    plan.reload()
    decided(plan)
    return plan


def decided(page: Page) -> None:
    page.wait_for_function("() => ['fresh', 'refused'].includes(document.querySelector('[data-testid=answer]')?.dataset.standing)")


def opened(page: Page, part: str) -> Locator:
    """The sheet that sets a part of the ring."""
    if part == "sizing":
        page.locator("button", has_text="Cutting").first.click()
    else:
        page.locator(f"[id='phrase-{part}']").click()
    dialog = page.locator("[role=dialog]")
    expect(dialog).to_be_visible()
    return dialog


def closed(page: Page) -> None:
    decided(page)
    page.keyboard.press("Escape")
    expect(page.locator("[role=dialog]")).to_have_count(0)


def chosen(page: Page, kind: str, style: str) -> None:
    """A style taken from its menu, whose entries carry its title."""
    dialog = opened(page, kind)
    title = (all_bands() if kind == "band" else all_heads())[style].title
    menu = dialog.locator("[role=combobox]").first
    if menu.inner_text() != title:
        menu.click()
        page.locator(f"[role=option][aria-label='{title}']").click()
        expect(menu).to_have_text(title)
    closed(page)


def entered(dialog: Locator, path: str, value: Any) -> None:
    """A value set at its field as a hand does it, whatever kind of field that is."""
    more = dialog.get_by_role("button", name="More:")
    while not dialog.locator(f"[data-field='{path}']").count() and more.count():
        more.first.click()
    if isinstance(value, list):
        listed(dialog, path, value)
        return
    if isinstance(value, dict):
        on = dialog.locator(f"[data-field='{path}']").get_by_role("button", name="Yes", exact=True)
        if on.count() and on.first.get_attribute("aria-pressed") == "false":
            on.first.click()
        for name, inner in value.items():
            entered(dialog, f"{path}.{name}", inner)
        return
    fields = dialog.locator(f"[data-field='{path}']")
    expect(fields.first).to_be_visible()
    for k in range(fields.count()):
        field = fields.nth(k)
        button = field.locator(f"button[value='{json.dumps(value) if isinstance(value, bool) else value}']")
        if button.count():
            if button.get_attribute("aria-pressed") == "false":
                button.click()
            return
        menu = field.locator("[role=combobox]")
        if menu.count():
            menu.click()
            option = field.page.locator(f"[role=option][data-value='{value}']")
            if option.count():
                option.click()
                return
            field.page.keyboard.press("Escape")
            continue
        if field.locator("output").count():
            stepped(field, value)
            return
        if field.locator("input").count():
            field.locator("input").first.fill(str(value))
            return
    raise AssertionError(f"there is no way to enter {path} = {value}")


def stepped(field: Locator, value: int) -> None:
    while (now := int(field.locator("output").inner_text())) != value:
        field.get_by_role("button", name="one more" if now < value else "one less").click()


def listed(dialog: Locator, path: str, values: list[Any]) -> None:
    field = dialog.locator(f"[data-field='{path}']")
    word = field.locator("> button[aria-pressed=true]")
    if word.count():
        word.click()
    outs = field.get_by_role("button", name="Take out number")
    while outs.count() > len(values):
        outs.last.click()
    while outs.count() < len(values):
        field.get_by_role("button", name="One more").or_(field.get_by_role("button", name="Add one")).click()
    for k, value in enumerate(values):
        entered(dialog, f"{path}.{k}", value)


def rebuilt(page: Page, document: dict[str, Any]) -> RingFile:
    """The ring entered by hand; returns what then stands on the desk."""
    dialog = opened(page, "finger")
    for name, value in document.get("finger", {}).items():
        entered(dialog, f"finger.{name}", value)
    closed(page)
    chosen(page, "band", document["band"]["style"])
    chosen(page, "head", document["head"]["style"])
    for part in ("band", "head"):
        if fields := {name: value for name, value in document[part].items() if name != "style"}:
            dialog = opened(page, part)
            for name, value in fields.items():
                entered(dialog, f"{part}.{name}", value)
            closed(page)
    for role, spec in document.get("wires", {}).items():
        dialog = opened(page, f"wires.{role}")
        for name, value in spec.items():
            entered(dialog, f"wires.{role}.{name}", value)
        closed(page)
    for part in ("finish", "sizing"):
        if document.get(part):
            dialog = opened(page, part)
            for name, value in document[part].items():
                entered(dialog, f"{part}.{name}", value)
            closed(page)
    return on_desk(page)


def on_desk(page: Page) -> RingFile:
    decided(page)
    return read_ring(page.evaluate(DRAFT) or FIRST)


def said(file: RingFile) -> dict[str, Any]:
    """What a ring file says of its ring, without its tag and its notes: a usual value is the same whether it was asked or taken."""
    ring = make_ring(file)
    document = file.model_dump(mode="json", exclude={"title", "notes", "taken", "wires"})
    document["finish"]["wraps_each_side"] = ring.locks
    wires = {role: (wire.label, wire.metal.code, wire.temper, wire.profile) for role, wire in ring.wires.items()}
    return {**document, "wires": wires, "from_reel": ring.from_reel}


@pytest.mark.parametrize("path", DEMO, ids=[path.name[:2] for path in DEMO])
def test_every_ring_of_the_demo_is_entered_by_hand(form: Page, path: Path) -> None:
    document = json.loads(path.read_text())
    there = {part: document[part] for part in ("finger", "band", "head", "wires", "finish", "sizing") if part in document}
    assert said(rebuilt(form, {"finger": {"size": "US 7"}, "head": {"style": "none"}, **there})) == said(read_ring(document))


def bands_of(head: str) -> dict[str, dict[str, Any]]:
    """The bands that the head goes on, with what has to be set for it: first those that need nothing to be set."""
    found = {}
    for fit in fitting_bands(all_heads()[head]()):
        band = fit.style().style
        document = {"band": {"style": band, **fit.settings}, "head": {"style": head, **fit.other_settings}}
        try:
            if not fit.reason:
                make_ring(read_ring(document))
                found[band] = document
        except Refusal:
            continue
    return dict(sorted(found.items(), key=lambda item: len(item[1]["band"]) + len(item[1]["head"])))


@pytest.mark.parametrize("head", all_heads())
def test_every_pair_of_the_registry_is_chosen_from_the_menus(form: Page, head: str) -> None:
    """The head on the first of its bands, then one band after the other: what goes together is never dropped, nor refused."""
    bands = bands_of(head)
    assert bands
    chosen(form, "band", next(iter(bands)))
    chosen(form, "head", head)
    for band, document in bands.items():
        chosen(form, "band", band)
        expect(form.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
        assert said(on_desk(form)) == said(read_ring({**FIRST, **document}))


def test_a_head_that_goes_on_a_band_set_otherwise_sets_it(form: Page) -> None:
    chosen(form, "band", "woven")
    opened(form, "head").locator("[role=combobox]").first.click()
    form.locator("[role=option][data-value=spiked-disc]").click()
    expect(form.locator("[role=alert]", has_text="so that spiked disc can be made")).to_be_visible()
    expected = {**FIRST, "band": {"style": "woven", "close": "eyes"}, "head": {"style": "spiked-disc"}}
    assert said(on_desk(form)) == said(read_ring(expected))


def test_what_a_band_drops_is_said_and_taken_back_in_one(form: Page) -> None:
    chosen(form, "head", "nest")
    dialog = opened(form, "band")
    dialog.get_by_role("combobox").first.click()
    expect(form.get_by_role("option", name="Braided")).to_contain_text("without the nest")
    expect(form.get_by_role("option", name="Crossed")).not_to_contain_text("without")
    form.get_by_role("option", name="Braided").click()
    notice = form.get_by_role("alert")
    expect(notice).to_contain_text("Nest doesn’t go on it")
    notice.get_by_role("button", name="Take it back").click()
    decided(form)
    assert said(on_desk(form)) == said(read_ring({**FIRST, "head": {"style": "nest"}}))


def test_a_head_that_does_not_go_says_why(form: Page) -> None:
    dialog = opened(form, "head")
    dialog.get_by_role("combobox").first.click()
    wave = form.get_by_role("option", name="Wave")
    expect(wave).to_have_attribute("aria-disabled", "true")
    expect(wave).to_contain_text("turned band has no")

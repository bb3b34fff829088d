"""Every page at every size, in the light and in the dark: nothing sideways, nothing too small to press, no rule of
access broken."""

import re

import pytest
from playwright.sync_api import Page, expect

from entrick.demo.sittings import load_sittings
from entrick.store import Store
from examples import some
from pages import sound

PAGES = (
    "/",
    "/logbook",
    "/kits",
    "/office",
    "/class",
    "/handbook",
    "/handbook/constructions/arc",
    "/profile",
    "/jobs/1",
    "/jobs/1/proof",
    "/jobs/1/look",
    "/jobs/1/board",
    "/jobs/1/practice",
    "/jobs/1/cutter",
    "/jobs/1/compare",
)
SIZES = ((640, 400), (390, 844), (800, 1200), (1024, 640), (1280, 800), (1920, 1080))
SETTLED = "() => !document.body.innerText.match(/Opening…|looking them up…|A moment/)"


def opened(page: Page, address: str) -> None:
    answer = page.goto(address)
    assert answer is not None
    assert answer.status == 200
    page.locator("#page, [role=tabpanel]").first.wait_for(state="attached")
    page.wait_for_function(SETTLED)


@pytest.mark.parametrize("address", PAGES)
def test_a_page_leads_everywhere_breaks_no_rule_and_goes_nowhere_sideways_at_any_size(
    page: Page, desk: str, store: Store, address: str, quiet: None
) -> None:
    if address == "/logbook":
        load_sittings(store)
    opened(page, desk + address)
    _says_where_one_is_and_leads_everywhere(page, address)
    for width, height in SIZES:
        _goes_nowhere_sideways(page, width, height)
        if (width, height) in some(SIZES, 2):
            sound(page, f"{width} by {height}")


def _says_where_one_is_and_leads_everywhere(page: Page, address: str) -> None:
    places = page.get_by_role("navigation", name="Places")
    assert places.get_by_role("link").all_inner_texts()[:1] == ["Register"]
    for place in ("Register", "Logbook", "Kits", "For a class", "Handbook"):
        expect(places.get_by_role("link", name=place)).to_be_visible()
    now = page.locator("nav [aria-current=page]")
    if address != "/profile":  # it is opened from the register, and no place of its own
        expect(now.first).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_have_count(1)
    if address.startswith("/jobs"):
        pages = page.get_by_role("navigation", name="This job").get_by_role("link")
        assert pages.all_inner_texts() == [
            "Bench",
            "Proof",
            "On the sheet",
            "At the board",
            "Practice",
            "Cutter",
            "Compare",
        ]
        expect(page.get_by_role("heading", level=1)).to_contain_text("OY-")
    page.keyboard.press("Tab")
    expect(page.locator(":focus")).to_have_text(re.compile("^To the "))


def _goes_nowhere_sideways(page: Page, width: int, height: int) -> None:
    page.set_viewport_size({"width": width, "height": height})
    page.wait_for_function(f"() => innerWidth === {width}")
    # What measures itself is laid out anew a moment after the window has changed.
    page.wait_for_function(
        """() => document.documentElement.scrollWidth <= innerWidth
            && [...document.querySelectorAll('main, [role=tabpanel], header')]
                .every((each) => each.scrollWidth <= each.clientWidth + 1)"""
    )


@pytest.mark.own_context
@pytest.mark.parametrize("address", some(PAGES, 5))
def test_what_is_pressed_with_a_finger_is_as_large_as_one(
    browser: object, desk: str, address: str
) -> None:
    context = browser.new_context(  # type: ignore[attr-defined]
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True
    )
    page = context.new_page()
    opened(page, desk + address)
    small = page.evaluate(
        """() => [...document.querySelectorAll('button, a.act, select, summary, nav a')]
            .filter((each) => each.getClientRects().length && !each.closest('svg, .skip, p, td, li p'))
            .filter((each) => each.getBoundingClientRect().height < 43.5)
            .map((each) => `${each.tagName} ${each.className} ${each.innerText.slice(0, 30)}`)"""
    )
    context.close()
    assert small == []


@pytest.mark.parametrize("address", some(PAGES, 7))
def test_a_page_is_gone_through_by_the_keyboard_and_every_stop_has_a_name(
    page: Page, desk: str, address: str
) -> None:
    """By the accessibility tree alone: whatever takes the focus says what it is, and nothing keeps it."""
    opened(page, desk + address)
    seen: list[str] = []
    for _ in range(160):
        page.keyboard.press("Tab")
        told = page.evaluate(
            """() => {
                const on = document.activeElement;
                if (!on || on === document.body) return null;
                const label = [...(on.labels ?? [])].map((each) => each.innerText).join(' ');
                const by = on.getAttribute('aria-labelledby');
                const name = on.getAttribute('aria-label') ?? (by && document.getElementById(by)?.innerText)
                    ?? (label || on.innerText || on.getAttribute('placeholder') || on.getAttribute('title') || '');
                return `${on.tagName} ${on.id || on.getAttribute('role') || ''}: ${name.trim()}`;
            }"""
        )
        if told is None:
            break
        assert not told.endswith(": "), f"what is {told} after {seen[-1:]}"
        seen.append(told)
    else:
        assert len(set(seen)) > 60, "the focus goes round in a trap"
    assert len(seen) > 8

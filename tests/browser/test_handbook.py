"""The handbook, and kinds chosen by sight."""

import re
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

from pages import sound


def kinds(page: Page) -> Locator:
    return page.get_by_role("listbox", name="Kinds")


def test_the_handbook_is_looked_through_and_a_kind_begun_from_it(
    page: Page, bench: Callable[[str], int], desk: str, quiet: None
) -> None:
    bench("O = datum\n")
    page.get_by_role("link", name="Handbook", exact=True).click()
    expect(page.get_by_role("heading", name="Constructions")).to_be_visible()
    page.wait_for_function(
        "() => [...document.querySelectorAll('main img')].slice(0, 5).every(i => i.complete && i.naturalWidth > 0)"
    )
    sound(page, "cover")
    page.get_by_label("Find in the handbook").fill("hexagon")
    page.get_by_role("region", name="Found").get_by_role("link").first.click()
    expect(page.get_by_role("heading", name="polygon")).to_be_visible()
    expect(page.get_by_role("heading", name="Usual mistake")).to_be_visible()
    sound(page, "page")
    page.get_by_role("button", name=re.compile("^Begin one in")).click()
    expect(page.get_by_role("combobox", name="The next statement")).to_have_value(
        re.compile("= polygon, ")
    )
    page.go_back()
    expect(page.get_by_role("heading", name="polygon")).to_be_visible()
    page.get_by_role("button", name="Open it as a job of its own").click()
    expect(page.get_by_role("heading", name="Example: polygon")).to_be_visible()
    page.locator("svg.sheet .mark-outline, svg.sheet .mark-construction").first.wait_for(
        state="attached"
    )
    page.locator("li[data-line] > button").nth(1).click()
    page.get_by_role("article").get_by_role("link", name="in the handbook").click()
    expect(page).to_have_url(re.compile("/handbook/constructions/"))
    page.goto(f"{desk}/handbook/constructions/wheelbarrow")
    expect(page.get_by_role("alert")).to_contain_text("there is no page wheelbarrow")


def test_a_kind_is_chosen_by_a_word_in_a_dozen_keys(
    page: Page, bench: Callable[[str], int], quiet: None
) -> None:
    bench("O = datum\n")
    for words, kind in (
        ("rows of h", "holes"),
        ("hexa", "polygon"),
        ("circle of holes", "holes"),
        ("flats", "polygon"),
    ):
        page.get_by_role("button", name="Choose a kind").click()
        page.keyboard.type(words)
        expect(kinds(page).get_by_role("option").first).to_contain_text(kind)
        page.keyboard.press("Enter")
        expect(page.get_by_role("combobox", name="The next statement")).to_have_value(
            re.compile(f"= {kind}, ")
        )


def test_kinds_are_gone_through_by_arrows(
    page: Page, bench: Callable[[str], int], quiet: None
) -> None:
    bench("O = datum\n")
    page.get_by_role("button", name="Choose a kind").click()
    expect(kinds(page).get_by_role("option", selected=True)).to_contain_text("crossing")
    for key in ("ArrowRight", "ArrowRight", "ArrowLeft"):
        page.keyboard.press(key)
    expect(kinds(page).get_by_role("option", selected=True)).to_contain_text("datum")
    page.keyboard.press("ArrowDown")
    chosen = kinds(page).get_by_role("option", selected=True).inner_text().strip()
    assert chosen != "datum"
    sound(page, "kinds", within='[aria-label="Kinds of construction"]')
    page.keyboard.press("Enter")
    expect(page.get_by_role("combobox", name="The next statement")).to_have_value(
        re.compile(f"= {chosen}, ")
    )

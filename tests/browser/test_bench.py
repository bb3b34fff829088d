"""The Bench as a drafter uses it."""

import re
from collections.abc import Callable
from pathlib import Path

import ezdxf
import pytest
from playwright.sync_api import Page, Route, expect
from pypdf import PdfReader

from entrick.core.formats.issue import formats
from entrick.store import Store, one_job, save_revision
from pages import new_job, painted

EYES = (
    'plan "Link"\ndrawing OY-900\nunits mm\nsheet A4 landscape, scale 1:1, border 10\ngiven r = 20 "eye"\nO = datum\n'
    "A = point, 50 left of O\nB = point, 50 right of O\na = circle, centre A, radius r\nb = circle, centre B, radius 15\n"
)
BLENDS = "top = arc, radius 90, around a, around b, above\nlow = arc, radius 90, beside a, beside b, below\n"
RIM = "rim = line in, a > top > b > low\n"

Open = Callable[[str], int]


def entry(page: Page, name: str):  # type: ignore[no-untyped-def]
    """The entry of the order of work that made a name."""
    return page.locator("li[data-line]").filter(has=page.locator(f"em:text-is('{name}')"))


def next_line(page: Page):  # type: ignore[no-untyped-def]
    return page.get_by_role("combobox", name="The next statement")


def test_a_changed_given_changes_drawing_setting_and_working_at_once(
    page: Page, bench: Open
) -> None:
    bench(EYES + BLENDS + RIM)
    entry(page, "top").get_by_role("button").first.click()
    card = page.get_by_role("article", name="Setting card of top")
    expect(card.get_by_test_id("reading")).to_have_text("70 mm")
    before = page.locator("path.mark-outline").first.get_attribute("d")
    page.get_by_label("r", exact=True).fill("1 1/4 in")
    expect(card.get_by_test_id("reading")).to_have_text("just under 58.5 mm")
    expect(card.get_by_text("90 − 31.75 = 58.25: swing from A")).to_be_visible()
    expect(
        card.get_by_role("img", name=re.compile("compass set to just under 58.5 mm"))
    ).to_be_visible()
    assert page.locator("path.mark-outline").first.get_attribute("d") != before
    expect(card.get_by_role("button", pressed=True).filter(has_text="above")).to_have_count(1)
    page.get_by_label("r", exact=True).press("Enter")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("r", exact=True)).to_have_value("20")
    expect(card.get_by_test_id("reading")).to_have_text("70 mm")


def test_a_mistake_stands_at_its_place_loses_nothing_and_can_be_mended(
    page: Page, bench: Open
) -> None:
    bench(EYES + BLENDS + RIM)
    given = page.get_by_label("r", exact=True)
    given.fill("4 1/")
    expect(page.get_by_role("alert").filter(has_text="below the line")).to_be_visible()
    expect(page.locator("path.mark-outline")).not_to_have_count(0)
    given.press("Tab")
    expect(given).to_have_value("4 1/")
    expect(entry(page, "b")).to_be_visible()
    page.reload()
    expect(given).to_have_value("4 1/")
    given.fill("20,5")
    given.press("Enter")
    page.get_by_role("button", name="Mend it").first.click()
    expect(given).to_have_value("20.5")
    page.get_by_role("tab", name="Findings").click()
    page.get_by_text(re.compile("^In order")).click()
    expect(page.get_by_text("tangent").first).to_be_visible()


@pytest.mark.parametrize("by", ["letter", "sheet", "card"])
def test_an_arc_is_added_by_the_family_list_picking_and_a_candidate(
    page: Page, bench: Open, click_stroke: Callable[..., None], by: str
) -> None:
    bench(EYES)
    page.get_by_role("button", name="Choose a kind…").click()
    page.get_by_role("option", name="arc", exact=True).click()
    expect(next_line(page)).to_have_value("arc1 = arc, radius …, around …, around …")
    page.keyboard.type("90")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Click a circle or arc on the sheet")).to_be_visible()
    click_stroke("a")
    expect(next_line(page)).to_have_value("arc1 = arc, radius 90, around a, around …")
    expect(page.get_by_text("Click a circle or arc on the sheet")).to_be_visible()
    click_stroke("b")
    expect(next_line(page)).to_have_value("arc1 = arc, radius 90, around a, around b")
    next_line(page).press("Enter")
    letters = page.get_by_role("group", name=re.compile("Several fit"))
    expect(letters.get_by_role("button")).to_have_count(2)
    expect(page.get_by_test_id("ghost-B")).to_be_attached()
    letters.get_by_role("button").first.hover()
    expect(page.get_by_test_id("ghost-A").locator("path")).to_have_attribute("stroke-width", "0.9")
    above = letters.get_by_role("button").filter(has_text="above").locator("strong").inner_text()
    if by == "letter":
        page.keyboard.press(above.lower())
    elif by == "sheet":
        page.get_by_test_id(f"ghost-{above}").locator("text").click()
    else:
        letters.get_by_role("button").filter(has_text="above").click()
    expect(entry(page, "arc1").get_by_role("button").first).to_contain_text("lying above")


def test_many_candidates_are_all_lettered(page: Page, bench: Open) -> None:
    bench(EYES)
    next_line(page).fill("arc1 = arc, radius 90, touching a, touching b")
    next_line(page).press("Enter")
    expect(
        page.get_by_role("group", name=re.compile("Several fit")).get_by_role("button")
    ).to_have_count(8)
    expect(page.get_by_test_id("ghost-A")).to_be_visible()
    expect(page.get_by_test_id("ghost-H")).to_be_attached()


def test_the_outline_is_lined_in_by_clicking_pieces(
    page: Page, bench: Open, click_stroke: Callable[..., None]
) -> None:
    bench(EYES + BLENDS)
    expect(page.locator(".mark-outline")).to_have_count(0)
    page.get_by_role("button", name="Line in by clicking").click()
    for name in ("a", "top", "b", "low"):
        click_stroke(name, 0.45)
    expect(next_line(page)).to_have_value("rim = line in, a > top > b > low")
    next_line(page).press("Enter")
    expect(page.locator(".mark-outline")).to_have_count(4)
    page.get_by_role("tab", name="Text").click()
    expect(page.get_by_label("Plan text")).to_have_value(
        re.compile("rim = line in, a > top > b > low\n")
    )


def test_statements_are_typed_with_completion_moved_struck_out_and_taken_back(
    page: Page, bench: Open
) -> None:
    bench(EYES)
    page.keyboard.press("n")
    expect(next_line(page)).to_be_focused()
    next_line(page).press_sequentially("pin = ci")
    page.get_by_role("option", name=re.compile("^circle")).wait_for()
    next_line(page).press("Tab")
    expect(next_line(page)).to_have_value("pin = circle, centre …, diameter …")
    page.get_by_role("option", name=re.compile("^A a point")).wait_for()
    page.keyboard.type("A")
    page.keyboard.press("Enter")
    page.keyboard.type("18")
    page.keyboard.press("Enter")
    expect(entry(page, "pin")).to_contain_text("diameter 18")
    page.get_by_role("button", name="Earlier").click()
    names = page.locator("li[data-line] em")
    expect(names).to_have_text(["O", "A", "B", "a", "pin", "b"])
    page.get_by_role("button", name="Strike out", exact=True).click()
    expect(names).to_have_text(["O", "A", "B", "a", "b"])
    page.get_by_role("heading", name="Givens").click()
    page.keyboard.press("Control+z")
    expect(names).to_have_text(["O", "A", "B", "a", "pin", "b"])
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(names).to_have_text(["O", "A", "B", "a", "b"])
    page.keyboard.press("Control+Shift+z")
    expect(names).to_have_text(["O", "A", "B", "a", "b", "pin"])


def test_clauses_are_edited_picked_and_added_on_the_card(
    page: Page, bench: Open, click_stroke: Callable[..., None]
) -> None:
    bench(EYES + "P = point, 60 above O\nc = circle, centre A, radius 9\n")
    entry(page, "c").get_by_role("button").first.click()
    card = page.get_by_role("article", name="Setting card of c")
    card.get_by_role("button", name="Pick a point on the sheet").click()
    click_stroke("P", 0)
    expect(card.get_by_label("The whole statement")).to_have_value("c = circle, centre P, radius 9")
    card.get_by_role("button", name="Take out radius 9").click()
    expect(page.get_by_role("alert")).to_contain_text("needs a radius or a diameter")
    card.get_by_label("Add a clause").select_option(label="diameter (diameter)")
    card.get_by_label("a diameter").fill("24")
    card.get_by_role("button", name="Say it").click()
    expect(entry(page, "c").get_by_role("button").first).to_contain_text("diameter 24")


HELD_DOWN = """async (thumb, times) => {
  for (let n = 0; n < times; n++) {
    thumb.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true, cancelable: true }));
    await new Promise((next) => setTimeout(next, 0));
  }
}"""


def test_the_step_slider_draws_the_sheet_as_it_stands(page: Page, bench: Open) -> None:
    bench(EYES + BLENDS + RIM)
    strokes = page.get_by_test_id("strokes").locator("> *")
    everything = strokes.count()
    slider = page.get_by_role("slider", name="Step")
    slider.focus()
    # One after another as a key that is held down sends them: none is lost while the address is still on its way.
    for _ in range(3):
        slider.press("Home")
        expect(page.locator(".mark-construction")).to_have_count(0)
        slider.evaluate(HELD_DOWN, 7)
        expect(page.get_by_test_id("step-text")).to_contain_text("7 of", timeout=10_000)
    expect(page.get_by_test_id("needle")).to_be_visible()
    expect(page.get_by_test_id("current-step").locator(".now").first).to_be_attached()
    slider.press("End")
    expect(strokes).to_have_count(everything)
    page.get_by_role("radio", name="away").click()
    expect(page.locator(".mark-construction")).to_have_count(0)
    expect(page.locator(".mark-outline")).to_have_count(4)
    page.get_by_role("radio", name="faded").click()
    expect(page.locator(".opacity-35 .mark-construction").first).to_be_attached()


def test_findings_light_their_place(page: Page, bench: Open) -> None:
    bench(EYES + BLENDS + RIM + "given q = 4\n")
    page.get_by_role("tab", name=re.compile("Findings")).click()
    expect(page.get_by_text("q is given but never used")).to_be_visible()
    page.get_by_text(re.compile("^In order")).click()
    page.get_by_role("button", name=re.compile("a to top: tangent")).hover()
    expect(page.get_by_test_id("finding-place")).to_be_visible()


def test_a_stroke_and_its_statement_light_each_other(
    page: Page, bench: Open, click_stroke: Callable[..., None]
) -> None:
    bench(EYES)
    entry(page, "a").hover()
    expect(page.locator("circle.now").first).to_be_attached()
    click_stroke("b")
    expect(page.get_by_role("article", name="Setting card of b")).to_be_visible()


def test_every_format_is_issued(page: Page, bench: Open, tmp_path: Path) -> None:
    bench(EYES + BLENDS + RIM)
    page.get_by_role("button", name="Issue…").click()
    expect(page.get_by_text("Check scale and units on the machine before cutting")).to_be_visible()
    for format in formats().values():
        with page.expect_download() as waiting:
            page.get_by_role("button", name=format.label, exact=True).click()
        path = tmp_path / waiting.value.suggested_filename
        waiting.value.save_as(path)
        assert path.stem == f"OY-900-Link{format.apart}"
        assert path.suffix == f".{format.ending}"
        issued(path)


def issued(path: Path) -> None:
    """What is in a file can be read for what it is."""
    match path.suffix:
        case ".pdf":
            assert "Link" in PdfReader(path).pages[0].extract_text()
        case ".dxf":
            entities = ezdxf.readfile(path).modelspace().query('*[layer=="OUTLINE"]')
            assert len(entities) == (1 if path.stem.endswith("outlines") else 4)
        case ".svg":
            assert path.read_text().startswith("<svg")
        case ".csv":
            assert "compass" in path.read_text()
        case ".entrick":
            assert path.read_text("utf-8") == EYES + BLENDS + RIM


def test_nothing_is_lost_by_a_reload_or_a_closed_tab(page: Page, bench: Open, store: Store) -> None:
    number = bench(EYES)
    page.get_by_label("r", exact=True).fill("23")
    page.get_by_label("r", exact=True).press("Enter")
    next_line(page).fill("half = circle, cen")
    expect(page.get_by_role("status").filter(has_text="with unsaved work")).to_be_visible()
    address = page.url
    page.close()
    again = page.context.new_page()
    again.goto(address)
    expect(again.get_by_label("r", exact=True)).to_have_value("23")
    expect(next_line(again)).to_have_value("half = circle, cen")
    expect(again.get_by_text("Unsaved work from last time")).to_be_visible()
    again.keyboard.press("Control+s")
    expect(again.get_by_text("Revision 2 saved.")).to_be_visible()
    with store.reading() as session:
        assert "given r = 23" in one_job(session, number).newest.text
    again.get_by_role("tab", name="Revisions").click()
    again.get_by_role("button", name="Bring back").click()
    again.get_by_role("tab", name="Working").click()
    expect(again.get_by_label("r", exact=True)).to_have_value("20")


def test_a_stale_save_shows_both_versions_and_loses_neither(
    page: Page, bench: Open, store: Store
) -> None:
    number = bench(EYES)
    with store.writing() as session:
        save_revision(session, number, EYES.replace("r = 20", "r = 31"), 1)
    page.get_by_label("r", exact=True).fill("23")
    page.get_by_label("r", exact=True).press("Enter")
    page.get_by_role("button", name="Save").click()
    dialog = page.get_by_role("alertdialog", name=re.compile("saved in the meantime"))
    expect(dialog).to_contain_text("given r = 23")
    expect(dialog).to_contain_text("given r = 31")
    dialog.get_by_role("button", name="Save mine as the next revision").click()
    expect(page.get_by_text("Revision 3 saved.")).to_be_visible()
    with store.reading() as session:
        assert "given r = 23" in one_job(session, number).newest.text


def test_changes_that_do_not_meet_are_both_kept(page: Page, bench: Open, store: Store) -> None:
    number = bench(EYES)
    with store.writing() as session:
        save_revision(session, number, EYES.replace("r = 20", "r = 31"), 1)
    page.get_by_role("combobox", name="The next statement").fill("more = point, 5 above A")
    page.keyboard.press("Enter")
    expect(entry(page, "more")).to_be_visible()
    page.get_by_role("button", name="Save").click()
    page.get_by_role("button", name="Keep both").click()
    expect(page.get_by_text("Revision 3 saved.")).to_be_visible()
    with store.reading() as session:
        kept = one_job(session, number).newest.text
    assert kept == EYES.replace("r = 20", "r = 31") + "more = point, 5 above A\n"


def test_a_given_is_struck_out_where_it_is_seen_and_said_so(page: Page, bench: Open) -> None:
    bench(EYES)
    strike = page.get_by_role("button", name="Strike out given r")
    expect(strike).to_have_count(0)
    page.get_by_label("r", exact=True).focus()
    strike.click()
    expect(page.get_by_text("Given r is struck out")).to_be_visible()
    expect(page.get_by_label("Another given")).to_be_focused()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("r", exact=True)).to_be_visible()


def test_keys_of_one_sign_can_be_switched_off(page: Page, bench: Open) -> None:
    bench(EYES)
    page.keyboard.press("?")
    page.get_by_role("checkbox", name=re.compile("single signs")).uncheck()
    page.keyboard.press("Escape")
    page.locator("svg.sheet").focus()
    page.keyboard.press("n")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.locator("svg.sheet")).to_be_focused()
    page.reload()
    page.locator("svg.sheet").focus()
    page.keyboard.press("n")
    expect(page.locator("svg.sheet")).to_be_focused()
    page.get_by_role("button", name="Keys").click()
    page.get_by_role("checkbox", name=re.compile("single signs")).check()
    page.keyboard.press("Escape")
    page.keyboard.press("n")
    expect(next_line(page)).to_be_focused()


def test_what_goes_out_says_how_it_stands(page: Page, bench: Open) -> None:
    bench("O = datum\nc = circle, centre O, radius 20\nrim = line in, c\n")
    page.get_by_role("combobox", name="The next statement").fill("d = circle, centre O, radius 9")
    page.keyboard.press("Enter")
    expect(entry(page, "d")).to_be_visible()
    page.get_by_role("button", name="Issue…").click()
    state = page.get_by_role("list", name="Before it goes out")
    for told in ("unsaved work", "no drawing number", "dimensions do not define"):
        expect(state).to_contain_text(told)
    for group in ("to print", "to open elsewhere", "for a machine", "as data"):
        expect(page.get_by_role("region", name=group)).to_be_visible()


def test_text_and_cards_are_two_faces_of_one_plan(page: Page, bench: Open) -> None:
    bench(EYES)
    page.get_by_role("tab", name="Text").click()
    area = page.get_by_label("Plan text")
    area.fill(EYES + "c=circle,centre A,radius 9\n")
    area.blur()
    expect(area).to_have_value(EYES + "c = circle, centre A, radius 9\n")
    page.get_by_role("tab", name="Working").click()
    expect(entry(page, "c")).to_contain_text("about A, radius 9")


def test_an_empty_plan_offers_its_first_lines(page: Page, desk: str, quiet: None) -> None:
    new_job(page, desk)
    for row in (
        "O = datum, middle of sheet",
        "A = point, 40 left of O",
        "eye = circle, centre A, diameter 60",
    ):
        page.get_by_role("button", name=row).click()
    expect(page.locator("li[data-line] em")).to_have_text(["O", "A", "eye"])


def test_title_number_and_sheet_are_said_on_the_sheet_page(page: Page, bench: Open) -> None:
    bench(EYES + BLENDS + RIM)
    page.get_by_role("tab", name="Sheet").click()
    page.get_by_role("textbox", name="Title").fill("Gate pawl")
    page.get_by_role("textbox", name="Title").press("Enter")
    expect(page.get_by_role("heading", name="OY-900 Gate pawl")).to_be_visible()
    sheet = page.get_by_role("textbox", name="Sheet")
    sheet.fill("A3 landscape, scale 1:2")
    sheet.press("Enter")
    expect(page.get_by_role("application", name=re.compile("A3 landscape at 1:2"))).to_be_visible()
    expect(
        page.get_by_text(re.compile(r"across: \(400 − .* ÷ 2 = .* each side of the view"))
    ).to_be_visible()
    sheet.fill("A9")
    sheet.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("the clauses of sheet begin with")
    expect(sheet).to_have_value("A9")
    page.get_by_label("Units").select_option("in")
    page.get_by_role("tab", name="Text").click()
    expect(page.get_by_label("Plan text")).to_have_value(
        re.compile('^plan "Gate pawl"\ndrawing OY-900\nunits in\nsheet A9\n')
    )


def test_the_order_of_the_steps_is_chosen_beside_the_slider_and_kept_with_the_job(
    page: Page, bench: Open
) -> None:
    bench(
        EYES
        + "c = circle, centre A, radius 7\nd = circle, centre B, radius 7\ne = circle, centre A, radius 15\n"
        + BLENDS
        + RIM
    )
    orders = page.get_by_label("Order of the steps")
    expect(page.get_by_test_id("takes")).to_contain_text("settings")
    written = page.get_by_test_id("takes").inner_text()
    orders.select_option("settings")
    expect(page.get_by_test_id("takes")).not_to_have_text(written)
    slider = page.get_by_role("slider", name="Step")
    slider.focus()
    slider.press("Home")
    told = []
    slider.press("ArrowRight")
    count = int(re.findall(r"of (\d+)", page.get_by_test_id("step-text").inner_text())[0])
    for _ in range(count - 2):
        slider.press("ArrowRight")
        told.append(page.get_by_test_id("step-text").inner_text())
    assert any("is in hand" in text for text in told), "and why the step comes here"
    page.reload()
    expect(orders).to_have_value("settings")
    orders.select_option("written")
    expect(page.get_by_test_id("takes")).to_have_text(written)


def test_a_cam_is_begun_from_its_brief_before_there_is_one(page: Page, bench: Open) -> None:
    bench("units mm\nsheet A3\nO = datum\n")
    page.get_by_role("button", name="From a brief…").click()
    page.get_by_role("textbox", name=re.compile("What the follower")).fill(
        "rises 24 mm in 90°, dwells 60°, falls in 120°, dwells"
    )
    understood = page.get_by_role("table", name="The brief as it was understood")
    expect(understood.get_by_role("row")).to_have_count(5)
    expect(understood).to_contain_text("harmonic, the usual")
    page.get_by_role("button", name="Write it out").click()
    expect(next_line(page)).to_have_value(
        "cam1 = cam, about …, least …, rise 90° by 24 mm, dwell 60°, fall 120° by 24 mm, dwell 90°"
    )
    expect(next_line(page)).to_be_focused()
    page.keyboard.type("O")
    page.keyboard.press("Enter")
    page.keyboard.type("30")
    page.keyboard.press("Enter")
    expect(entry(page, "cam1")).to_be_visible()
    expect(page.get_by_role("alert")).to_have_count(0)


def test_where_two_things_may_be_meant_each_is_one_press(page: Page, bench: Open) -> None:
    bench(EYES + "c = hole, centre A, 9\n")
    asked = page.get_by_role("alert").filter(has_text="no kind of construction called hole")
    ways = [f"circle, centre A, {size} 9" for size in ("radius", "diameter")]
    expect(asked.get_by_role("button")).to_have_text(ways)
    asked.get_by_role("button", name="diameter 9").click()
    expect(entry(page, "c")).to_contain_text("diameter 9")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_sheet_that_cannot_be_is_mended_where_it_is_said(page: Page, bench: Open) -> None:
    bench(EYES)
    page.get_by_role("tab", name="Sheet").click()
    sheet = page.get_by_role("textbox", name="Sheet")
    sheet.fill("a4 Landscape, scale half")
    sheet.press("Enter")
    asked = page.get_by_role("alert").filter(has_text="did you mean A4 landscape, scale 1:2")
    asked.get_by_role("button", name="Mend it").click()
    expect(sheet).to_have_value("A4 landscape, scale 1:2")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_words_of_the_trade_are_explained_where_they_stand(page: Page, bench: Open) -> None:
    bench(EYES)
    entry(page, "O").get_by_role("button").first.click()
    page.get_by_label("Words explained").get_by_role("button", name="datum").click()
    expect(page.get_by_role("dialog")).to_contain_text("everything on the sheet is measured from")


def test_focus_goes_on_after_a_line_is_struck_out_and_the_badge_shows_the_worst(
    page: Page, bench: Open
) -> None:
    bench(EYES + "c = circle, centre A radius 9\n")
    findings = page.get_by_role("tab", name=re.compile("Findings"))
    expect(findings).to_contain_text("✗1")
    findings.click()
    row = page.get_by_role("listitem").filter(has_text="a comma is missing")
    expect(row).to_contain_text("6 · ")
    row.get_by_role("button", name="Mend it").click()
    expect(findings).not_to_contain_text("✗")
    page.get_by_role("tab", name="Working").click()
    entry(page, "b").get_by_role("button").first.click()
    page.get_by_role("button", name="Strike out", exact=True).click()
    expect(entry(page, "c").get_by_role("button").first).to_be_focused()


def test_an_edit_moves_what_is_pointed_at_with_the_sheet(
    page: Page, bench: Open, click_stroke: Callable[..., None]
) -> None:
    """What is drawn again is drawn by the elements that are there, and is pointed at in its new place."""
    bench(EYES)
    drawn = page.get_by_test_id("strokes").locator("circle[r='20']")
    expect(drawn).to_have_count(1)
    drawn.evaluate("element => element.dataset.seen = 'before'")
    page.get_by_label("r", exact=True).fill("30")
    again = page.get_by_test_id("strokes").locator("circle[r='30']")
    expect(again).to_have_attribute("data-seen", "before")
    expect(page.locator("g[data-name='a'] circle[r='30']")).to_be_attached()
    click_stroke("a")
    expect(entry(page, "a").get_by_role("button").first).to_have_attribute("aria-expanded", "true")


def test_the_inspection_waits_while_edits_are_under_way(page: Page, bench: Open) -> None:
    """An edit and an inspection would share the desk, and the edit would be the later for it."""
    asked: list[str] = []
    held: list[Route] = []

    def proof(route: Route) -> None:
        asked.append(route.request.post_data or "")
        route.continue_()

    bench(EYES + "given q = 4\n")
    page.get_by_role("tab", name=re.compile("Findings")).click()
    expect(page.get_by_text("q is given but never used")).to_be_visible()
    page.get_by_role("tab", name="Working").click()
    page.route("**/api/proof", proof)
    page.route("**/api/work", lambda route: held.append(route))
    field = page.get_by_label("q", exact=True)
    with page.expect_request("**/api/work"):
        field.fill("5")
    for value in ("6", "7"):
        field.fill(value)
    painted(page)
    assert asked == []
    page.unroute("**/api/work")
    held[0].continue_()
    page.get_by_role("tab", name=re.compile("Findings")).click()
    expect(page.get_by_role("status").filter(has_text="with unsaved work")).to_be_visible()
    page.wait_for_load_state("networkidle")
    assert len(asked) == 1, "once, when all is written"
    assert "given q = 7" in asked[0]


def test_names_of_points_can_be_read_on_the_sheet_and_letters_in_their_rings(
    page: Page, bench: Open
) -> None:
    """Ink on paper for what is drawn, paper on the accent for what is to be chosen: each against what lies behind it."""
    bench(EYES + "x = arc, radius 90, touching a, touching b\n")
    fill = "element => getComputedStyle(element).fill"
    paper = page.locator("svg.sheet > rect").first.evaluate(fill)
    names = page.get_by_test_id("strokes").locator("text")
    expect(names).to_have_text(["O", "A", "B"])
    assert all(names.nth(i).evaluate(fill) != paper for i in range(3))
    ring = page.get_by_test_id("ghost-A")
    assert ring.locator("text").evaluate(fill) == paper != ring.locator("circle").evaluate(fill)


def test_undo_and_redo_tell_when_the_desk_does_not_answer(page: Page, bench: Open) -> None:
    bench(EYES)
    field = page.get_by_label("r", exact=True)
    field.fill("23")
    field.press("Enter")
    expect(page.get_by_role("status").filter(has_text="with unsaved work")).to_be_visible()
    page.route("**/api/work", lambda route: route.abort())
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("The desk does not answer")).to_be_visible()
    page.unroute("**/api/work")
    page.get_by_role("button", name="Undo").click()
    expect(field).to_have_value("20")
    page.route("**/api/work", lambda route: route.abort())
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_text("The desk does not answer")).to_be_visible()


def test_looking_for_dimensions_can_be_stopped(page: Page, bench: Open) -> None:
    bench(EYES + BLENDS + RIM)
    waiting: list[Route] = []
    page.route("**/api/suggest", lambda route: waiting.append(route))
    page.get_by_role("button", name="Suggest dimensions").click()
    page.get_by_role("button", name="Looking for dimensions").click()
    expect(page.get_by_text("Stopped: no dimension was put on.")).to_be_visible()
    page.unroute("**/api/suggest")
    page.get_by_role("button", name="Suggest dimensions").click()
    expect(page.get_by_text(re.compile("dimensions put on"))).to_be_visible()

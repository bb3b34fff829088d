"""The Register, and what every view owes to those who do not use a mouse."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

AXE = Path("frontend/node_modules/axe-core/axe.min.js")


def test_jobs_are_listed_opened_copied_and_archived(page: Page, desk: str, quiet: None) -> None:
    page.goto(desk)
    expect(page.get_by_role("row", name=re.compile("OY-014 Paddle pawl link"))).to_be_visible()
    # Every job shows its outline.
    drawn = "[...document.querySelectorAll('table img')].every(i => i.complete && i.naturalWidth > 0)"
    # Asked again and again from here: the page's own policy lets nobody wait with a string of script in it.
    assert any(page.evaluate(drawn) or page.wait_for_timeout(100) for _ in range(100))
    page.get_by_role("button", name="Copy Latch plate").click()
    expect(page.get_by_role("heading", name="OY-027 Latch plate")).to_be_visible()
    page.get_by_role("link", name="Entrick").click()
    expect(page.get_by_role("button", name="Copy Latch plate")).to_have_count(2)
    page.get_by_role("button", name="Archive Latch plate").first.click()
    expect(page.get_by_role("button", name="Copy Latch plate")).to_have_count(1)
    page.get_by_role("button", name="Show archived jobs").click()
    page.get_by_role("button", name="Take back Latch plate").click()
    expect(page.get_by_text("Nothing is archived.")).to_be_visible()


def test_a_plan_is_opened_from_disk(page: Page, desk: str, tmp_path: Path, quiet: None) -> None:
    plan = tmp_path / "gate.entrick"
    plan.write_text('plan "Gate paddle"\nO = datum\nc = circle, centre O, radius 30\nrim = line in, c\n', "utf-8")
    page.goto(desk)
    page.get_by_label("Open a plan from disk").set_input_files(plan)
    expect(page.get_by_role("heading", name="Gate paddle")).to_be_visible()
    expect(page.locator("circle.mark-outline")).to_have_count(1)


def test_what_is_not_a_plan_is_refused_in_words(page: Page, desk: str, tmp_path: Path) -> None:
    junk = tmp_path / "photo.entrick"
    junk.write_bytes(b"\xff\xd8\xff\xe0" + bytes(range(256)))
    page.goto(desk)
    page.get_by_label("Open a plan from disk").set_input_files(junk)
    expect(page.get_by_role("alert")).to_contain_text("a plan is UTF-8 text")


@pytest.mark.parametrize(
    "view", ["register", "working", "card", "sheet", "findings", "text", "revisions", "issue", "proof", "region"]
)
def test_no_view_breaks_a_rule_of_access(page: Page, desk: str, view: str) -> None:
    """axe-core, a general checker of WCAG 2.1 A and AA: names, roles, contrast, structure."""
    page.goto(desk if view == "register" else f"{desk}/jobs/2")
    page.locator("table img, svg.sheet").first.wait_for()
    if view in ("sheet", "findings", "text", "revisions"):
        page.get_by_role("tab", name=re.compile(view, re.IGNORECASE)).click()
    if view == "card":
        page.locator("li[data-line] > button").nth(7).click()
        page.wait_for_timeout(1300)  # until what changed is no longer marked
    if view == "proof":
        page.get_by_role("link", name="Proof").click()
        page.get_by_role("table").first.wait_for()
    if view == "region":
        page.get_by_role("button", name="Line in by region").click()
    if view == "issue":
        page.get_by_role("button", name="Issue…").click()
    page.evaluate(AXE.read_text("utf-8"))
    found = page.evaluate("axe.run({runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']})")
    told = [f"{v['id']}: {n['target']} {n['failureSummary']}" for v in found["violations"] for n in v["nodes"]]
    assert not told, "\n".join(told)


def test_the_whole_first_job_can_be_done_from_the_keyboard(page: Page, desk: str, quiet: None) -> None:
    page.goto(desk)
    page.get_by_role("button", name="New job").focus()
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Order of work").wait_for()
    for row in ("O = datum", "c = circle, centre O, radius 40", "rim = line in, c"):
        page.keyboard.press("n")
        page.keyboard.type(row)
        page.keyboard.press("Enter")
        expect(page.get_by_role("combobox", name="The next statement")).to_have_value("")
        page.keyboard.press("Shift+Tab")
        page.locator("svg.sheet").focus()
    expect(page.locator("circle.mark-outline")).to_have_count(1)
    page.keyboard.press("+")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("0")
    page.keyboard.press("[")
    expect(page.get_by_test_id("step-text")).to_contain_text("of")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("Control+s")
    expect(page.get_by_text("Revision 2 saved.")).to_be_visible()


def test_below_900_pixels_the_pages_stack(page: Page, desk: str) -> None:
    page.set_viewport_size({"width": 800, "height": 900})
    page.goto(f"{desk}/jobs/2")
    notebook, sheet = page.get_by_role("tablist").bounding_box(), page.locator("svg.sheet").bounding_box()
    assert notebook
    assert sheet
    assert sheet["y"] > notebook["y"] + 100
    assert sheet["x"] < 50


def test_a_job_that_is_not_there_is_said(page: Page, desk: str) -> None:
    page.goto(f"{desk}/jobs/999")
    expect(page.get_by_role("status")).to_contain_text("there is no job 999")


def test_what_the_desk_cannot_reach_is_said_and_kept(page: Page, desk: str, bench: Callable[[str], int]) -> None:
    bench("O = datum\n")
    page.route("**/api/jobs/*/revisions", lambda route: route.abort())
    box = page.get_by_role("combobox", name="The next statement")
    box.fill("c = circle, centre O, radius 8")
    box.press("Enter")
    expect(page.locator("circle.mark-construction")).to_have_count(1)
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("status").filter(has_text="does not answer")).to_be_visible()
    page.unroute("**/api/jobs/*/revisions")
    page.reload()
    expect(page.locator("circle.mark-construction")).to_have_count(1)

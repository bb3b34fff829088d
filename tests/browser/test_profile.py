"""The whole profile job at the screen: every sample part from a blank job, lined in, dimensioned, proved and issued."""

import re
from collections.abc import Callable
from pathlib import Path

import ezdxf
import pytest
from playwright.sync_api import Page, expect

from entrick.core.desk import work_out
from entrick.core.plan.document import (
    Chain,
    DrawingNumber,
    Given,
    SheetLine,
    Statement,
    Title,
    Units,
)
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_content
from entrick.demo import sample_plans
from examples import IS_DEEP
from pages import new_job

Open = Callable[[str], int]
PARTS = sorted(
    (name for name in sample_plans() if "OY-03" < name < "OY-064"),
    key=lambda name: len(sample_plans()[name]),
)
"""Flat parts, the shortest plans first."""

PLATE = (
    'plan "Cover"\ndrawing OY-903\nunits mm\nsheet A4 landscape, scale 1:1, border 10\ngiven w = 80 "wide"\n'
    "O = datum, middle of sheet\nframe = box, w by 50, centred on O\nc = circle, centre O, radius 9\n"
)
RIM = "rim = line in, frame.bottom > frame.right > frame.top > frame.left\nbore = line in, c\n"


def next_line(page: Page):  # type: ignore[no-untyped-def]
    return page.get_by_role("combobox", name="The next statement")


def click_paper(page: Page, x: float, y: float) -> None:
    """Click the sheet at a place in mm from its lower left corner."""
    place = page.evaluate(
        """([x, y]) => {
            const sheet = document.querySelector("svg.sheet");
            const paper = sheet.querySelector("rect");
            const point = sheet.createSVGPoint();
            point.x = x; point.y = paper.height.baseVal.value - y;
            const there = point.matrixTransform(sheet.getScreenCTM());
            return [there.x, there.y];
        }""",
        [x, y],
    )
    page.mouse.click(*place)


def plan_text(page: Page) -> str:
    page.get_by_role("tab", name="Text").click()
    return page.get_by_label("Plan text").input_value()


@pytest.mark.parametrize("name", PARTS if IS_DEEP else PARTS[:2])
def test_a_sample_part_is_entered_from_a_blank_job_and_proved_clean(
    page: Page, desk: str, quiet: None, tmp_path: Path, name: str
) -> None:
    text = sample_plans()[name]
    lines = [line.content for line in read_plan(text).lines if line.content is not None]
    new_job(page, desk)
    page.get_by_role("tab", name="Sheet").click()
    for content in lines:
        match content:
            case Title(told):
                page.get_by_label("Title", exact=True).fill(told)
                page.keyboard.press("Enter")
                expect(page.get_by_role("heading", name=told)).to_be_visible()
            case DrawingNumber(told):
                page.get_by_label("Drawing number").fill(told)
                page.keyboard.press("Enter")
            case Units(told):
                page.get_by_label("Units").select_option(told)
            case SheetLine():
                page.get_by_role("textbox", name="Sheet").fill(
                    write_content(content).removeprefix("sheet ")
                )
                page.keyboard.press("Enter")
    page.get_by_role("tab", name="Working").click()
    for content in lines:
        if isinstance(content, Given):
            page.get_by_label("Another given").fill(write_content(content).removeprefix("given "))
            page.keyboard.press("Enter")
            expect(page.get_by_label("Another given")).to_have_value("")
        elif isinstance(content, Statement | Chain):
            next_line(page).fill(write_content(content))
            next_line(page).press("Enter")
            expect(next_line(page)).to_have_value("")
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("link", name="Proof").click()
    verdict = page.get_by_text(re.compile("Proved: nothing wrong, nothing to look at again"))
    expect(verdict).to_contain_text("the outline may go to a cutter")
    page.get_by_role("button", name="Issue…").click()
    with page.expect_download() as waiting:
        page.get_by_role("button", name="Cutter", exact=True).click()
    path = tmp_path / waiting.value.suggested_filename
    waiting.value.save_as(path)
    entities = list(ezdxf.readfile(path).modelspace())
    assert len(entities) == len(work_out(text).outlines)
    assert all(entity.dxftype() in ("CIRCLE", "ELLIPSE") or entity.closed for entity in entities)


def test_an_outline_is_lined_in_by_pointing_at_the_material(page: Page, bench: Open) -> None:
    bench(PLATE)
    page.get_by_role("button", name="Line in by region").click()
    middle = (148.5, 111.0)
    click_paper(page, middle[0] + 30, middle[1] + 15)
    bar = page.get_by_role("group", name="Line in by region")
    expect(bar.get_by_role("status")).to_contain_text(
        "1 region pointed at; written down, the boundary makes 2 statements"
    )
    bar.get_by_role("button", name="Write it down").click()
    expect(page.locator(".mark-outline")).to_have_count(5)
    assert "hole = line in, c\n" in plan_text(page)


def test_regions_are_pointed_at_from_the_keyboard_and_can_be_hidden(
    page: Page, bench: Open
) -> None:
    bench(PLATE)
    page.get_by_role("button", name="Line in by region").press("Enter")
    bar = page.get_by_role("group", name="Line in by region")
    bar.get_by_label("hidden").check()
    page.locator("svg.sheet").focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(bar.get_by_role("status")).to_contain_text("1 region")
    for _ in range(30):
        page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(bar.get_by_role("status")).to_contain_text("nothing closes around this spot")
    bar.get_by_role("button", name="Write it down").click()
    expect(page.locator(".mark-hidden").first).to_be_attached()
    page.get_by_role("button", name="Line in by region").click()
    page.keyboard.press("Escape")
    expect(bar).to_have_count(0)


def test_dimensions_are_suggested_edited_and_taken_back(page: Page, bench: Open) -> None:
    bench(PLATE + RIM)
    page.get_by_role("button", name="Suggest dimensions").click()
    expect(page.get_by_text("3 dimensions put on")).to_be_visible()
    expect(page.locator("text.mark-dimension")).to_have_text(["50", "80", "Ø18"])
    page.get_by_label("w", exact=True).fill("90")
    expect(page.locator("text.mark-dimension").nth(1)).to_have_text("90")
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("text.mark-dimension")).to_have_count(0)


def test_a_finding_is_mended_where_it_stands(page: Page, bench: Open) -> None:
    bench(PLATE.replace("box, w by", "box, 80 by") + RIM)
    page.get_by_role("tab", name=re.compile("Findings")).click()
    page.get_by_role("button", name=re.compile("Link to w")).click()
    expect(page.get_by_text("which is the given w")).to_have_count(0)
    page.get_by_role("button", name=re.compile("Draw them")).click()
    expect(page.locator(".mark-centre")).to_have_count(2)
    assert "box, w by 50" in plan_text(page)


def test_a_step_is_opened_up_and_drawn_sub_step_by_sub_step(page: Page, bench: Open) -> None:
    bench(PLATE + "l = line, through O, at 30°\n")
    page.locator("li[data-line] > button").last.click()
    page.get_by_role("button", name=re.compile("Open up step")).click()
    opened = page.get_by_test_id("opened").locator("> *")
    steps = page.get_by_role("list", name=re.compile("with compass and straight edge")).get_by_role(
        "button"
    )
    expect(steps.nth(1)).to_contain_text("any opening")
    whole = opened.count()
    steps.first.click()
    expect(opened).to_have_count(1)
    assert whole > 5
    page.get_by_role("button", name=re.compile("Close step")).click()
    expect(page.get_by_test_id("opened")).to_have_count(0)


def test_the_proof_measures_every_outline_and_junction(page: Page, bench: Open) -> None:
    bench(PLATE + RIM)
    page.get_by_role("link", name="Proof").click()
    row = page.get_by_role("row", name=re.compile("^rim material"))
    expect(row).to_contain_text("80 by 50")
    expect(row).to_contain_text("4000")
    expect(
        page.get_by_role("row", name=re.compile("frame.bottom frame.right a corner of 90°"))
    ).to_be_visible()
    page.get_by_role("row", name=re.compile("frame.bottom frame.right")).hover()
    expect(page.get_by_test_id("finding-place")).to_be_visible()
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_role("heading", name="Order of work")).to_be_visible()


def test_an_open_outline_goes_to_a_cutter_only_if_the_drafter_insists(
    page: Page, bench: Open, tmp_path: Path
) -> None:
    bench(PLATE + "rim = line in, frame.bottom > frame.right, open\n")
    page.get_by_role("button", name="Issue…").click()
    expect(page.get_by_text("not as it is")).to_be_visible()
    page.get_by_role("button", name="Cutter", exact=True).click()
    expect(page.get_by_text(re.compile("Not to be cut as it is.*open run"))).to_be_visible()
    expect(page.get_by_text("Check scale and units on the machine before cutting")).to_be_visible()
    with page.expect_download() as waiting:
        page.get_by_role("button", name="Insist: write it all the same").click()
    waiting.value.save_as(tmp_path / "open.dxf")
    (run,) = ezdxf.readfile(tmp_path / "open.dxf").modelspace()
    assert not run.closed


def test_paper_border_scale_and_lettering_are_chosen_with_their_reasons(
    page: Page, bench: Open
) -> None:
    bench(PLATE + RIM)
    page.get_by_role("tab", name="Sheet").click()
    expect(
        page.get_by_text(re.compile("at 1:1 the view and its dimensions take 80 by 50 of"))
    ).to_be_visible()
    page.get_by_label("Paper").select_option(label="A3 portrait")
    page.get_by_label("Border").select_option(label="20 mm on the filing side")
    scale = page.get_by_label("Scale")
    expect(
        scale.get_by_role("option", name=re.compile("2:1, the largest that fits"))
    ).to_be_attached()
    scale.select_option(label="2:1, the largest that fits")
    page.get_by_label("Lettering").select_option(label="always level")
    expect(page.get_by_role("textbox", name="Sheet")).to_have_value(
        "A3 portrait, scale 2:1, border filing, dimensions unidirectional"
    )
    page.get_by_label("Paper").select_option(label="11 by 8 1/2 in")
    expect(page.get_by_role("textbox", name="Sheet")).to_have_value(
        re.compile("^11 in by 8 1/2 in, scale 2:1, border filing")
    )


def test_counts_and_chains_stand_among_the_givens(page: Page, bench: Open) -> None:
    bench(
        "units mm\ngiven d = 4× Ø9\nchain top = 20 ? 15, overall 60\nO = datum\ng = grid, from O, across top\n"
    )
    expect(page.get_by_label("d", exact=True)).to_have_value("4× Ø9")
    expect(page.get_by_text("20 + 25 + 15 = 60")).to_be_visible()
    page.get_by_label("top", exact=True).fill("20 ? 30, overall 60")
    expect(page.get_by_text("20 + 10 + 30 = 60")).to_be_visible()


def test_methods_of_an_ellipse_are_compared_and_chosen_on_the_card(page: Page, bench: Open) -> None:
    bench("units mm\nO = datum\ne = ellipse, centred on O, axes 90 and 56\nrim = line in, e\n")
    page.locator("li[data-line] > button").nth(1).click()
    page.get_by_role("button", name="Compare methods").click()
    rows = page.get_by_role("article").get_by_role("listitem").filter(has_text="how close")
    expect(rows).to_have_count(5)
    expect(rows.filter(has_text="by four centres")).to_contain_text("it departs 0.557 at most")
    expect(page.get_by_role("button", name="by circles", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    page.get_by_role("button", name="by four centres", exact=True).click()
    expect(page.get_by_role("button", name="by four centres", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    expect(page.get_by_test_id("strokes").locator(".mark-outline")).to_have_count(4)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("strokes").locator(".mark-outline")).to_have_count(1)


def test_an_isometric_job_is_laid_out_from_its_solids(page: Page, bench: Open) -> None:
    bench("units mm\nsheet A3 landscape, scale 1:1\nO = datum\n")
    for row in (
        "post = cylinder, from O, diameter 70, length 55",
        "cap = cone, from post.middle, diameter 70, height 40",
        "rim = line in, post",
        "left = line in, cap.edge.1, open",
    ):
        next_line(page).fill(row)
        next_line(page).press("Enter")
        expect(next_line(page)).to_have_value("")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.locator(".mark-outline").first).to_be_attached()
    page.get_by_role("tab", name=re.compile("Findings")).click()
    expect(page.get_by_text(re.compile("left is an open run"))).to_be_visible()


def test_the_proof_tells_how_well_the_outline_closes_on_paper(page: Page, bench: Open) -> None:
    job = bench(
        "units mm\nsheet A4 landscape, scale 1:1\nO = datum\nA = point, 50 left of O\nB = point, 50 right of O\n"
        "a = circle, centre A, radius 20\nb = circle, centre B, radius 15\ntop = arc, radius 90, around a, around b, above\n"
        "low = arc, radius 90, beside a, beside b, below\nrim = line in, a > top > b > low\n"
    )
    page.goto(page.url.split("/jobs")[0] + f"/jobs/{job}/proof")
    paper = page.get_by_role("region", name="On paper")
    row = paper.get_by_role("row").filter(has_text="a, top")
    expect(row).to_contain_text("%")
    row.get_by_role("button").focus()
    cloud = page.get_by_test_id("cloud").locator("circle")
    expect(cloud).to_have_count(60)
    far = cloud.first.get_attribute("cx")
    paper.get_by_role("checkbox").uncheck()
    row.get_by_role("button").blur()
    row.get_by_role("button").focus()
    expect(cloud.first).not_to_have_attribute("cx", far or "")
    row.locator("summary").click()
    expect(row).to_contain_text("% rim: a")
    expect(paper).to_contain_text("over all, level")

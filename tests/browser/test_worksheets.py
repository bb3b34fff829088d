"""Worksheets of cams and gears as a drafter uses them."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, Route, expect
from pypdf import PdfReader

from entrick.demo import sample_plans
from pages import painted

Open = Callable[[str], int]
CAM = sample_plans()["OY-072-paddle-lift-cam.entrick"]
GEAR = sample_plans()["OY-073-rack-pinion.entrick"]


def open_worksheet(page: Page, name: str) -> Locator:
    entry = page.locator("li[data-line]").filter(has=page.locator(f"em:text-is('{name}')"))
    entry.get_by_role("button").first.click()
    page.get_by_role("button", name="Worksheet").click()
    sheet = page.get_by_role("region", name=f"Worksheet of {name}")
    expect(sheet.get_by_role("heading", name=re.compile(name))).to_be_focused()
    return sheet


def test_what_can_be_pressed_stays_where_it_is_when_the_picture_of_a_setting_comes(
    page: Page, bench: Open
) -> None:
    held: list[Route] = []

    def hold(route: Route) -> None:
        held.append(route)

    page.route("**/api/pictures/**", hold)
    bench(GEAR)
    entry = page.locator("li[data-line]").filter(has=page.locator("em:text-is('pinion')"))
    entry.get_by_role("button").first.click()
    page.wait_for_function(
        "() => document.fonts.status === 'loaded' && !document.querySelector('article img')?.complete"
    )
    before = page.get_by_role("button", name="Worksheet").bounding_box()
    for each in held:
        each.continue_()
    page.unroute("**/api/pictures/**")
    page.wait_for_function("() => document.querySelector('article img')?.naturalHeight > 0")
    assert page.get_by_role("button", name="Worksheet").bounding_box() == before


def test_the_cam_turns_by_the_slider_and_the_follower_rises_on_the_diagram(
    page: Page, bench: Open
) -> None:
    bench(CAM)
    sheet = open_worksheet(page, "lifter")
    slider = sheet.get_by_role("slider", name="Turn the cam")
    expect(sheet.get_by_text("at 0° the lift is 0, the follower stands")).to_be_visible()
    outline = sheet.locator("svg path.mark-outline").last
    before = outline.get_attribute("d")
    slider.focus()
    slider.press("PageUp")
    slider.press("ArrowRight")
    expect(slider).to_have_attribute(
        "aria-valuetext", re.compile(r"^at \d+° the lift is 1?\d\.\d+, the follower rises")
    )
    assert outline.get_attribute("d") != before
    sheet.get_by_role("button", name="Run").click()
    expect(slider).to_have_attribute("aria-valuetext", re.compile("the follower stands"))
    sheet.get_by_role("button", name="Stop").click()
    expect(sheet.get_by_role("button", name="Run")).to_be_visible()
    page.wait_for_load_state("networkidle")  # the moment last asked for is drawn
    painted(page)
    stopped = slider.get_attribute("aria-valuetext")
    painted(page, 30)
    assert slider.get_attribute("aria-valuetext") == stopped
    expect(sheet.get_by_text("guarding are for a qualified person")).to_be_visible()
    sheet.get_by_role("button", name="Back to the sheet").click()
    expect(page.get_by_role("region", name="Worksheet of lifter")).to_have_count(0)


def test_events_are_edited_in_a_table_and_followed_from_sentences(page: Page, bench: Open) -> None:
    bench(CAM)
    sheet = open_worksheet(page, "lifter")
    events = sheet.get_by_role("table", name="Events to edit")
    expect(events.get_by_role("row")).to_have_count(6)
    sheet.get_by_label("Motion of event 1").select_option("cycloidal")
    expect(page.get_by_text("rise 120° by 28 cycloidal motion").first).to_be_visible()
    sheet.get_by_label("Angle of event 1").fill("130°")
    sheet.get_by_label("Angle of event 1").press("Tab")
    expect(sheet.get_by_label("Lift of event 1")).to_be_focused()
    expect(sheet.get_by_role("alert").filter(has_text="10° too much")).to_be_visible()
    expect(sheet.get_by_label("Angle of event 1")).to_have_value("130°")
    page.get_by_role("button", name="Undo").click()
    expect(sheet.get_by_label("Angle of event 1")).to_have_value("120°")
    brief = sheet.get_by_label(re.compile("In place of these"))
    brief.fill("rise 20 in 180°\nsleep for 30°")
    expect(sheet.get_by_role("alert")).to_contain_text("Part 2")
    expect(sheet.get_by_role("button", name="Follow this")).to_be_disabled()
    expect(brief).to_have_value("rise 20 in 180°\nsleep for 30°")
    brief.fill("rises 20 mm in 180° with SHM; returns 20 mm in 180° at uniform velocity")
    understood = sheet.get_by_role("table", name="The brief as it was understood")
    expect(understood.get_by_role("row").nth(2)).to_have_text(
        re.compile("fall.*180°.*180° to 360°.*20 mm.*uniform")
    )
    sheet.get_by_role("button", name="Follow this").click()
    expect(events.get_by_role("row")).to_have_count(3)
    expect(brief).to_have_value("")
    sheet.get_by_role("button", name="Strike out event 2").click()
    expect(events.get_by_role("row")).to_have_count(2)


def test_stations_come_from_a_file_and_go_into_one(page: Page, bench: Open, tmp_path: Path) -> None:
    bench(CAM)
    sheet = open_worksheet(page, "lifter")
    stations = tmp_path / "stations.csv"
    stations.write_text("angle,lift\n0,0\n60,5\n120,14\n180,20\n240,14\n300,5\n360,0\n", "utf-8")
    sheet.get_by_label("File of stations").set_input_files(stations)
    expect(sheet.get_by_label(re.compile("In place of these"))).to_have_value(re.compile("120,14"))
    sheet.get_by_role("button", name="Follow this").click()
    expect(page.get_by_text("measured").first).to_be_visible()
    with page.expect_download() as taken:
        sheet.get_by_role("button", name="Stations as CSV").click()
    rows = Path(taken.value.path()).read_text("utf-8").splitlines()
    assert rows[0].startswith("station,angle,lift")
    assert rows[9].startswith("8,120°,14,")
    with page.expect_download() as taken:
        sheet.get_by_role("button", name="Print", exact=True).first.click()
    assert "DISPLACEMENT DIAGRAM" in PdfReader(taken.value.path()).pages[0].extract_text()


@pytest.mark.parametrize("turns", [4])
def test_a_gear_runs_with_its_mate_and_is_measured(page: Page, bench: Open, turns: int) -> None:
    bench(GEAR)
    sheet = open_worksheet(page, "pinion")
    slider = sheet.get_by_role("slider", name="Turn the gear")
    for _ in range(turns):
        slider.press("ArrowRight")
    expect(
        sheet.get_by_text(f"turned {turns}°, the mate {turns * 18 / 60:.1f}° the other way").first
    ).to_be_visible()
    measures = sheet.get_by_role("table", name="Measures for inspection")
    expect(measures.get_by_role("row", name=re.compile("chordal thickness 6.27"))).to_be_visible()
    expect(
        sheet.get_by_role("table", name="Radii of two arcs by number of teeth").get_by_role("row")
    ).to_have_count(28)
    # Escape goes back to the sheet, from anywhere but a field being typed in.
    sheet.get_by_role("heading", level=2).focus()
    page.keyboard.press("Escape")
    expect(page.get_by_role("region", name="Worksheet of pinion")).to_have_count(0)
    page.get_by_role("button", name="Compare methods").click()
    expect(page.get_by_role("button", name="by arcs")).to_be_visible()

"""A finished sheet looked at in the browser: tried, chosen from disk, refused; the sheets of a class."""

from pathlib import Path

from playwright.sync_api import Page, expect

from entrick.core.desk import work_out
from entrick.core.look.by_hand import drawn_by_hand
from entrick.demo import sample_plans
from entrick.devices.digitiser import digitised
from entrick.devices.scanner import scan
from pages import sound

LINK = sample_plans()["OY-014-paddle-pawl-link.entrick"]


def open_link(page: Page, desk: str) -> None:
    page.goto(desk)
    page.get_by_role("link", name="Paddle pawl link").first.click()
    page.get_by_role("link", name="On the sheet").click()


def test_a_slipped_sheet_names_the_step_which_opens_at_the_board(
    page: Page, desk: str, quiet: None
) -> None:
    open_link(page, desk)
    page.get_by_role("button", name="one photographed askew").click()
    expect(page.get_by_test_id("looked")).to_contain_text("At step")
    expect(page.get_by_role("table")).to_contain_text("within")
    page.get_by_role("button", name="keep its radii in the logbook").click()
    expect(page.get_by_test_id("taught")).to_contain_text("measured values kept")
    page.get_by_label("From the picture to the plan").fill("20")
    sound(page, "looked at")
    step = page.get_by_role("link", name="Step").first
    number = step.inner_text().removeprefix("Step ")
    step.click()
    expect(page.get_by_role("heading", name="steps")).to_be_visible()
    assert page.url.endswith(f"step={number}")


def test_a_table_of_places_is_chosen_and_what_is_no_sheet_is_refused(
    page: Page, desk: str, tmp_path: Path
) -> None:
    table = tmp_path / "places.csv"
    table.write_text(digitised(drawn_by_hand(work_out(LINK), 1)), "utf-8")
    broken = tmp_path / "broken.png"
    broken.write_bytes(b"\x89PNG nothing")
    open_link(page, desk)
    picker = page.get_by_label("Choose a picture of the sheet")
    picker.set_input_files(table)
    expect(page.get_by_test_id("measured")).to_contain_text("within a hand")
    picker.set_input_files(broken)
    expect(page.get_by_role("alert")).to_contain_text("save it as PNG, JPEG or TIFF")


def test_the_sheets_of_a_class_are_marked_and_the_doubtful_put_apart(
    page: Page, desk: str, tmp_path: Path
) -> None:
    sheet = drawn_by_hand(work_out(LINK), 1)
    for name, content in (("ada.png", scan(sheet, dpi=150)), ("bo.png", b"nothing")):
        (tmp_path / name).write_bytes(content)
    page.goto(f"{desk}/class")
    page.get_by_label("The part").select_option(label="OY-014 Paddle pawl link")
    page.get_by_label("Pictures of the sheets of a class").set_input_files(
        sorted(tmp_path.iterdir())
    )
    marks = page.get_by_role("table", name="Marks of the sheets")
    expect(marks).to_contain_text("Everything is within the tolerance.")
    expect(page.get_by_role("table", name="Sheets to look at by eye")).to_contain_text("bo")
    page.get_by_text("ada: 20 of 20").click()
    expect(page.get_by_text("accuracy 10.0, tangency 4.0")).to_be_visible()
    with page.expect_download() as file:
        page.get_by_role("button", name="Keep the marks, CSV").click()
    assert "ada,10.0,4.0,2.0,3.0,1.0,20" in Path(file.value.path()).read_text("utf-8")

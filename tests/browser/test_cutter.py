"""The simulated cutter in the browser: refused until confirmed, seen at work, stopped, and held against the plan."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from pages import sound


def cut(page: Page, tool: str, confirmed: bool = True) -> None:
    page.get_by_label("Width of the cut").fill(tool)
    page.get_by_label("Feed").fill("400")
    page.get_by_role("checkbox", name=re.compile("The machine is set to")).set_checked(confirmed)
    page.get_by_role("button", name="Cut it").click()


def test_a_part_is_cut_seen_at_work_and_held_against_its_plan(
    page: Page, desk: str, quiet: None
) -> None:
    page.goto(f"{desk}/jobs/20")
    page.get_by_role("button", name="Issue…").click()
    page.get_by_role("link", name="Program for a cutter").click()
    cut(page, "3", confirmed=False)
    expect(page.get_by_role("alert")).to_contain_text("confirm first that mm and full size")
    cut(page, "3")
    expect(page.get_by_test_id("cut-came")).to_contain_text("The part fits the plan")
    expect(page.get_by_test_id("cut-at")).to_contain_text("block")
    page.get_by_role("button", name="Pause").click()
    expect(page.get_by_role("button", name="Go on")).to_be_visible()
    sound(page, "paused")
    page.get_by_role("button", name="Go on").click()
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_test_id("cut-at")).to_contain_text("stopped")
    with page.expect_download() as file:
        page.get_by_role("button", name="Keep the program").click()
    assert Path(file.value.path()).read_text("ascii").startswith("%")
    page.get_by_label("A fault to try").select_option("lost step")
    cut(page, "3")
    expect(page.get_by_test_id("cut-came")).to_contain_text("the datum has to be found again")


@pytest.mark.parametrize(
    ("plan", "tool", "words"),
    [
        (
            "c = circle, centre O, diameter 5\nbore = line in, c\nb = circle, centre O, diameter 40\nrim = line in, b\n",
            "6",
            "narrower than the tool",
        ),
        ("c = run, from O, right 40, up 20\nrim = line in, c, open\n", "1", "open"),
    ],
)
def test_what_cannot_be_cut_is_refused_with_the_reason(
    page: Page, desk: str, bench: Callable[[str], int], plan: str, tool: str, words: str
) -> None:
    job = bench("units mm\nO = datum\n" + plan)
    page.goto(f"{desk}/jobs/{job}/cutter")
    cut(page, tool)
    expect(page.get_by_role("alert")).to_contain_text(words)


def test_a_machine_is_chosen_changed_kept_and_there_again(
    page: Page, desk: str, quiet: None
) -> None:
    page.goto(f"{desk}/jobs/20/cutter")
    page.get_by_role("combobox", name="Machine").select_option("router")
    expect(page.get_by_label("Feed")).to_have_value("900")
    page.get_by_text("what is set on it").click()
    page.get_by_label("Tabs on a rim").fill("3")
    page.get_by_label("Each pass at most").fill("7")
    page.get_by_label("Program zero").select_option("corner")
    cut(page, "3")
    expect(page.get_by_role("alert")).to_contain_text("6.3 mm deep at once with a tool of 3")
    page.get_by_label("Each pass at most").fill("3.2")
    cut(page, "3")
    came = page.get_by_test_id("cut-came")
    expect(came).to_contain_text("The part fits the plan")
    expect(came).to_contain_text("from the program’s zero the tool runs from X-")
    program = page.get_by_label("The program, block by block")
    expect(program).to_have_value(re.compile("2 PASSES TO 6.3 DEEP, 3 TABS"))
    with page.expect_download() as file:
        page.get_by_role("button", name="Keep this machine").click()
    kept = Path(file.value.path())
    assert '"tabs": 3' in kept.read_text("utf-8")
    page.reload()
    expect(page.get_by_role("combobox", name="Machine")).to_contain_text("Router")
    page.get_by_text("what is set on it").click()
    expect(page.get_by_label("Tabs on a rim")).to_have_value("3")
    page.get_by_role("combobox", name="Machine").select_option("laser")
    expect(page.get_by_label("Power")).to_be_visible()
    page.get_by_label("Choose a machine").set_input_files(kept)
    expect(page.get_by_label("Tabs on a rim")).to_have_value("3")
    (kept.parent / "word.json").write_text('"feed"', "utf-8")
    page.get_by_label("Choose a machine").set_input_files(kept.parent / "word.json")
    expect(page.get_by_role("alert")).to_contain_text("it has no entries")
    expect(page.get_by_label("Tabs on a rim")).to_have_value("3")

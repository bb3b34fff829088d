"""What was made held against a job in the browser: a file laid over it, a revision, and a profile over its own plan."""

import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, Route, expect

from desk import solved
from entrick.core.formats import write_cutter_dxf

PLATE = (
    "frame = box, {w} by 60, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"
    "eye = circle, centre O, diameter 24\nbore = line in, eye\n"
)


def test_a_file_and_a_revision_are_held_against_a_job(
    page: Page, desk: str, bench: Callable[[str], int], quiet: None, tmp_path: Path
) -> None:
    job = bench("units mm\nO = datum\n" + PLATE.format(w=90))
    made = solved(PLATE.format(w=90.6))
    file = tmp_path / "made.dxf"
    file.write_text(write_cutter_dxf(made.outlines, made.solution.unit), "utf-8")
    page.goto(f"{desk}/jobs/{job}/compare")
    page.get_by_label("Choose what was made").set_input_files(file)
    held = page.get_by_test_id("held")
    expect(held).to_contain_text("Not within 0.1 mm")
    expect(held).to_contain_text(
        re.compile(r"rim: off by 0\.300 at -?45\.\d+, .*, too much material")
    )
    expect(held.get_by_role("img", name=re.compile("1 of 2 outlines off"))).to_be_visible()
    expect(
        held.get_by_role("img", name=re.compile("bore is off all along, at most 0 mm"))
    ).to_be_visible()
    page.get_by_label("May be off by").fill("0,4")
    expect(held).to_contain_text("Within 0.4 mm all along")
    page.get_by_label("Laid").select_option("as it lies")
    expect(held.get_by_text("laid over the plan")).to_have_count(0)
    (tmp_path / "none.dxf").write_text("no drawing", "utf-8")
    page.get_by_label("Choose what was made").set_input_files(tmp_path / "none.dxf")
    expect(page.get_by_role("alert")).to_contain_text("no DXF")


def test_a_profile_that_is_not_read_back_is_seen_and_its_remedy_is_a_press(
    page: Page, desk: str, quiet: None, tmp_path: Path
) -> None:
    import math
    import random

    r = random.Random(4)
    rows = [
        f"{40 * math.cos(k / 60) + r.gauss(0, 0.02):.4f},{30 * math.sin(k / 60) + r.gauss(0, 0.02):.4f}"
        for k in range(377)
    ]
    (tmp_path / "p.csv").write_text("\n".join(rows), "utf-8")
    page.goto(f"{desk}/profile")
    page.get_by_label("Choose a profile").set_input_files(tmp_path / "p.csv")
    expect(page.get_by_role("alert")).to_contain_text("its points scatter by about")
    expect(page.get_by_role("img", name=re.compile("The profile as it came"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Let it be off by")).click()
    expect(page.get_by_role("alert")).to_have_count(0)


def test_what_takes_too_long_may_be_off_by_more_with_one_press(
    page: Page, desk: str, quiet: None, tmp_path: Path
) -> None:
    asked: list[float | None] = []

    def refuse(route: Route) -> None:
        asked.append(route.request.post_data_json["within"])
        refused = {"title": "More work than the desk does at once", "detail": "ask for less"}
        if len(asked) > 1:
            route.continue_()
        else:
            route.fulfill(status=422, json=refused, content_type="application/problem+json")

    page.route("**/read-back", refuse)
    (tmp_path / "p.csv").write_text("0,0\n60,0\n60,40\n0,40\n", "utf-8")
    page.goto(f"{desk}/profile")
    page.get_by_label("Choose a profile").set_input_files(tmp_path / "p.csv")
    page.get_by_role("button", name="Let it be off by 0.01").click()
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text("2 numbers, its outlines exactly")).to_be_visible()
    assert asked == [None, 0.01]


def test_plan_and_file_lie_over_each_other_and_loose_ends_are_ringed(
    page: Page, desk: str, quiet: None, tmp_path: Path
) -> None:
    page.goto(f"{desk}/profile")
    page.get_by_role("button", name="Try one of the lock yard").click()
    page.get_by_label("plan and file over each other").check()
    expect(page.get_by_test_id("held")).to_contain_text("Within 0.001 mm all along")
    open_ = '<svg xmlns="http://www.w3.org/2000/svg" width="90mm" viewBox="0 0 90 60"><path d="M0 0L60 0L60 40"/></svg>'
    (tmp_path / "o.svg").write_text(open_, "utf-8")
    page.get_by_label("Choose a profile").set_input_files(tmp_path / "o.svg")
    expect(page.get_by_text("2 loose ends are ringed")).to_be_visible()

"""The demo served and opened in Chromium, for measuring and for pictures."""

from __future__ import annotations

import re
import statistics
import tempfile
import threading
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from waitress.server import create_server

from entrick.demo import load
from entrick.demo.sittings import load_sittings
from entrick.store import open_store
from entrick.web import create_app

CHROMIUM = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@contextmanager
def demo_page() -> Iterator[tuple[Page, str]]:
    """Serve the sample jobs from a fresh register and open a page of 1280 by 800."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as driver:
        store = open_store(Path(folder) / "register.db")
        load(store)
        load_sittings(store)
        server = create_server(create_app(store), host="127.0.0.1", port=0, threads=4)
        threading.Thread(target=server.run, daemon=True).start()
        browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        try:
            yield browser.new_page(viewport={"width": 1280, "height": 800}), f"http://127.0.0.1:{server.effective_port}"
        finally:
            browser.close()
            server.close()


def open_sample(page: Page, address: str, drawing: str) -> None:
    """Open a sample job by its drawing number, as a drafter does from the register."""
    page.goto(address)
    page.get_by_role("row", name=re.compile(drawing)).get_by_role("link").last.click()
    page.wait_for_selector("svg.sheet")


REPAINT = """async (value) => {
    const field = document.querySelector("input[id^=given-]");
    const sheet = document.querySelector("svg.sheet");
    const long = [];
    const watch = new PerformanceObserver((list) => long.push(...list.getEntries().map((e) => e.duration)));
    watch.observe({ type: "longtask" });
    const start = performance.now();
    const drawn = new Promise((resolve) => {
        const painted = () => requestAnimationFrame(() => setTimeout(resolve));
        const seen = new MutationObserver(() => { seen.disconnect(); painted(); });
        seen.observe(sheet, { subtree: true, childList: true, attributes: true });
    });
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(field, value);
    field.dispatchEvent(new Event("input", { bubbles: true }));
    await drawn;
    const took = performance.now() - start;
    await new Promise((resolve) => setTimeout(resolve, 20));
    watch.disconnect();
    return [took, Math.max(0, ...long)];
}"""


def repaint_milliseconds(drawings: Sequence[str], rounds: int = 8) -> dict[str, tuple[float, float]]:
    """Return for each sample the median time from a typed given to the repainted sheet, and its longest task, ms."""
    found = {}
    with demo_page() as (page, address):
        for drawing in drawings:
            open_sample(page, address, drawing)
            page.wait_for_selector("svg.sheet path, svg.sheet line")
            field = page.locator("input[id^=given-]").first
            field.focus()
            value = field.input_value()
            page.wait_for_timeout(600)
            times = [page.evaluate(REPAINT, f"{value}*1.000{index + 1}") for index in range(rounds)][1:]
            found[drawing] = statistics.median(took for took, _ in times), max(long for _, long in times)
    return found

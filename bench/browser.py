"""The demo served and opened in Chromium, for measuring and for pictures."""

from __future__ import annotations

import re
import statistics
import tempfile
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from waitress.server import create_server

from entrick.demo import load
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
    const strokes = document.querySelector("svg.sheet path.mark-outline");
    const before = strokes.getAttribute("d");
    const start = performance.now();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(field, value);
    field.dispatchEvent(new Event("input", { bubbles: true }));
    while (document.querySelector("svg.sheet path.mark-outline").getAttribute("d") === before)
        await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    return performance.now() - start;
}"""


def repaint_milliseconds(rounds: int = 15) -> float:
    """Return the median time from a typed given to the repainted sheet."""
    with demo_page() as (page, address):
        open_sample(page, address, "OY-014")
        page.wait_for_selector("svg.sheet path.mark-outline")
        page.locator("input[id^=given-]").first.focus()
        times = [page.evaluate(REPAINT, str(241 + index)) for index in range(rounds)]
    return statistics.median(times[2:])

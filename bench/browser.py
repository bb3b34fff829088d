"""The demo served and opened in Chromium, for measuring and for pictures."""

from __future__ import annotations

import os
import re
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from entrick.core.summarize import summarize
from entrick.demo.jobs import load
from entrick.demo.sittings import load_sittings
from entrick.store import open_store

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
    """Serve the sample jobs from a fresh register, by the desk as it is started, and open a page of
    1280 by 800."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as driver:
        register = Path(folder) / "register.db"
        store = open_store(register)
        load(store, summarize)
        load_sittings(store)
        store.close()
        with served(register) as address:
            browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
            try:
                yield browser.new_page(viewport={"width": 1280, "height": 800}), address
            finally:
                browser.close()


@contextmanager
def served(register: Path) -> Iterator[str]:
    """Serve a register in a process of its own; give its address once it answers."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    # A machine that keeps no compiled files would measure the compiler.
    compiled = {
        name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"
    }
    command = [
        sys.executable,
        "-m",
        "entrick.cli",
        "serve",
        "--port",
        str(port),
        "--database",
        str(register),
    ]
    process = subprocess.Popen(
        command, env=compiled, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
    )
    address = f"http://127.0.0.1:{port}"
    try:
        patience = time.monotonic() + 60
        while True:
            try:
                with urllib.request.urlopen(f"{address}/api/jobs", timeout=1):
                    break
            except OSError:
                if time.monotonic() > patience or process.poll() is not None:
                    raise
                time.sleep(0.01)
        yield address
    finally:
        process.terminate()
        process.wait()


def open_sample(page: Page, address: str, drawing: str) -> None:
    """Open a sample job by its drawing number, as a drafter does from the register."""
    page.goto(address)
    page.get_by_role("article", name=re.compile(drawing)).get_by_role("link").last.click()
    page.wait_for_selector("svg.sheet")


REPAINT = """async (value) => {
    const field = document.querySelector("input[id^=given-]");
    const sheet = document.querySelector("svg.sheet");
    const long = [];
    const watch = new PerformanceObserver((list) =>
        long.push(...list.getEntries().map((e) => e.duration)));
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


def repaint_milliseconds(
    drawings: Sequence[str], rounds: int = 8
) -> dict[str, tuple[float, float]]:
    """Return for each sample the median time from a typed given to the repainted sheet, and its
    longest task, ms."""
    found = {}
    with demo_page() as (page, address):
        for drawing in drawings:
            open_sample(page, address, drawing)
            page.wait_for_selector("svg.sheet path, svg.sheet line")
            field = page.locator("input[id^=given-]").first
            field.focus()
            value = field.input_value()
            page.wait_for_timeout(600)
            times = [
                page.evaluate(REPAINT, f"{value}*1.000{index + 1}") for index in range(rounds)
            ][1:]
            found[drawing] = (
                statistics.median(took for took, _ in times),
                max(long for _, long in times),
            )
    return found

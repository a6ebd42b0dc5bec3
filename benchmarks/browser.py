"""The Bench in Chromium: how much script before it can be used, and how long from navigation to the figure having the focus."""

import gzip

from playwright.sync_api import Page, Response, sync_playwright

from benchmarks.timing import p50_p95
from tools import chromium

AIM_KB = 190
ROUNDS = 7


def measure(port: int) -> None:
    """Print kilobytes of script (gzip) and milliseconds to a usable Bench, from an empty cache each time."""
    with sync_playwright() as playwright:
        browser = chromium.start(playwright)
        taken, script = [], 0
        for _ in range(ROUNDS):
            # the measuring itself evaluates strings, which the app never does
            context = browser.new_context(bypass_csp=True, base_url=f"http://127.0.0.1:{port}", viewport={"width": 1280, "height": 800})
            page = context.new_page()
            sign_in(page)
            state = context.storage_state()
            context.close()
            context = browser.new_context(bypass_csp=True, base_url=f"http://127.0.0.1:{port}", storage_state=state)
            page = context.new_page()
            scripts: list[Response] = []
            page.on("response", lambda answer, kept=scripts: kept.append(answer) if answer.url.endswith(".js") else None)
            page.goto("/bench/Q4-0171")
            page.wait_for_function("document.activeElement?.id === 'wheel'")
            taken.append(page.evaluate("performance.now()"))
            script = sum(len(gzip.compress(answer.body())) for answer in scripts)
            context.close()
        browser.close()
    print(f"script before the Bench, kB gz  {script / 1000:8.1f}   aim: under {AIM_KB}")
    print(f"navigation to a usable Bench    {p50_p95(taken)[0]:8.0f}   worst of {ROUNDS}: {max(taken):.0f}")


def sign_in(page: Page) -> None:
    """Sign in as the demo's builder."""
    page.goto("/")
    page.get_by_label("Name").fill("della")
    page.locator("input[type=password]").fill("hillside-builder")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="on stands").wait_for()

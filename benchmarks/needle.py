"""A live needle in Chromium while the simulated wrench streams sixty readings a second: what each frame costs the page."""

from playwright.sync_api import sync_playwright

from benchmarks.browser import sign_in
from benchmarks.twin import report, traced
from tools import chromium

AIM_MS = 8.0
WAIT = "() => new Promise((done) => setTimeout(done, 5000))"


def measure(port: int) -> None:
    """Print frames a second and the page's work a frame on the bench of a head that is pulled."""
    with sync_playwright() as playwright:
        browser = chromium.start(playwright)
        page = browser.new_context(bypass_csp=True, base_url=f"http://127.0.0.1:{port}", viewport={"width": 1280, "height": 800}).new_page()
        sign_in(page)
        page.goto("/bench/Q4-0175")
        page.get_by_role("button", name="E1 is not read").click()
        page.get_by_label("Live needle").wait_for()
        report("live needle", traced(browser, page, WAIT), AIM_MS)
        browser.close()

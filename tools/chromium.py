"""Debian's Chromium, quiet: it reaches for nothing but this machine."""

import shutil

from playwright.sync_api import Browser, Playwright

from tools.house import CHROMIUM

FLAGS = [
    "--no-sandbox",  # Chromium will not start as root with it
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]


def start(playwright: Playwright, *more: str) -> Browser:
    """Start the Chromium that Debian's packages put on this machine."""
    return playwright.chromium.launch(executable_path=shutil.which(CHROMIUM), args=[*FLAGS, *more])

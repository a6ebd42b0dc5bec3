"""The longest run of the demo's families, from its first step to where something has to cure: what each entry of it takes."""

from contextlib import suppress
from functools import partial
from typing import Any

from benchmarks.playing import BY_LEAD, Page, enter, next_entry, put_on
from benchmarks.timing import p50_p95, times_ms
from gurvo_core.errors import EntryRefused
from tools.real_server import Person

FAMILY, SERIALS, AIM_RATIO = "brae-v8", ("BV-0900", "BV-0901", "BV-0902"), 2.0


def fill() -> list[dict[str, Any]]:
    """Put engines on the floor and build the first; return what was entered, up to where something has to cure."""
    for serial in SERIALS:
        put_on(serial, FAMILY)
    entered: list[dict[str, Any]] = []
    with suppress(EntryRefused):
        while True:
            body = next_entry(SERIALS[0])
            enter(SERIALS[0], body)
            entered.append(body)
    return entered


def entries(port: int, entered: list[dict[str, Any]]) -> None:
    """Print what the builder's entries of a whole run take, against a bare signed-in view."""
    builder = Person(port, "della", "hillside-builder")
    taken: dict[str, list[float]] = {"bare": [], "entry": []}
    for serial in SERIALS[1:]:
        page = Page(builder, serial)
        for body in entered:
            if body["kind"] in BY_LEAD:
                enter(serial, body)
                page.look()
                continue
            taken["bare"] += times_ms(partial(builder.call, "GET", "/api/session/people"), 1, warm_up=0)
            taken["entry"] += times_ms(partial(page.enter, body), 1, warm_up=0)
    bare, entry = p50_p95(taken["bare"]), p50_p95(taken["entry"])
    ratio, ratio_p95 = entry[0] / bare[0], entry[1] / bare[1]
    said = f"{ratio:.2f} times the bare view, p95 {ratio_p95:.2f}, aim: within {AIM_RATIO:g}"
    print(f"an entry of the longest run     {entry[0]:8.2f}   {said}")

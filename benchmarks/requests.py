"""Whole requests against a real server: an accepted entry on a ledger of 2,000, as a ratio to a bare signed-in view."""

import itertools

from benchmarks.long_ledger import EVENTS
from benchmarks.playing import Page
from benchmarks.timing import p50_p95, turn_about_ms
from tools.real_server import Person

AIM_RATIO = 2.0
AIM_LOOK = 1.2
FAR_BACK = 5_000


def measure(port: int, serial: str, count: int) -> None:
    """Print p50 and p95 of both, and their ratio."""
    builder = Person(port, "della", "hillside-builder")
    events = itertools.cycle(EVENTS)

    def record() -> None:
        valve, flank, figure, side = next(events)
        body = {"kind": "lift_reading", "camshaft": "cam", "cylinder": 1, "valve": valve, "flank": flank}
        body |= {"lift": {"text": "1.00", "unit": "mm"}, "wheel": {"text": str(figure), "side": side}}
        page.enter(body)

    page = Page(builder, serial)
    builder.call("GET", "/api/engines/Q4-0170")
    tag = builder.tag
    calls = {
        "bare": lambda: builder.call("GET", "/api/session/people"),
        "entry": record,
        "look": lambda: builder.call("GET", "/api/engines/Q4-0170", tag=tag),
    }
    taken = turn_about_ms(calls, count)
    bare, entry = p50_p95(taken["bare"]), p50_p95(taken["entry"])
    print(f"bare signed-in view             {bare[0]:8.2f}   p95 {bare[1]:.2f}")
    print(f"accepted entry, ledger of 2,000 {entry[0]:8.2f}   p95 {entry[1]:.2f}")
    look = p50_p95(taken["look"])
    print(f"a look at an unchanged bench    {look[0]:8.2f}   {look[0] / bare[0]:.2f} times the bare view, aim: within {AIM_LOOK:g}")
    ratios = entry[0] / bare[0], entry[1] / bare[1]
    print(f"entry / bare                    {ratios[0]:8.2f}   p95 {ratios[1]:.2f}, aim: within {AIM_RATIO:g}")


def strikes(port: int, serial: str, count: int) -> None:
    """Print what striking one of the latest readings of a very long ledger takes, and one some five thousand back."""
    from work.models import Entry

    builder = Person(port, "della", "hillside-builder")
    page, bare = Page(builder, serial), lambda: builder.call("GET", "/api/session/people")
    struck = {row["strikes"] for row in Entry.objects.filter(engine=serial, kind="strike").values_list("body", flat=True)}
    latest = Entry.objects.filter(engine=serial, kind="lift_reading").order_by("-seq").values_list("pk", flat=True)[: FAR_BACK + count]
    standing = [str(pk) for pk in latest if str(pk) not in struck]
    for where, of in (("late", 0), ("far back", -1)):

        def strike(of: int = of) -> None:
            page.enter({"kind": "strike", "strikes": standing.pop(of), "reason": "misread"})

        taken = turn_about_ms({"bare": bare, "strike": strike}, count // 6, warm_up=2)
        found, yard = p50_p95(taken["strike"]), p50_p95(taken["bare"])
        said = f"{found[0] / yard[0]:.2f} times the bare view, p95 {found[1] / yard[1]:.2f}"
        said += f", aim: within {AIM_RATIO:g}" if where == "late" else "; all after it is folded anew"
        print(f"a strike of 10,000, {where:12}{found[0]:8.2f}   {said}")

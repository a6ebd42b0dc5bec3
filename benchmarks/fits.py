"""Fits and lash: the fewest stops of thirty-two valves, an assignment of sixty-four shims, an entry on a sheet of four hundred readings."""

import copy
import itertools
import random

from django.contrib.auth.models import User

from benchmarks.playing import Page, enter, next_entry, put_on
from benchmarks.timing import p50_p95, times_ms, turn_about_ms
from demo.documents import family_data
from engine.services import add_revision
from gurvo_core.lash.shims import Measured, plan_shims
from gurvo_core.lash.stops import fewest_stops
from gurvo_core.lash.windows import may_be_set, valves_of
from gurvo_core.reading import read_document
from tools.real_server import Person
from work.models import Engine

SERIAL, SPOTS, AIM_MS, AIM_RATIO = "Q4-0400", 400, 50.0, 2.0
MAINS = {"step": "main-fit", "fit": "main-clearance"}


def measure() -> None:
    """Print what the two solvers take."""
    document = read_document(family_data("brae-v8"))
    valves = valves_of(document)
    allowed = {key: may_be_set(document, lobe, 10) for key, (_, lobe) in valves.items()}
    tdcs = sorted(set(document.firing_deg.values()))
    taken = p50_p95(times_ms(lambda: fewest_stops(allowed, tdcs), 30))
    print(f"fewest stops of {len(valves)} valves      {taken[0]:8.2f}   p95 {taken[1]:.2f}, aim: {AIM_MS:g}")
    chance = random.Random(64)
    made = [2 + n * 0.05 for n in range(30)]
    measured = [
        Measured(
            valve=str(n),
            shim_mm=chance.choice(made),
            lash_mm=chance.uniform(0.05, 0.4),
            wanted_mm=0.2,
            limits_mm=(0.15, 0.25),
        )
        for n in range(64)
    ]
    taken = p50_p95(times_ms(lambda: plan_shims(measured, dict.fromkeys(made, 3), made), 30))
    print(f"assignment of 64 shims          {taken[0]:8.2f}   p95 {taken[1]:.2f}, aim: {AIM_MS:g}")


def fill() -> None:
    """Put an engine on the floor whose mains have four hundred spots, all of them read."""
    data = copy.deepcopy(family_data("quern-4"))
    fit = next(one for one in data["fits"] if one["id"] == "main-clearance")
    spots = {"planes": ["a", "b", "c", "d", "e"], "axes": ["1", "2", "3", "4"]}
    fit |= {"at": None, "count": None, "places": [f"main {n}" for n in range(1, 11)]}
    fit["outer"] |= spots
    fit["inner"] |= spots
    put_on(SERIAL, "quern-4")
    revision = add_revision(data, by=User.objects.get(username="oren"), remark="for the benchmark")
    Engine.objects.filter(pk=SERIAL).update(revision=revision)
    read = 0
    while read < SPOTS - 1:
        body = next_entry(SERIAL)
        read += body["kind"] == "fit_reading"
        enter(SERIAL, body)


def entries(port: int, count: int) -> None:
    """Print what one more reading takes on that sheet, against a bare signed-in view."""
    builder = Person(port, "della", "hillside-builder")
    places = itertools.cycle(range(1, 10))

    def record() -> None:
        spot = {"place": f"main {next(places)}", "side": "inner", "plane": "b", "axis": "2"}
        body = {"kind": "fit_reading", **MAINS, **spot, "reading": {"text": "58.000", "unit": "mm"}}
        page.enter(body)

    page = Page(builder, SERIAL)
    taken = turn_about_ms({"bare": lambda: builder.call("GET", "/api/session/people"), "entry": record}, count)
    bare, entry = p50_p95(taken["bare"]), p50_p95(taken["entry"])
    print(f"a reading on a sheet of 400     {entry[0]:8.2f}   {entry[0] / bare[0]:.2f} times the bare view, aim: within {AIM_RATIO:g}")

"""A bench whose book says little: opening it, and an entry of it, once what the book leaves open was found."""

from typing import Any

from django.contrib.auth.models import User

from benchmarks.playing import Page, enter, next_entry, put_on
from benchmarks.timing import p50_p95, turn_about_ms
from demo.documents import family_data
from engine.services import add_revision
from tools.real_server import Person

CODE, SERIAL, AIM_RATIO = "brae-open", "BO-0900", 2.0
STEPS = 12  # before it is looked at: the bench shows what was found where it is used


def fill() -> int:
    """Put an engine on the floor of whose drive nobody has counted anything, and count all of it; return how many facts that are."""
    data = family_data("brae-v8")
    data["identity"]["family"] = CODE
    by = User.objects.get(username="oren")
    facts = list(_taken_out(data))
    add_revision(data, by=by, remark="what can be counted is left open")
    put_on(SERIAL, CODE)
    for pointer, value in facts:
        enter(SERIAL, {"kind": "found", "pointer": pointer, "value": f"{value:g}", "how": "counted"})
    for _ in range(STEPS):
        enter(SERIAL, next_entry(SERIAL))
    return len(facts)


def _taken_out(data: dict[str, Any]) -> Any:
    """The counts of the drive and of joints in words, each with the pointer that it is found by."""
    for wheel in data["drive"]["wheels"]:
        if wheel.get("teeth"):
            yield f"/drive/wheels/{wheel['id']}/teeth", wheel["teeth"]
            wheel["teeth"] = None
    for stage in data["drive"]["stages"]:
        for key in ("count", "pitch_mm"):
            if stage.get(key):
                yield f"/drive/stages/{stage['id']}/{key}", stage[key]
                stage[key] = None
    for joint in data["joints"]:
        in_words = all(isinstance(stage, str) for stage in joint.get("stages", ()))
        if in_words and joint.get("fasteners") and not joint.get("bolts"):
            yield f"/joints/{joint['id']}/fasteners", joint["fasteners"]
            joint["fasteners"] = None


def measure(port: int, facts: int, count: int) -> None:
    """Print what opening the bench takes, and an entry there, against a bare signed-in view."""
    builder = Person(port, "della", "hillside-builder")
    page = Page(builder, SERIAL)
    calls = {
        "bare": lambda: builder.call("GET", "/api/session/people"),
        "open": page.look,
        "entry": lambda: page.enter({"kind": "note", "text": "looked at"}),
    }
    taken = turn_about_ms(calls, count // 3)
    bare = p50_p95(taken["bare"])[0]
    for name, said in (("open", f"a bench with {facts} found facts"), ("entry", "an entry there")):
        took, p95 = p50_p95(taken[name])
        print(f"{said:<31} {took:8.2f}   {took / bare:.2f} times the bare view, p95 {p95:.2f}, aim: within {AIM_RATIO:g}")

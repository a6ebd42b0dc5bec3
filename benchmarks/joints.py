"""Joints: a trace analysed against one pass of numpy, a pull judged on a joint of forty, a file of two million rows."""

import copy
import datetime
from functools import partial
from typing import Any

import numpy as np
from django.contrib.auth.models import User

from benchmarks.playing import Page, enter, next_entry, put_on
from benchmarks.timing import p50_p95, times_ms
from demo.documents import family_data
from engine.services import add_revision
from gurvo_core.engine import Joint
from gurvo_core.joints.intake import TraceIntake
from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.judged import judge_joint
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.trace import Trace, analyse, clean
from gurvo_core.reading import read_document
from tools.real_server import Person
from work.models import Engine

POINTS, FORTY, AIM_RATIO = 100_000, 40, 2.0
SERIALS = tuple(f"Q4-040{n}" for n in range(1, 5))


def measure() -> None:
    """Print what a trace, a pull among forty and a long file take."""
    _trace()
    _judging()
    _file()


def fill() -> list[dict[str, Any]]:
    """Put engines on the floor whose mains have forty bolts, ready to be pulled; return the pulls, as one more of them was pulled."""
    data = copy.deepcopy(family_data("quern-4"))
    mains = next(one for one in data["joints"] if one["id"] == "mains")
    mains |= {"fasteners": FORTY, "pattern": {**mains["pattern"], "columns": FORTY // 2}}
    revision = add_revision(data, by=User.objects.get(username="oren"), remark="for the benchmark")
    pulls: list[dict[str, Any]] = []
    for serial in SERIALS:
        put_on(serial, "quern-4")
        Engine.objects.filter(pk=serial).update(revision=revision)
        pulls = []
        while (body := next_entry(serial))["kind"] != "pull" or serial == SERIALS[-1]:
            if pulls and body["kind"] != "pull":
                break
            pulls += [body] if body["kind"] == "pull" else []
            enter(serial, body)
    return pulls


def entries(port: int, pulls: list[dict[str, Any]]) -> None:
    """Print what a pull takes on those joints, against a bare signed-in view."""
    builder = Person(port, "della", "hillside-builder")
    taken: dict[str, list[float]] = {"bare": [], "pull": []}
    for serial in SERIALS[:-1]:
        page = Page(builder, serial)
        for pull in pulls:
            taken["bare"] += times_ms(partial(builder.call, "GET", "/api/session/people"), 1, warm_up=0)
            taken["pull"] += times_ms(partial(page.enter, pull), 1, warm_up=0)
    bare, took = p50_p95(taken["bare"]), p50_p95(taken["pull"])
    print(f"a pull on a joint of forty      {took[0]:8.2f}   {took[0] / bare[0]:.2f} times the bare view, aim: within {AIM_RATIO:g}")


def _trace() -> None:
    chance = np.random.default_rng(1)
    angle = np.linspace(0, 120, POINTS)
    torque = np.maximum(0, (angle - 20) * 0.7) + chance.normal(0, 0.1, POINTS)
    one_pass = p50_p95(times_ms(lambda: float((angle * torque).sum()), 40))[0]
    taken = p50_p95(times_ms(lambda: analyse(Trace(angle, torque)), 40))[0]
    whole = p50_p95(times_ms(lambda: analyse(clean(angle, torque)[0]), 40))[0]
    ratios = taken / one_pass, whole / one_pass
    print(f"analysis of 100,000 readings    {taken:8.2f}   {ratios[0]:.1f} times one numpy pass, aim 5; with cleaning {ratios[1]:.1f}")


def _judging() -> None:
    stages = ({"does": "torque", "torque_nm": 50}, {"does": "angle", "angle_deg": 90})
    pattern = {"kind": "rows", "columns": FORTY // 2}
    joint = PulledJoint(
        document=read_document(family_data("wick-1")), joint=Joint(id="x", name="x", fasteners=FORTY, pattern=pattern, stages=stages)
    )
    at = datetime.datetime.now(datetime.UTC)
    pulls = {item.key: Pulled(seq=n, at=at, by="x", torque_nm=70 + n % 5, angle_deg=90.0) for n, item in enumerate(joint.items)}
    taken = p50_p95(times_ms(lambda: judge_joint(joint, pulls), 100))
    print(f"judging a joint of forty        {taken[0]:8.2f}   p95 {taken[1]:.2f}")


def _file() -> None:
    lines = "\n".join(f"{n * 1e-3:.3f};{50 + n % 7}" for n in range(50_000)) + "\n"

    def read() -> None:
        intake = TraceIntake(delimiter=";", angle=0, torque=1, has_names=False)
        for piece in range(40):
            intake.feed(lines, is_last=piece == 39)

    print(f"a file of two million rows      {times_ms(read, 1, warm_up=0)[0]:8.0f}   read in forty pieces, never held whole")

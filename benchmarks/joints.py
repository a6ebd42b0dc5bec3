"""Joints: a trace analysed against one pass of numpy, a pull judged on a joint of forty, a file of two million rows."""

import datetime

import numpy as np

from benchmarks.timing import p50_p95, times_ms
from demo.documents import family_data
from gurvo_core.engine import Joint
from gurvo_core.joints.intake import TraceIntake
from gurvo_core.joints.job.book import PulledJoint
from gurvo_core.joints.job.judged import judge_joint
from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.trace import Trace, analyse, clean
from gurvo_core.reading import read_document

POINTS, FORTY = 100_000, 40


def measure() -> None:
    """Print what a trace, a pull among forty and a long file take."""
    _trace()
    _judging()
    _file()


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

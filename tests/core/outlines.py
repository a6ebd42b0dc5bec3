"""Outlines of engines drawn at random, as somebody might answer: some of it not known, some of it never asked."""

from hypothesis import strategies as st

from gurvo_core.writer.answers import Answered
from gurvo_core.writer.compose.drive import TENSIONERS
from gurvo_core.writer.shape import shape_of

FIXED = ["key", "dowel", "slots", "taper", "clamped", "phaser"]
STAGES = ["20 + 60 + 90° + 90°", "25 lbf·ft", "hand, 40, back 180, 27 + 60°", "“a little, evenly”", "none"]
MARKS = ["dot to line on the head at 12", "notch", "line at half past 3", "none"]
GROUPS = ["mains", "rods", "head", "caps", "wheel", "tension", "rockers", "front", "damper", "valve"]


@st.composite
def outlines(draw):
    """Answers by question."""
    answers = {}

    def answer(key, what):
        text = draw(st.one_of(st.just("skip"), st.none(), what))
        if text != "skip":
            answers[key] = Answered(text, draw(st.sampled_from([None, "book", "counted", "guess"])))

    layout = draw(st.sampled_from(["inline", "v", "flat"]))
    count = draw(st.integers(1, 6)) * (1 if layout == "inline" else 2)
    answers["layout"], answers["cylinders"] = Answered(layout), Answered(str(count))
    half = [str(n) for n in range(1, count + 1)]
    answer("rows", st.just(f"{'-'.join(half[::2])} / {'-'.join(half[1::2])}")) if layout != "inline" else None
    answer("sides", st.sampled_from(["left", "right"])) if layout != "inline" else None
    answer("name", st.sampled_from(["Found 4", "The old pump's"]))
    answer("fuel", st.sampled_from(["petrol", "diesel", "gas"]))
    answer("way", st.sampled_from(["clockwise from the front", "clockwise from the flywheel"]))
    answer("fires", st.permutations(half).map("-".join))
    answer("begins", st.sampled_from(["bare", "short"]))
    answer("cams", st.sampled_from(["block", "one", "two"]))
    answer("valves", st.sampled_from(["1 + 1", "2 + 2", "2 + 1"]))
    answer("card", st.just("16/52 54/14 at 1.00"))
    answer("position", st.sampled_from(["tdc", "pin", "half", "mark"]))
    answer("known_by", st.lists(st.sampled_from(["marks", "locks", "links", "degreed"]), unique=True, min_size=1).map(", ".join))
    _drives(draw, answer, answers)
    for group in GROUPS:
        answer(f"stages.{group}", st.sampled_from(STAGES))
        answer(f"bolts.{group}", st.sampled_from(["10", "2 x 5 middle outward", "circle of 6 crosswise", "4 in line"]))
    for valve in ("intake", "exhaust"):
        answer(f"lash.{valve}", st.sampled_from(["0.15-0.20 by screw", "by shim, hot", "hydraulic"]))
    answer("sizes", st.sampled_from(["86 x 86, rod 143.5", "86 x 90"]))
    answer("head.intake", st.sampled_from(["34 at 14°, across 17, to piston 4.6", "40"]))
    answer("spring.exhaust", st.just("220 N + 28 N/mm, binds at 12"))
    answer("base", st.just("16.5"))
    answer("friction", st.just("0.08"))
    answer("gap.valves", st.sampled_from(["1.5", "0.8"]))
    answer("new", st.just("10 head bolts, water pump"))
    answer("returns", st.just("8 followers"))
    return answers


def _drives(draw, answer, answers):
    """One drive over all cams, or one for the first and a further one from it, or gears."""
    cams = [cam.name.lower() for cam in shape_of(answers).cams]
    kind = draw(st.sampled_from(["chain", "belt", "gears"]))
    further = kind == "chain" and len(cams) > 1 and draw(st.booleans())
    answers["drives"] = Answered(f"{kind}, further chain" if further else kind)
    over = cams[:1] if further else cams
    if kind == "gears":
        answers["passes.gears"] = Answered("; ".join(["crank, idler", *(f"idler, {cam}" for cam in over)]))
    else:
        extra = draw(st.sampled_from([[], ["tensioner back"], ["idler back"], ["water pump back", "tensioner back"]]))
        answers[f"passes.{kind}"] = Answered(", ".join(["crank", *over, *extra]))
        answer(f"tensioner.{kind}", st.sampled_from([*TENSIONERS, "none"]))
    if further:
        answers["passes.further-chain"] = Answered(", ".join(cams))
        answer("tensioner.further-chain", st.sampled_from([*TENSIONERS, "none"]))
    shape = shape_of(answers)
    for wheel in shape.wheels:
        answer(f"mark.{wheel.id}", st.sampled_from(MARKS))
        answer(f"fixed.{wheel.id}", st.sampled_from(FIXED)) if wheel.kind == "camshaft" else None
    for mesh in (pair for one in shape.drives for pair in one.meshes):
        answer(f"meet.{mesh[0]}.{mesh[1]}", st.sampled_from(["one dot", "two dots at 1", "none"]))
    for shaft, _ in shape.timed:
        answer(f"lock.{shaft}", st.sampled_from(["pin of 8 mm", "plate", "same", "none"]))
    for one in shape.drives:
        names = [wheel.name.lower() for wheel in one.wheels if wheel.kind in ("crank", "camshaft")]
        answer(f"links.{one.id}", st.just(", ".join(names))) if one.kind != "gears" and names else None

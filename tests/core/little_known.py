"""Engines of which nobody has the book, drawn at random: marks, a loop or gears, some tensioner; no lobes and no angles."""

from hypothesis import strategies as st

KINDS = ["hydraulic", "ratchet", "press_and_release", "oil_fed", "eccentric", "spring_then_lock", "manual", None]
UNKNOWN = st.none()


@st.composite
def little_known(draw):
    """Plain data of a sound document with a run of work that is timed by what can be seen."""
    count, cams = draw(st.integers(1, 8)), draw(st.integers(1, 3))
    kind = draw(st.sampled_from(["chain", "belt", "gears"]))
    shafts = [{"id": "crank", "name": "Crank", "kind": "crank"}, *({"id": n, "name": n, "kind": "camshaft"} for n in _cams(cams))]
    teeth = draw(st.integers(18, 24))
    wheels = [{"id": f"{one['id']}-wheel", "shaft": one["id"]} for one in shafts]
    for n, wheel in enumerate(wheels):
        wheel.update(_maybe(draw, "teeth", st.just(2 * teeth if n else teeth)))
    marks = [_mark(draw, wheel["id"], n) for n, wheel in enumerate(wheels)]
    tensioner = draw(st.sampled_from(KINDS)) if kind != "gears" else None
    return {
        "format": "gurvo-engine",
        "version": 3,
        "identity": {"family": "drawn", "name": "Drawn", "layout": "as it stands", "fuel": draw(st.sampled_from(["petrol", "diesel"]))},
        "running_direction": draw(st.sampled_from(["clockwise", "counter-clockwise", None])),
        "banks": [{"id": "row", "name": "Row", "axis_deg": 0, "cylinders": list(range(1, count + 1)), "cranktrain": {}}],
        "reference_cylinder": 1,
        "camshafts": [{"id": name, "name": name, "followers": [], "lobes": []} for name in _cams(cams)],
        "drive": {
            "shafts": shafts,
            "wheels": wheels,
            "stages": _stages(kind, wheels, tensioner),
            "pointers": [{"id": "case", "name": "Line on the case"}],
            "marks": marks,
        },
        "timing_positions": [{"id": "tdc", "name": "TDC of cylinder 1", "kind": "tdc", "cylinder": 1}],
        "joints": [_joint(draw)],
        "kit": [{"id": "gasket", "name": "gasket", "one_time": draw(st.booleans())}],
        "things": [
            {
                "id": "tie",
                "name": "Tie",
                "kind": "tie",
                "stops_turning": draw(st.booleans()),
                **({"places": ["left", "right"]} if draw(st.booleans()) else {}),
            }
        ],
        "cautions": ["The maker's manual and local rules come first."],
        "stages": [{"id": "all", "title": "All of it", "steps": _steps(draw, kind)}],
    }


def _cams(count):
    return [f"cam-{n}" for n in range(count)]


def _maybe(draw, key, what):
    value = draw(st.one_of(UNKNOWN, what))
    return {} if value is None else {key: value}


def _mark(draw, wheel, n):
    mark = {"id": f"mark-{n}", "name": f"Mark {n}", "wheel": wheel, "position": "tdc", "meets": "case", "decides": True}
    return {**mark, **_maybe(draw, "clock_deg", st.sampled_from([0, 90, 270]))}


def _stages(kind, wheels, tensioner):
    if kind == "gears":
        meshes = [{"driver": wheels[0]["id"], "driven": wheel["id"]} for wheel in wheels[1:]]
        return [{"kind": "gears", "id": "gears", "name": "Gears", "meshes": meshes}]
    path = [{"wheel": wheel["id"]} for wheel in wheels]
    return [{"kind": kind, "id": "loop", "name": "Loop", "path": path, "tensioner": {"kind": tensioner, "name": "Tensioner"}}]


def _joint(draw):
    stages = draw(st.sampled_from([["40 N·m"], ["20 N·m", "a quarter turn"], ["hand tight, then a little"]]))
    return {"id": "bolts", "name": "Cover bolts", "stages": stages, **_maybe(draw, "fasteners", st.integers(1, 6))}


def _steps(draw, kind):
    lays = ["gears"] if kind == "gears" else ["loop"]
    steps = [
        {"id": "parts", "does": "ready", "says": "Parts here", "parts": ["gasket"]},
        *([{"id": "plugs", "does": "plugs_out", "says": "Plugs out"}] if draw(st.booleans()) else []),
        {"id": "park", "does": "park", "says": "Crank to its mark", "position": "tdc"},
        {"id": "tie-on", "does": "put_on", "says": "Tie on", "thing": "tie", "place": None},
        *({"id": f"lay-{loop}", "does": "lay", "says": f"{loop} on", "loop": loop, "needs": [{"parked": "tdc"}]} for loop in lays),
    ]
    before = steps[-1]["id"]
    if kind != "gears":
        steps.append({"id": "arm", "does": "tension", "says": "Let it go", "loop": "loop", "how_far": "armed", "needs": [{"done": before}]})
        before = "arm"
    stops = [{"turns": n + 1} for n in range(draw(st.integers(1, 2)))]
    steps += [
        {"id": "tie-off", "does": "take_off", "says": "Tie off", "thing": "tie", "needs": [{"done": before}]},
        {"id": "turn", "does": "turn_over", "says": "Turn it over", "position": "tdc", "stops": stops, "needs": [{"done": "tie-off"}]},
    ]
    if kind != "gears":
        prove = {"id": "prove", "does": "tension", "says": "Tight?", "loop": "loop", "how_far": "proven", "needs": [{"done": "turn"}]}
        steps.append(prove)
    steps += [
        {
            "id": "cover",
            "does": "fit",
            "says": "Cover on",
            "joint": "bolts",
            "parts": ["gasket"],
            "covers": True,
            "needs": [{"done": "turn"}],
        },
        {"id": "cover-tight", "does": "tighten", "says": "Cover bolts", "joint": "bolts", "needs": [{"done": "cover"}]},
        {"id": "start", "does": "first_start", "says": "First start", "needs": [{"done": "cover-tight"}]},
    ]
    return [{key: value for key, value in step.items() if value is not None} for step in steps]

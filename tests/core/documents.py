"""Sound engine documents drawn at random, for properties: any number of cylinders, inline or V, any firing order, chain or belt."""

import math

from hypothesis import strategies as st

from gurvo_core.drive import loop_path
from gurvo_core.engine.reading import parse_document
from gurvo_core.timing import profile_event_deg

WORDS = st.text("abcäßñ -·°'\"/", min_size=1, max_size=20).filter(lambda text: text.strip() == text)


def set_in(*path, to):
    """A change: put a value at a path."""

    def change(data):
        for key in path[:-1]:
            data = data[key]
        data[path[-1]] = to

    return change


@st.composite
def documents(draw):
    """Plain data of a sound document."""
    count = draw(st.integers(1, 8))
    order = [1, *draw(st.permutations(range(2, count + 1)))]
    half = draw(st.sampled_from([0.0, 30.0, 45.0, 90.0])) if count > 1 else 0.0
    rows = {-half: order[::2], half: order[1::2]} if half else {0.0: order}
    way = draw(st.sampled_from([1, -1]))
    axis = {cylinder: deg for deg, own in rows.items() for cylinder in own}
    pin = {n: (way * (axis[n] - axis[1]) - 720 / count * order.index(n)) % 360 for n in order}
    throw = draw(st.floats(20, 90))
    train = {"bore_mm": draw(st.floats(40, 160)), "stroke_mm": 2 * throw, "rod_mm": throw * draw(st.floats(2.8, 5))}
    sides = [{"law": draw(st.sampled_from(["3-4-5", "4-5-6-7"])), "cam_deg": draw(st.floats(65, 85))} for _ in range(2)]
    sorts = ("intake", "exhaust")
    lobes = [{"cylinder": n, "valve": v, "profile": "lobe", "nose_deg": draw(st.floats(100, 118))} for n in order for v in sorts]
    data = {
        "format": "gurvo-engine",
        "version": 2,
        "identity": {
            "family": "drawn",
            "name": draw(WORDS),
            "layout": draw(WORDS),
            "fuel": draw(st.sampled_from(["petrol", "diesel", "gas"])),
        },
        "running_direction": "clockwise" if way > 0 else "counter-clockwise",
        "banks": [
            {"id": f"b{n}", "name": f"B{n}", "axis_deg": a, "cylinders": c, "cranktrain": train} for n, (a, c) in enumerate(rows.items())
        ],
        "throws": [{"cylinder": n, "throw": n, "pin_deg": 0.0 if n == 1 else pin[n] % 360} for n in order],
        "firing_order": order,
        "reference_cylinder": draw(st.sampled_from(order)),
        "camshafts": [
            {
                "id": "cam",
                "name": draw(WORDS),
                "followers": [
                    {
                        "valve": v,
                        "kind": "rocker",
                        "clock_deg": round(draw(st.floats(0, 359)), 6),
                        "ratio": draw(st.floats(1, 1.8)),
                    }
                    for v in sorts
                ],
                "lobes": lobes,
            }
        ],
        "profiles": [
            {"kind": "polynomial", "id": "lobe", "lobe_lift_mm": draw(st.floats(4, 10)), "opening": sides[0], "closing": sides[1]}
        ],
        "drive": _drive(draw),
        "timing_positions": [{"id": "tdc", "name": "TDC", "kind": "tdc", "cylinder": draw(st.sampled_from(order))}],
    }
    return _with_card(_with_count(data))


def _drive(draw):
    teeth, away = draw(st.integers(14, 30)), draw(st.floats(160, 400))
    towards = math.radians(round(draw(st.floats(-60, 60)), 6))
    return {
        "shafts": [
            {"id": "crank", "name": "Crank", "kind": "crank"},
            {"id": "cam", "name": "Cam", "kind": "camshaft", "x_mm": round(away * math.sin(towards), 4), "y_mm": away * math.cos(towards)},
        ],
        "wheels": [{"id": "small", "shaft": "crank", "teeth": teeth}, {"id": "large", "shaft": "cam", "teeth": 2 * teeth}],
        "stages": [
            {
                "kind": draw(st.sampled_from(["chain", "belt"])),
                "id": "loop",
                "name": "Loop",
                "pitch_mm": 8,
                "count": 100,
                "path": [{"wheel": "small"}, {"wheel": "large"}],
            }
        ],
    }


def _with_count(data):
    stub = {"camshaft": "cam", "valve": "intake", "lift_mm": 1, "opens_deg": 0, "closes_deg": 0, "tolerance_deg": 2}
    document = parse_document({**data, "cam_card": [stub]})
    data["drive"]["stages"][0]["count"] = math.ceil(loop_path(document, document.drive.stages[0]).pitches)
    return {**data, "cam_card": [stub]}


def _with_card(data):
    document = parse_document(data)
    cam = document.camshafts[0]
    lobe = document.lobe("cam", document.reference_cylinder, "intake")
    opens, closes = (profile_event_deg(document.profiles[0], cam, lobe, 1.0, flank) for flank in ("opening", "closing"))
    data["cam_card"][0] |= {"opens_deg": round(360 - opens, 1), "closes_deg": round(closes - 540, 1)}
    return data

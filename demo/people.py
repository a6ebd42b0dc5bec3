"""Made-up people and gauges of the demo."""

from datetime import date
from typing import Any

PEOPLE = (
    {"username": "oren", "name": "Oren Fald", "role": "lead", "password": "hillside-lead", "pin": "4071"},
    {"username": "della", "name": "Della Marsk", "role": "builder", "password": "hillside-builder", "pin": "2846"},
    {"username": "tibb", "name": "Tibb Hask", "role": "viewer", "password": "hillside-viewer", "pin": "9153"},
)


def _wrench(code: str, name: str, **known: Any) -> dict[str, Any]:
    return {"code": code, "name": name, "kind": "wrench", "calibrated": date(2026, 4, 20), "due": date(2027, 4, 20), **known}


LENGTHS: dict[str, Any] = {"resolution": 0.001, "expanded_uncertainty": 0.003, "due": date(2027, 5, 1)}

GAUGES = (
    {"code": "W1", "name": "degree wheel, large", "kind": "wheel", "resolution": 0.5, "expanded_uncertainty": 0.2, "due": date(2027, 8, 1)},
    {"code": "W2", "name": "degree wheel, small", "kind": "wheel", "resolution": 1.0, "expanded_uncertainty": 0.6, "due": date(2027, 8, 1)},
    {"code": "D1", "name": "dial, long stem", "kind": "dial", "resolution": 0.01, "expanded_uncertainty": 0.01, "due": date(2026, 10, 1)},
    {"code": "D2", "name": "dial, short stem", "kind": "dial", "resolution": 0.01, "expanded_uncertainty": 0.008, "due": date(2027, 5, 1)},
    _wrench("T1", "small click wrench", resolution=0.1, expanded_uncertainty=0.4, least=4, most=25, certificate="HW-311"),
    _wrench("T2", "click wrench", resolution=0.5, expanded_uncertainty=2.0, least=10, most=100, certificate="HW-312"),
    _wrench("T3", "long click wrench", resolution=1.0, expanded_uncertainty=6.0, least=40, most=300, certificate="HW-313"),
    _wrench(
        "E1",
        "electronic wrench, torque and angle",
        resolution=0.1,
        expanded_uncertainty=0.8,
        least=5,
        most=135,
        certificate="HW-340",
        address="standin:wrench",
    ),
    {**_wrench("B1", "torque-limiting bar", resolution=1.0, expanded_uncertainty=12.0, least=60, most=160), "kind": "bar"},
    {**_wrench("T4", "beam wrench", resolution=2.0, expanded_uncertainty=5.0, least=10, most=140), "due": date(2026, 3, 3)},
    {"code": "A1", "name": "angle gauge", "kind": "angle", "resolution": 1.0, "expanded_uncertainty": 1.5, "most": 360},
    {
        "code": "D3",
        "name": "dial with a plug",
        "kind": "dial",
        "resolution": 0.001,
        "expanded_uncertainty": 0.004,
        "most": 25,
        "due": date(2027, 5, 1),
        "address": "standin:dial",
    },
    {
        "code": "N1",
        "name": "crank encoder",
        "kind": "encoder",
        "resolution": 0.1,
        "expanded_uncertainty": 0.1,
        "address": "standin:encoder",
    },
    {
        "code": "P1",
        "name": "bore gauge with a plug",
        "kind": "bore",
        "resolution": 0.001,
        "expanded_uncertainty": 0.003,
        "least": 50,
        "most": 100,
        "due": date(2027, 5, 1),
        "address": "standin:bore",
    },
    {**LENGTHS, "code": "P2", "name": "bore gauge, small", "kind": "bore", "expanded_uncertainty": 0.003, "least": 35, "most": 60},
    {**LENGTHS, "code": "M1", "name": "micrometer", "kind": "micrometer", "expanded_uncertainty": 0.002, "least": 50, "most": 75},
    {**LENGTHS, "code": "M2", "name": "micrometer, hundredths", "kind": "micrometer", "resolution": 0.01, "least": 50, "most": 75},
    {**LENGTHS, "code": "M3", "name": "micrometer, large", "kind": "micrometer", "least": 75, "most": 100},
    {**LENGTHS, "code": "M4", "name": "micrometer, small", "kind": "micrometer", "expanded_uncertainty": 0.002, "least": 25, "most": 50},
    {**LENGTHS, "code": "S1", "name": "plastic strip, by its width", "kind": "strip", "resolution": 0.013, "expanded_uncertainty": 0.01},
    {"code": "C1", "name": "caliper", "kind": "caliper", "resolution": 0.01, "expanded_uncertainty": 0.02, "least": 0, "most": 150},
    {"code": "F1", "name": "feelers", "kind": "feeler", "resolution": 0.01, "expanded_uncertainty": 0.005, "least": 0.03, "most": 1.0},
)

# what the shelf holds: part, size, pieces, lot
STOCK = (
    *(("Quern main shells", size, count, "QM-26") for size, count in (("red", 4), ("green", 6), ("blue", 10), ("yellow", 6))),
    *(("Corrie main shells", size, count, "CM-14") for size, count in (("A", 4), ("B", 12), ("C", 26), ("D", 12), ("E", 6))),
    *(("Bucket shims 31", f"{hundredths / 100:.2f}", 2, "BS-07") for hundredths in range(220, 285, 10)),
)

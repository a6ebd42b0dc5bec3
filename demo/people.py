"""Made-up people and gauges of the demo."""

from datetime import date

PEOPLE = (
    {"username": "oren", "name": "Oren Fald", "role": "lead", "password": "hillside-lead", "pin": "4071"},
    {"username": "della", "name": "Della Marsk", "role": "builder", "password": "hillside-builder", "pin": "2846"},
    {"username": "tibb", "name": "Tibb Hask", "role": "viewer", "password": "hillside-viewer", "pin": "9153"},
)

GAUGES = (
    {"code": "W1", "name": "degree wheel, large", "kind": "wheel", "resolution": 0.5, "expanded_uncertainty": 0.2, "due": date(2027, 8, 1)},
    {"code": "W2", "name": "degree wheel, small", "kind": "wheel", "resolution": 1.0, "expanded_uncertainty": 0.6, "due": date(2027, 8, 1)},
    {"code": "D1", "name": "dial, long stem", "kind": "dial", "resolution": 0.01, "expanded_uncertainty": 0.01, "due": date(2026, 10, 1)},
    {"code": "D2", "name": "dial, short stem", "kind": "dial", "resolution": 0.01, "expanded_uncertainty": 0.008, "due": date(2027, 5, 1)},
)

"""What an engine is: its name, rows, camshafts, where the crank is put, the card, and where figures are from."""

__all__ = ["POSITIONS", "engine_parts", "known_by", "position_of"]

import re
from typing import Any

from gurvo_core.writer.answers import Answers, said, slug
from gurvo_core.writer.compose.valves import rubbing_of
from gurvo_core.writer.shape import BankShape, CamShape, Shape
from gurvo_core.writer.shorthand.card import Card, read_card
from gurvo_core.writer.shorthand.order import read_numbers
from gurvo_core.writer.shorthand.sizes import Sizes, read_sizes

Parts = dict[str, Any]
LAYOUTS = {"inline": "inline", "v": "V", "flat": "flat"}
CAMS_AT = {"block": "cam in the block, pushrods", "one": "one cam above", "two": "two cams above"}
# by the answer: id, name and kind of the engine's timing position
POSITIONS = {
    "tdc": ("tdc", "TDC of cylinder {first}", "tdc"),
    "pin": ("pin", "where the crank's pin drops in", "offset"),
    "half": ("half", "all pistons half-way", "mid_stroke"),
    "mark": ("mark", "where the crank's mark meets", "offset"),
}
RUNS = {"clockwise": "clockwise", "counter-clockwise": "counter-clockwise"}
OTHER_WAY = {"clockwise": "counter-clockwise", "counter-clockwise": "clockwise"}


def known_by(answers: Answers) -> frozenset[str]:
    """By what it is known to stand right: marks, locks, links, degreed."""
    return said(answers, "known_by", lambda text: frozenset(re.split(r",\s*", text))) or frozenset()


def position_of(answers: Answers) -> str:
    """Id of the timing position."""
    return _where(answers)[0]


def _where(answers: Answers) -> tuple[str, str, str]:
    return POSITIONS.get(said(answers, "position", str) or "", POSITIONS["mark"])


def engine_parts(answers: Answers, shape: Shape) -> Parts:
    """Everything that is told before the drive."""
    fires, first = said(answers, "fires", read_numbers), (shape.numbers or (1,))[0]
    parts: Parts = {
        "format": "gurvo-engine",
        "version": 3,
        "identity": _identity(answers, shape),
        "running_direction": _running(answers),
        "banks": [_bank(bank, said(answers, "sizes", read_sizes)) for bank in shape.banks],
        "reference_cylinder": first,
        "camshafts": [_cam(cam, shape) | rubbing_of(answers) for cam in shape.cams],
        "timing_positions": [_position(answers, first)],
        "cautions": ["The maker's manual and local rules come first."],
    }
    if fires and sorted(fires) == list(shape.numbers):
        begin = fires.index(first)  # the same order, begun where angles count from
        parts["firing_order"] = [*fires[begin:], *fires[:begin]]
    if len(shape.banks) > 1 and "sides" in answers:  # said not to be known, it is asked at the bench
        parts["sides"] = {"right_bank": said(answers, "sides", str)}
    card = said(answers, "card", read_card)
    if card:
        lines = [line for cam in shape.cams for line in _card(card, cam, shape, first)]
        # on another cylinder than the first it can only be measured once the firing order is known
        known = [line for line in lines if "cylinder" not in line or "firing_order" in parts]
        if known:
            parts["cam_card"] = known
    return parts


def _identity(answers: Answers, shape: Shape) -> Parts:
    name = said(answers, "name", str.strip) or "Not named yet"
    count = len(shape.numbers)
    layout = [f"{LAYOUTS[shape.layout]}{f' {count}' * bool(count)}" if shape.layout else "", CAMS_AT.get(shape.cams_at or "", "")]
    layout += [drive.name.lower() for drive in shape.drives]
    code = said(answers, "code", str) or slug(name)
    found = {"family": code, "name": name, "layout": ", ".join(filter(None, layout))[:120] or "as it stands"}
    found["fuel"] = said(answers, "fuel", str) or "petrol"
    variant = said(answers, "variant", str.strip)
    return {**found, "variant": variant} if variant else found


def _running(answers: Answers) -> str | None:
    """Seen from the front; whoever stands at the flywheel sees it the other way."""
    way = said(answers, "way", str)
    if way is None:
        return None
    seen, _, end = way.partition(" from the ")
    return OTHER_WAY.get(seen) if end == "flywheel" else RUNS.get(seen)


def _bank(bank: BankShape, sizes: Sizes | None) -> Parts:
    train = {key: value for key, value in sizes._asdict().items() if value is not None} if sizes else {}
    return {"id": bank.id, "name": bank.name, "axis_deg": bank.axis_deg, "cylinders": list(bank.cylinders), "cranktrain": train}


def _cam(cam: CamShape, shape: Shape) -> Parts:
    found: Parts = {"id": cam.id, "name": cam.name}
    if cam.bank:
        found["bank"] = cam.bank
    kind = {"kind": "pushrod"} if shape.cams_at == "block" else {}
    found["followers"] = [{"valve": valve, **kind} for valve in cam.valves] if shape.cams_at else []
    found["lobes"] = _lobes(cam, shape) if shape.cams_at and shape.valves else []
    return found


def _lobes(cam: CamShape, shape: Shape) -> list[Parts]:
    numbers = [number for bank in shape.banks if cam.bank in (None, bank.id) for number in bank.cylinders]
    of = {"intake": shape.valves[0] if shape.valves else 1, "exhaust": shape.valves[1] if shape.valves else 1}
    return [
        {"cylinder": number, "valve": valve, **({"place": f"{n + 1}"} if of[valve] > 1 else {})}
        for number in sorted(numbers)
        for valve in cam.valves
        for n in range(of[valve])
    ]


def _position(answers: Answers, first: int) -> Parts:
    ident, name, kind = _where(answers)
    at = {"cylinder": first} if kind == "tdc" else {}
    return {"id": ident, "name": name.format(first=first), "kind": kind, **at}


def _card(card: Card, cam: CamShape, shape: Shape, first: int) -> list[Parts]:
    own = next((bank.cylinders for bank in shape.banks if bank.id == cam.bank), ())
    whose = {"cylinder": own[0]} if own and first not in own else {}
    pairs = {"intake": card.intake, "exhaust": card.exhaust}
    return [
        {"camshaft": cam.id, "valve": valve, **whose, "lift_mm": card.lift_mm, "opens_deg": pair[0], "closes_deg": pair[1]}
        for valve in cam.valves
        if (pair := pairs[valve]) is not None
    ]

"""From above: block face with its pistons by number, head with bolts, valves, followers, cams and their caps, rockers, plugs, cover.

One panel a bank, the first on top; front is to the left. What is in hides what lies below it.
"""

__all__ = ["above_view"]

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from gurvo_core.engine import Camshaft, EngineDocument, Lobe, Valve
from gurvo_core.motion.clock import is_told, lobe_clock_deg
from gurvo_core.scene.asked import noses_id, part_id
from gurvo_core.scene.names import PartKind
from gurvo_core.scene.shapes import ScenePart, SceneView, Shape, box, line, ring, words
from gurvo_core.scene.sizes import Cylinder, Sizes

TALL = 2.1  # of the bore: how tall a bank's panel is
GAP = 0.5  # of the bore, between two panels
VALVE_UP: dict[Valve, float] = {"intake": -0.2, "exhaust": 0.2}  # of the bore, across the head; which side is which is not known
USUAL_VALVES: tuple[Valve, ...] = ("intake", "exhaust")
MOST_IN_A_ROW = 20


def above_view(document: EngineDocument, sizes: Sizes, crank_deg: float = 0.0) -> SceneView:
    """Return what is seen from above with the crank at an angle [deg]."""
    bore = sizes.bore
    step = (TALL + GAP) * bore
    return SceneView(
        looking="above",
        left=-0.95 * bore,
        top=-(TALL / 2 + 0.35) * bore,
        width=sizes.length + 1.2 * bore,
        height=step * len(document.banks) + 0.2 * bore,
        parts=[
            part
            for n in range(len(document.banks))
            for part in _bank(document, _panel(document, sizes, n, n * step), crank_deg, document.banks[n].axis_deg or 0.0)
        ],
        sketched=[*sizes.sketched, "where valves and bolts stand"],
    )


@dataclass(frozen=True, kw_only=True)
class _Panel:
    """One bank from above, and where its panel lies [mm]."""

    bank: str
    name: str  # of the bank, where there are several
    bore: float
    left: float
    right: float
    y: float
    cylinders: Sequence[Cylinder]
    cams: Sequence[Camshaft]
    in_block: bool  # the cam lies beside the bores and works through pushrods
    bolts: int  # of the head, in one of its two rows

    @property
    def middle(self) -> float:
        """Half-way along."""
        return (self.left + self.right) / 2

    @property
    def length(self) -> float:
        """From its first cylinder's edge to its last one's."""
        return self.right - self.left

    def part(self, kind: PartKind, name: str, shapes: Sequence[Shape], under: PartKind | None = None) -> ScenePart:
        """A part of this bank; ``under`` names what hides it."""
        hidden = [part_id(under, self.bank)] if under else []
        return ScenePart(id=part_id(kind, self.bank), name=name, where=self.name, shapes=list(shapes), hidden_by=hidden)


def _panel(document: EngineDocument, sizes: Sizes, n: int, y: float) -> _Panel:
    bank = document.banks[n]
    own = [one for one in sizes.cylinders if one.bank == n]
    half = sizes.pitch / 2
    left = min((one.x_mm for one in own), default=half) - half
    right = max((one.x_mm for one in own), default=sizes.length - half) + half
    cams = [cam for cam in document.camshafts if cam.bank in (None, bank.id)] or list(document.camshafts)
    return _Panel(
        bank=bank.id,
        name=bank.name if len(document.banks) > 1 else "",
        bore=sizes.bore,
        left=left,
        right=right,
        y=y,
        cylinders=own,
        cams=cams,
        in_block=any(follower.kind == "pushrod" for cam in cams for follower in cam.followers),
        bolts=_bolts_in_a_row(document, bank.id, len(own)),
    )


def _bolts_in_a_row(document: EngineDocument, bank: str, cylinders: int) -> int:
    """How many of the head's bolts stand in one of its two rows: as its joint has them; else one more than there are cylinders."""
    joint = next((one for one in document.joints if one.id in ("head", f"head-{bank}")), None)
    if joint is None:
        return cylinders + 1
    columns = joint.pattern.columns if joint.pattern else None
    count = joint.fasteners or len(joint.bolts)
    return min(MOST_IN_A_ROW, columns or count // 2 or cylinders + 1)


def _bank(document: EngineDocument, at: _Panel, crank_deg: float, axis_deg: float) -> Iterator[ScenePart]:
    yield from _parts(at)
    noses = list(_noses(document, at, crank_deg, axis_deg))
    if noses:
        hidden = [] if at.in_block else [part_id("cam covers", at.bank)]
        yield ScenePart(id=noses_id(at.bank), name="Noses of the lobes", where=at.name, shapes=noses, hidden_by=hidden)


def _noses(document: EngineDocument, at: _Panel, crank_deg: float, axis_deg: float) -> Iterator[Shape]:
    """To which side each lobe points where the drive is laid by its document: only lobes of which that is known."""
    for n, cam in enumerate(at.cams):
        for one in at.cylinders:
            lobes = _lobes([cam], one)
            for k, lobe in enumerate(lobes):
                if is_told(document, cam, lobe):
                    across = math.sin(math.radians(float(lobe_clock_deg(document, cam, lobe, crank_deg, None)) - axis_deg))
                    x, y = _lobe_x(at, one, k, len(lobes)), _cam_y(at, n) + 0.15 * at.bore * across
                    yield box(x, y, 0.1 * at.bore, 0.16 * at.bore)


def _lobe_x(at: _Panel, one: Cylinder, k: int, count: int) -> float:
    return one.x_mm + (k - (count - 1) / 2) * 0.34 * at.bore


def _parts(at: _Panel) -> Iterator[ScenePart]:
    bore, y, valves = at.bore, at.y, list(_valves(at))
    face = box(at.middle, y, at.length, 1.7 * bore, faint=True)
    yield ScenePart(id="block", name="Block face", shapes=[face, words(at.left - 0.5 * bore, y, "front"), *_numbers(at)])
    yield ScenePart(id="bores", name="Bores", shapes=[ring(one.x_mm, y, bore, faint=True) for one in at.cylinders])
    crowns = [ring(one.x_mm, y, 0.94 * bore) for one in at.cylinders]
    hidden = [part_id("heads", at.bank)]
    yield ScenePart(id="pistons", name="Pistons", shapes=crowns, hidden_by=hidden)
    yield at.part("heads", "Cylinder head", [box(at.middle, y, at.length, 1.62 * bore), *_bolts(at)])
    rings = [ring(x, up, 0.34 * bore) for x, up in valves]
    yield ScenePart(id="valves", name="Valves", shapes=rings, hidden_by=[part_id("cam covers", at.bank)])
    below = [(x, y + 0.68 * bore) for x, _ in valves] if at.in_block else valves
    yield at.part("followers", "Followers", [ring(x, up, 0.2 * bore) for x, up in below], "cam covers")
    yield at.part("rockers", "Rockers and pushrods" if at.in_block else "Rockers", list(_rockers(at, valves)), "cam covers")
    yield at.part("cams", "Camshafts" if len(at.cams) > 1 else "Camshaft", list(_cams(at)), None if at.in_block else "cam covers")
    if not at.in_block:
        yield at.part("cam caps", "Cam caps", list(_caps(at)), "cam covers")
    plugs = [ring(one.x_mm, y - (0.55 * bore if at.in_block else 0), 0.15 * bore) for one in at.cylinders]
    yield at.part("plugs", "Plugs", plugs)
    yield at.part("cam covers", "Cover of the head", list(_cover(at)))


def _cover(at: _Panel) -> Iterator[Shape]:
    """A cover has a rib along each edge, and a cap where oil goes in."""
    bore, half = at.bore, at.length / 2 - 0.2 * at.bore
    yield box(at.middle, at.y, at.length - 0.2 * bore, 1.3 * bore)
    yield from (line(at.middle - half, at.y + side * bore, at.middle + half, at.y + side * bore) for side in (-0.5, 0.5))
    yield ring(at.middle + half - 0.35 * bore, at.y, 0.42 * bore)
    yield ring(at.middle + half - 0.35 * bore, at.y, 0.22 * bore)


def _numbers(at: _Panel) -> Iterator[Shape]:
    for one in at.cylinders:
        yield words(one.x_mm, at.y - 1.02 * at.bore, str(one.number))


def _bolts(at: _Panel) -> Iterator[Shape]:
    inset = 0.09 * at.bore
    for n in range(at.bolts):
        x = at.left + inset + (at.length - 2 * inset) * n / max(1, at.bolts - 1)
        yield from (ring(x, at.y + side * at.bore, 0.12 * at.bore) for side in (-0.7, 0.7))


def _lobes(cams: Sequence[Camshaft], one: Cylinder) -> list[Lobe]:
    return [lobe for cam in cams for lobe in cam.lobes if lobe.cylinder == one.number]


def _valves(at: _Panel) -> Iterator[tuple[float, float]]:
    """Where each valve is drawn: of each cylinder those whose lobes are listed, else one of each sort."""
    for one in at.cylinders:
        sorts = [lobe.valve for lobe in _lobes(at.cams, one)] or list(USUAL_VALVES)
        if len(sorts) == len(set(sorts)) and len(at.cams) == 1:  # one of each under one cam: side by side along the engine
            yield from ((one.x_mm + (-0.24 if sort == "intake" else 0.24) * at.bore, at.y) for sort in sorts)
            continue
        for sort in dict.fromkeys(sorts):
            count = sorts.count(sort)
            for k in range(count):
                yield one.x_mm + (k - (count - 1) / 2) * 0.4 * at.bore, at.y + VALVE_UP[sort] * at.bore


def _rockers(at: _Panel, valves: Sequence[tuple[float, float]]) -> Iterator[Shape]:
    """Arms over the valves; with pushrods on a shaft along the head."""
    if at.in_block:
        yield line(at.left, at.y + 0.18 * at.bore, at.right, at.y + 0.18 * at.bore)
        yield from (line(x, up, x, at.y + 0.5 * at.bore) for x, up in valves)
    else:
        yield from (line(x, up, x, at.y) for x, up in valves)


def _cam_y(at: _Panel, n: int) -> float:
    """Where a cam is drawn: beside the bores, or over the head, two of them either side of its middle."""
    return at.y + (0.92 if at.in_block else (n - (len(at.cams) - 1) / 2) * 0.62) * at.bore


def _cams(at: _Panel) -> Iterator[Shape]:
    usual = 2 if len(at.cams) == 1 else 1
    for n, cam in enumerate(at.cams):
        y = _cam_y(at, n)
        yield box(at.middle, y, at.length - 0.1 * at.bore, 0.09 * at.bore)
        for one in at.cylinders:
            count = len(_lobes([cam], one)) or usual
            yield from (box(_lobe_x(at, one, k, count), y, 0.14 * at.bore, 0.26 * at.bore) for k in range(count))


def _caps(at: _Panel) -> Iterator[Shape]:
    edges = [at.left + 0.1 * at.bore, *(one.x_mm + 0.62 * at.bore for one in at.cylinders)]
    for n in range(len(at.cams)):
        for k, x in enumerate(edges, 1):
            yield box(min(x, at.right - 0.1 * at.bore), _cam_y(at, n), 0.22 * at.bore, 0.4 * at.bore, text=str(k))

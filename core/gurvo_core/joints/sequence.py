"""All pulls of a joint, in order: where its fasteners stand, what each stage asks of each, how often it is gone round.

Places in mm. A fastener that a pattern places is called by its place in the order: bolt 3 is the third that is pulled.
"""

__all__ = ["ALL", "Figures", "Item", "Spot", "bolt_facts", "draw_passes", "figures_of", "items_of", "loaded_cylinders", "spots_of"]

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import groupby

from gurvo_core.engine import EngineDocument, Joint, JointStage
from gurvo_core.engine.joint import OtherFigure
from gurvo_core.errors import FigureError
from gurvo_core.joints.meaning import BoltFacts, generic_nm
from gurvo_core.joints.order import Rule, order_of
from gurvo_core.joints.preload import seat_of
from gurvo_core.joints.strength import CLASSES
from gurvo_core.joints.thread import read_thread
from gurvo_core.motion.frames import frames_at

ALL = "all"  # in the place of a fastener: what is done to all of them at once
PRESSES_MM = 0.3  # of lift: less does not hold a cap up
DRAW_PASSES = 6  # where nobody knows how far a joint stands off
_RULES: dict[str, Rule] = {"rows": "middle_outward", "line": "middle_outward", "pairs": "opposing", "circle": "crosswise"}


@dataclass(frozen=True, kw_only=True)
class Spot:
    """One fastener and where it stands [mm]."""

    id: str
    x_mm: float
    y_mm: float
    cylinder: int | None = None


@dataclass(frozen=True, kw_only=True)
class Item:
    """One pull: of a fastener, or of all of them where nothing is told apart."""

    stage: int  # counted from 1
    turn: int  # which time round, from 1
    fastener: str

    @cached_property
    def key(self) -> str:
        """Tells it from every other of its joint."""
        return f"{self.stage}.{self.turn}.{self.fastener}"


@dataclass(frozen=True, kw_only=True)
class Figures:
    """What a stage asks of a fastener [N·m, deg]; None where nothing is asked."""

    does: str
    torque_nm: float | None = None
    least_nm: float | None = None
    most_nm: float | None = None
    angle_deg: float | None = None
    least_deg: float | None = None
    most_deg: float | None = None
    from_nm: float | None = None  # of an angle: the torque that it is turned from
    is_generic: bool = False


def spots_of(joint: Joint) -> tuple[Spot, ...]:
    """Return the fasteners of a joint in the order in which they are pulled. Returned: every one once [mm]."""
    if joint.bolts:
        named = {bolt.id: Spot(id=bolt.id, x_mm=bolt.x_mm, y_mm=bolt.y_mm, cylinder=bolt.cylinder) for bolt in joint.bolts}
        listed = list(named.values())
        rule = joint.rule or "middle_outward"
        if joint.begins in named:
            listed.sort(key=lambda spot: spot.id != joint.begins)
        order = joint.order or [listed[n].id for n in order_of([(spot.x_mm, spot.y_mm) for spot in listed], rule)]
        return tuple(named[name] for name in order)
    places = list(_places(joint))
    rule = joint.rule or _RULES[joint.pattern.kind if joint.pattern else "line"]
    spots = [Spot(id=str(at), x_mm=places[n][0], y_mm=places[n][1]) for at, n in enumerate(order_of(places, rule), 1)]
    return tuple(next(spot for spot in spots if spot.id == name) for name in joint.order) if joint.order else tuple(spots)


def _places(joint: Joint) -> Iterator[tuple[float, float]]:
    pattern, count = joint.pattern, joint.fasteners or 1
    if pattern is None or pattern.kind == "line" or count == 1:
        along = pattern.along_mm if pattern else 60.0
        yield from (((n - (count - 1) / 2) * along, 0.0) for n in range(count))
    elif pattern.kind == "circle":
        radius = pattern.across_mm / 2
        for n in range(count):
            turned = math.tau * n / count
            yield round(radius * math.sin(turned), 6), round(-radius * math.cos(turned), 6)
    else:
        rows = 2 if pattern.kind == "pairs" else pattern.rows
        columns = pattern.columns or math.ceil(count / rows)
        for n in range(count):
            row, column = divmod(n, columns)
            yield (column - (columns - 1) / 2) * pattern.along_mm, (row - (rows - 1) / 2) * pattern.across_mm


def loaded_cylinders(document: EngineDocument, joint: Joint) -> dict[int, float]:
    """Return which cylinders' valves push a camshaft up while its caps are drawn down, and how far.

    Returned: lobe lift by cylinder [mm]; empty where nothing is known of lobes or position.
    """
    draw = next((stage.draw for stage in joint.figures if stage.draw), None)
    cam = document.camshaft(draw.camshaft) if draw and draw.camshaft else None
    if draw is None or cam is None or draw.position is None or not document.is_placed(draw.position):
        return {}
    frames = frames_at(document, [document.position_deg(draw.position)], {})
    if not frames.valves:
        return {}
    lifts: dict[int, float] = {}
    for (name, at), lift_mm in zip(frames.valves, frames.lift_mm[:, 0], strict=True):
        if name != cam.id:
            continue
        lobe = cam.lobes[at]
        lobe_mm = float(lift_mm) / (cam.ratio(lobe.valve) or 1.0)
        if lobe_mm > PRESSES_MM:
            lifts[lobe.cylinder] = max(lifts.get(lobe.cylinder, 0.0), round(lobe_mm, 2))
    return lifts


def draw_passes(document: EngineDocument, joint: Joint, stage: JointStage) -> int:
    """Return how often a joint is gone round while it is drawn down. A turn closes its share of the pitch."""
    draw = stage.draw
    gap_mm = (draw.gap_mm if draw else None) or max(loaded_cylinders(document, joint).values(), default=None)
    if draw is None or gap_mm is None or draw.turn_deg is None or not joint.thread:
        return DRAW_PASSES
    return max(1, math.ceil(round(gap_mm / (read_thread(joint.thread).pitch_mm * draw.turn_deg / 360), 6)))


def items_of(document: EngineDocument, joint: Joint) -> tuple[Item, ...]:
    """Return every pull of a joint, in order.

    Source: Practice: all of them finger tight, then the stages; twice over where the book says so.
    >>> joint = Joint(id="x", name="Nuts", fasteners=2, stages=(JointStage(does="hand"), JointStage(does="torque", torque_nm=20)))
    >>> [item.key for item in items_of(quern_4(), joint)]
    ['1.1.all', '2.1.1', '2.1.2']
    """
    names, items = [spot.id for spot in spots_of(joint)], list[Item]()
    for number, stage in enumerate(joint.figures, 1):
        passes = draw_passes(document, joint, stage) if stage.does == "draw_down" else stage.passes
        # each of the small steps of drawing down is done to all of them and said once
        own = [ALL] if stage.does in ("hand", "wait", "draw_down", "said") else _asked(stage, names)
        items += [Item(stage=number, turn=turn, fastener=name) for turn in range(1, passes + 1) for name in own]
    return tuple(_one_after_another(items, names) if joint.one_after_another else items)


def _one_after_another(items: list[Item], names: list[str]) -> Iterator[Item]:
    """The same, each fastener to its end before the next; what is done to all at once keeps its place among the stages."""
    place = {ALL: 0} | {name: at for at, name in enumerate(names)}
    for _, run in groupby(items, key=lambda item: item.fastener == ALL):
        yield from sorted(run, key=lambda item: place[item.fastener])


def _asked(stage: JointStage, names: list[str]) -> list[str]:
    """Whom a stage is for: all, unless it has figures for some alone."""
    if stage.other and stage.torque_nm is None and stage.angle_deg is None and stage.does != "loosen":
        some = {name for other in stage.other for name in other.fasteners}
        return [name for name in names if name in some]
    return names


def bolt_facts(joint: Joint) -> BoltFacts | None:
    """Return what is known of a joint's bolts, for what its figures mean."""
    if not joint.thread or joint.thread_state is None:
        return None
    try:
        thread = read_thread(joint.thread)
    except FigureError:  # a joint of older documents says it in its own words
        return None
    return BoltFacts(
        thread=thread,
        seat=seat_of(thread, joint.head_mm, joint.hole_mm),
        property_class=joint.property_class if joint.property_class in CLASSES else None,
        thread_state=joint.thread_state,
        head_state=joint.head_state or joint.thread_state,
    )


def figures_of(joint: Joint, item: Item) -> Figures:
    """Return what a pull is to reach.

    Returned: torque and angle with their windows [N·m, deg]; generic where the book has no torque and the bolt's class is known.
    """
    stage = joint.figures[item.stage - 1]
    other = _other_of(stage, item)
    asked = Figures(
        does=stage.does,
        torque_nm=_torque_nm(stage, item),
        least_nm=stage.least_nm,
        most_nm=stage.most_nm,
        angle_deg=(other.angle_deg if other else None) or stage.angle_deg or (stage.draw.turn_deg if stage.draw else None),
        least_deg=stage.least_deg,
        most_deg=stage.most_deg,
        from_nm=_turned_from(joint, item) if stage.does in ("angle", "torque_angle") else None,
    )
    if stage.does in ("torque", "torque_angle") and asked.torque_nm is None:
        facts = bolt_facts(joint)
        generic = generic_nm(facts) if facts else None
        return replace(asked, torque_nm=generic, is_generic=generic is not None)
    return asked


def _turned_from(joint: Joint, item: Item) -> float | None:
    """The torque that a fastener had before it was turned; None once it was loosened, and where no figure is known."""
    for stage in reversed(joint.figures[: item.stage]):
        if stage.does in ("loosen", "said"):
            return None
        if stage.does in ("torque", "torque_angle"):
            return _torque_nm(stage, item)
    return None


def _torque_nm(stage: JointStage, item: Item) -> float | None:
    """The torque of a stage for one fastener: its own figure, where it has one."""
    other = _other_of(stage, item)
    return (other.torque_nm if other else None) or stage.torque_nm


def _other_of(stage: JointStage, item: Item) -> OtherFigure | None:
    return next((one for one in stage.other if item.fastener in one.fasteners), None)

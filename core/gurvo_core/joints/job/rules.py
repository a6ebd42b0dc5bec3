"""What more than one entry at a joint must hold to, in the light of what stands."""

__all__ = ["NO_SUCH", "ONCE_DONE", "typed_objections", "wrench_objections"]

from collections.abc import Iterator

from gurvo_core.joints.job.entries import Pull
from gurvo_core.joints.job.figures import typed_angle_deg, typed_torque_nm
from gurvo_core.joints.job.judged import TURNED, window_of
from gurvo_core.joints.job.kept import open_trace
from gurvo_core.joints.sequence import ALL, Figures, Item
from gurvo_core.joints.wrench import Wrench, unit_meant, wrench_doubts
from gurvo_core.ledger import NOW, Facts, Objection, known_gauge, need
from gurvo_core.units import read_figure

Objections = Iterator[Objection]
ONCE_DONE = "say that a bolt was found loose, or begin it anew"
MOST_DEG = 2000.0
NO_SUCH = "this engine's run has no step that pulls a joint by that name; load the bench again"


def wrench_objections(code: str, torques: list[Figures], per_bolt: float, facts: Facts) -> Objections:
    """A wrench that reaches what is asked of it, and is not due."""
    gauge = known_gauge(facts, code)
    if gauge is None:
        return  # the gate says so
    clock = facts.get(NOW)
    today = clock.date() if clock else None
    wrench = Wrench(name=gauge.id, least_nm=gauge.least, most_nm=gauge.most, resolution_nm=gauge.resolution, pulls=gauge.pulls)
    said = set()
    for figures in torques:
        window = window_of(figures)
        width = (window.most - window.least) if window.least is not None and window.most is not None else None
        for sentence, cannot in wrench_doubts(wrench, (figures.torque_nm or 0) * per_bolt, window_nm=width):
            if sentence not in said:
                yield Objection("wrench", sentence, "none" if cannot else "reason")
            said.add(sentence)
    if gauge.kind == "bar":
        rule = f"{gauge.id} goes by air pressure: check it against a wrench today, and write that down under Gauges"
        yield from need(gauge.checked is not None and gauge.checked == today, "wrench", rule, "reason")


def typed_objections(body: Pull, item: Item, figures: Figures) -> Objections:
    """Figures that can be."""
    is_pull = figures.does in ("torque", "torque_angle", "angle")
    if not is_pull or item.fastener == ALL:
        yield from need(
            body.torque is None and body.angle is None and body.before is None, "torque", "nothing is measured here; leave it empty"
        )
        return
    if body.torque is not None:
        shown = typed_torque_nm(body.torque)
        yield from need(shown > 0, "torque.text", "a torque is above 0")
        meant = unit_meant(read_figure(body.torque.text), body.torque.unit, figures.torque_nm or 0) if figures.does == "torque" else None
        if meant is not None:
            asked = f"{body.torque.text} {body.torque.unit} is {shown:.3g} N·m and {meant.asked_nm:g} was asked"
            yield Objection("torque.unit", f"{asked}; in {meant.unit} it would be right: did you mean {meant.unit}?", "reason")
    for text, field in ((body.angle, "angle"), (body.before, "before")):
        if text:
            yield from need(0 < typed_angle_deg(text, field) <= MOST_DEG, field, f"a pull turns more than 0° and no more than {MOST_DEG:g}")
    if body.trace is not None:
        open_trace(body.trace)
    rule = "an angle is said only where one is turned; leave it empty"
    yield from need(not body.angle or figures.does in TURNED, "angle", rule)

"""Valves' heads, their springs, and how near the book lets them come: what the clearway is worked out from."""

__all__ = ["rubbing_of", "valve_parts"]

from collections.abc import Iterator
from typing import Any

from gurvo_core.writer.answers import Answers, said
from gurvo_core.writer.shape import Shape
from gurvo_core.writer.shorthand.heads import HeadSaid, read_base, read_friction, read_gap, read_head, read_spring

Part = dict[str, Any]
VALVES = ("intake", "exhaust")


def valve_parts(answers: Answers, shape: Shape) -> Part:
    """What was answered of them; nothing where nothing was."""
    springs = [
        {"valve": valve, **_known(spring._asdict())} for valve in VALVES if (spring := said(answers, f"spring.{valve}", read_spring))
    ]
    gaps = {f"{of}_mm": gap for of in (*VALVES, "valves") if (gap := said(answers, f"gap.{of}", read_gap)) is not None}
    found = {"valves": list(_heads(answers, shape)), "springs": springs, "least_gaps": gaps}
    return {key: value for key, value in found.items() if value}


def rubbing_of(answers: Answers) -> Part:
    """What was answered of every camshaft's lobes: their base circle, and how much they rub."""
    return _known({"base_circle_mm": said(answers, "base", read_base), "friction": said(answers, "friction", read_friction)})


def _heads(answers: Answers, shape: Shape) -> Iterator[Part]:
    of_each = dict(zip(VALVES, shape.valves or (1, 1), strict=True))
    for valve in VALVES:
        head = said(answers, f"head.{valve}", read_head)
        if head is None:
            continue
        if of_each[valve] == 1:
            along: list[float] = [0.0]
        else:  # heads in a row, side by side with nothing between them: no nearer can they stand
            along = [head.head_mm * (n - (of_each[valve] - 1) / 2) for n in range(of_each[valve])]
        for n, bank in enumerate(shape.banks):
            # of two rows the other one is the first seen in a mirror
            own = head if n == 0 else head._replace(angle_deg=-head.angle_deg, across_mm=-head.across_mm)
            of_bank = {"bank": bank.id} if len(shape.banks) > 1 else {}
            yield {"valve": valve, **of_bank, **_known(HeadSaid(*own)._asdict()), "along_mm": along}


def _known(figures: Part) -> Part:
    return {key: value for key, value in figures.items() if value is not None}

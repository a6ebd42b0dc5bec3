"""How a chain or belt is laid: what every count between two marks does to the timing once the slack is taken up.

Rigid limits: a pitch is a pitch, and the tight side decides. The loop travels from its driving wheel over the slack run to the
wheels it turns, and back to the driving wheel on the pulled one. Counts alone are enough: no length has to be known.
"""

__all__ = [
    "Span",
    "check_counts",
    "counted_spans",
    "crank_deg_a_pitch",
    "laid_shafts",
    "laid_words",
    "loads_of",
    "shaft_name",
    "teeth_words",
]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise

from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.errors import GeometryError
from gurvo_core.sentence import within

PLACED = ("crank", "camshaft", "balance")  # what has to stand in one place; what turns freely lets slack through, as a roller does
SAME = 1e-6


@dataclass(frozen=True, kw_only=True)
class Span:
    """What the book counts along a loop, from one mark to the next, the way it travels."""

    key: str
    label: str
    from_mark: str
    to_mark: str
    book: float | None  # None = the book does not say how many: they are counted all the same
    unit: str
    is_closing: bool = False  # from the last marked link to the first: what is left, which need not be counted


def counted_spans(loop: LoopStage) -> tuple[Span, ...]:
    """Return what is counted when a loop is laid.

    Source: Practice: links are counted from mark to mark, the way it travels.
    >>> [span.book for span in counted_spans(family("tarn-f4").drive.stages[0])]
    [63.5, 66.5, 60.0]
    """
    links = [
        Span(
            key=link.id,
            label=f"{link.name} to {within(after.name)}",
            from_mark=link.meets,
            to_mark=after.meets,
            book=link.to_next,
            unit=loop.counted_in,
            is_closing=n == len(loop.marked) - 1,
        )
        for n, (link, after) in enumerate(pairwise([*loop.marked, *loop.marked[:1]]))
        if len(loop.marked) > 1
    ]
    counts = [
        Span(
            key=count.id,
            label=f"{count.name}{', both ends counted' if count.both_ends_counted else ''}",
            from_mark=count.from_mark,
            to_mark=count.to_mark,
            book=count.number,
            unit=count.counted,
        )
        for count in loop.counts
    ]
    return (*links, *counts)


def loads_of(document: EngineDocument, loop: LoopStage) -> list[tuple[str, str]]:
    """Return the toothed wheels of a loop that pull or are pulled, the way it travels.

    Source: Practice: slack lies between wheels that have a place to keep; a roller or a pump lets it through.
    >>> [shaft for _, shaft in loads_of(family("tarn-f4"), family("tarn-f4").drive.stages[0])]
    ['crank', 'cam-left', 'cam-right']
    """
    wheels = [document.drive.wheel(name) for name in loop.wheel_ids]
    toothed = [(wheel, document.drive.shaft(wheel.shaft)) for wheel in wheels if not wheel.diameter_mm]
    placed = [(wheel.id, shaft.id) for wheel, shaft in toothed if shaft.kind in PLACED or shaft.position_matters]
    return placed if len(placed) > 1 else [(wheel.id, shaft.id) for wheel, shaft in toothed]


def crank_deg_a_pitch(document: EngineDocument, stage: LoopStage) -> float | None:
    """Return how far the crank turns while a chain or belt travels one link or tooth.

    Returned: 360/N for N teeth on the crank; of a wheel that turns slower, so much more. None where no teeth are known [deg].
    Source: A pitch at the wheel is 360/N of it; its shaft turns at the drive's own ratio. Common practice: at 20 teeth it is 18°.
    >>> round(crank_deg_a_pitch(quern_4(), quern_4().drive.stages[0]), 2)  # 21 teeth
    17.14
    """
    for name in stage.wheel_ids:
        wheel = document.drive.wheel(name)
        turns = document.turns_clockwise.get(wheel.shaft)
        if wheel.teeth and turns:
            return 360 / wheel.teeth / abs(turns)
    return None


def check_counts(loop: LoopStage, counted: Mapping[str, float]) -> Iterator[tuple[str, str]]:
    """Yield what cannot be about some counts, whatever the book says.

    A chain has whole links; a belt may be marked at half teeth; no part is longer than the whole.
    """
    step, words = (1.0, "a chain is counted in whole links; {0:g} is none") if loop.kind == "chain" else (0.5, "")
    words = words or "a belt is counted in whole or half teeth; {0:g} is neither"
    spans = {span.key: span for span in counted_spans(loop)}
    for key, number in counted.items():
        halves = 0.5 if (spans[key].book or 0) % 1 else step  # a book that counts half links has its reason
        if number <= 0:
            yield key, f"at least one {loop.counted_one} lies between two marks; {number:g} cannot be"
        elif abs(number / halves - round(number / halves)) > SAME:
            yield key, words.format(number)
        elif loop.count is not None and number >= loop.count:
            yield key, f"the whole {loop.kind} has {loop.count} {loop.counted_in}; {number:g} between two marks cannot be"


def laid_shafts(document: EngineDocument, loop: LoopStage, counted: Mapping[str, float]) -> dict[str, float]:
    """Return where each shaft of a loop stands once the slack is taken up, laid as it was counted.

    Returned: by shaft, against the driving one; early is positive [crank deg]. Empty where no teeth are known.
    Raises GeometryError if two counts contradict each other: taut, they cannot both be.
    Source: More links between a wheel and the next one downstream leave the first further back, or the second further on, by as many
    pitches. Where the slack lies between them the rest of the loop has as many fewer, which says the same. Common practice: marks right
    with a tooth of slack on the tight side leaves the crank a tooth ahead.
    >>> engine = family("tarn-f4")
    >>> laid_shafts(engine, engine.drive.stages[0], {"line-crank": 64.5})
    {'crank': 0.0, 'cam-left': 15.0, 'cam-right': 15.0}
    """
    pitch_deg, spans = crank_deg_a_pitch(document, loop), [span for span in counted_spans(loop) if span.book is not None]
    if pitch_deg is None or not spans:
        return {}
    shaft_of = {mark.id: document.drive.wheel(mark.wheel).shaft for mark in document.drive.marks}
    ends = {span.key: (shaft_of[span.from_mark], shaft_of[span.to_mark]) for span in spans}
    # what was counted decides; what closes the loop or was not counted follows, as the book has it
    order = sorted(spans, key=lambda span: (span.key not in counted, span.is_closing))
    return _placed(order, ends, {key: counted[key] for key in counted if key in ends}, pitch_deg, _driving(document, loop))


def _driving(document: EngineDocument, loop: LoopStage) -> str:
    return document.drive.wheel(loop.wheel_ids[0]).shaft


def _placed(
    order: list[Span], ends: Mapping[str, tuple[str, str]], counted: Mapping[str, float], pitch_deg: float, driving: str
) -> dict[str, float]:
    """Carry what each count says from shaft to shaft, from the driving one on."""
    off = {driving: 0.0}
    if not any(driving in pair for pair in ends.values()) and order:
        off = {ends[order[0].key][1]: 0.0}
    waiting = list(order)
    while waiting:
        span = next((one for one in waiting if set(ends[one.key]) & off.keys()), None)
        if span is None:
            break
        waiting.remove(span)
        here, there = ends[span.key]
        book = span.book or 0.0
        on_deg = (counted.get(span.key, book) - book) * pitch_deg
        if here in off and there in off:
            if span.key in counted and abs(off[there] - off[here] - on_deg) > SAME:
                rule = f"{span.label} of {counted[span.key]:g} contradicts the other counts: count again from the first mark"
                raise GeometryError(f"counted.{span.key}", counted[span.key], rule)
        elif here in off:
            off[there] = off[here] + on_deg
        else:
            off[here] = off[there] - on_deg
    return off


def shaft_name(document: EngineDocument, shaft: str) -> str:
    """Return a shaft's name as it stands within a sentence."""
    return within(document.drive.shaft(shaft).name)


def teeth_words(loop: LoopStage, off_deg: float, pitch_deg: float) -> str:
    """Return an error as so many links or teeth.

    off_deg: how far a shaft stands off [crank deg].
    pitch_deg: what a pitch is worth [crank deg].
    """
    teeth = round(abs(off_deg) / pitch_deg, 2)
    one, many = loop.counted_one, loop.counted_in
    if abs(teeth - 0.5) < SAME:
        return f"half a {one}"
    if abs(teeth - 1) < SAME:
        return f"one {one}"
    whole, half = int(teeth), "½" if abs(teeth % 1 - 0.5) < SAME else ""
    if half or abs(teeth - round(teeth)) < SAME:
        return f"{whole if half else round(teeth)}{half} {many}"
    return f"{teeth:g} {many}"


def laid_words(document: EngineDocument, off_deg: Mapping[str, float]) -> str:
    """Return where the shafts would end, in a builder's words.

    off_deg: by shaft, early is positive [crank deg].
    Figures are said in crank degrees.
    """
    groups: dict[float, list[str]] = {}
    for shaft, own_deg in off_deg.items():
        if abs(own_deg) > SAME:
            groups.setdefault(round(own_deg, 1), []).append(shaft_name(document, shaft))
    said = [
        f"{' and '.join(names)} would stand {abs(deg):g}° of the crank {'early' if deg > 0 else 'late'}" for deg, names in groups.items()
    ]
    return f"once the slack is taken up, {', '.join(said)}" if said else ""

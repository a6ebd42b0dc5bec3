"""Traces that come as files, in pieces: each piece is read as it comes, the whole is never held. In this process, and bounded in number."""

from dataclasses import dataclass, field
from threading import Lock
from time import monotonic
from uuid import uuid4

from django.http import Http404
from pydantic import Field

from gurvo_core.errors import ReadingError
from gurvo_core.joints.intake import TraceIntake
from gurvo_core.joints.job.entries import KeptTrace
from gurvo_core.joints.job.kept import keep_trace, read_csv_head
from gurvo_core.joints.trace import analyse
from gurvo_core.ledger.entry import Shape
from gurvo_core.units import Unit
from shop.errors import Conflict

MOST_AT_ONCE, MOST_OF_ONE = 16, 2
LEFT_AFTER_S = 120.0


class TraceRead(Shape):
    """A trace that was read from a file, ready for an entry, with what it says."""

    rows: int
    columns: str
    torque: str
    angle: str
    snug: str
    peak: str
    flags: list[str]
    trace: KeptTrace


class Progress(Shape):
    """How far the reading of a file has come."""

    id: str
    rows: int
    read: TraceRead | None = Field(default=None, description="The trace that was read, once its last piece has come")


@dataclass
class _Coming:
    """A file that is coming in."""

    person: str
    unit: Unit
    intake: TraceIntake | None = None
    columns: str = ""
    touched: float = field(default_factory=monotonic)


_coming: dict[str, _Coming] = {}
_lock = Lock()


def begin(person: str, unit: Unit) -> Progress:
    """Begin to take a file in. Of one's own the oldest is forgotten; of others' only what nobody has gone on with for minutes."""
    with _lock:
        own = [name for name, one in _coming.items() if one.person == person]
        left = [name for name, one in _coming.items() if monotonic() - one.touched > LEFT_AFTER_S]
        if len(own) >= MOST_OF_ONE:
            del _coming[min(own, key=lambda name: _coming[name].touched)]
        elif len(_coming) >= MOST_AT_ONCE:
            if not left:
                raise Conflict("Too many files are coming in just now; try again in a minute.")
            del _coming[min(left, key=lambda name: _coming[name].touched)]
        name = uuid4().hex
        _coming[name] = _Coming(person, unit)
    return Progress(id=name, rows=0)


def take(name: str, person: str, text: str, *, is_last: bool) -> Progress:
    """Take the next piece; the answer to the last one is the trace."""
    coming = _coming.get(name)
    if coming is None or coming.person != person:
        raise Http404
    coming.touched = monotonic()
    try:
        return _take(name, coming, text, is_last=is_last)
    except ReadingError:
        cancel(name, person)
        raise


def _take(name: str, coming: _Coming, text: str, *, is_last: bool) -> Progress:
    if coming.intake is None:
        head = text[:10_000].splitlines()[:5]
        delimiter, angle, torque, has_names = read_csv_head(head)
        names = head[0].split(delimiter) if has_names else ["first column", "second column"]
        coming.columns = f"angle from “{names[angle].strip()[:40]}”, torque from “{names[torque].strip()[:40]}”"
        coming.intake = TraceIntake(delimiter=delimiter, angle=angle, torque=torque, has_names=has_names, unit=coming.unit)
    coming.intake.feed(text, is_last=is_last)
    if not is_last:
        return Progress(id=name, rows=coming.intake.rows)
    trace, gaps = coming.intake.trace()
    figures = analyse(trace)
    read = TraceRead(
        rows=coming.intake.rows,
        columns=coming.columns,
        torque=f"{figures.end_nm:.1f}",
        angle=f"{float(trace.angle_deg[-1] - trace.angle_deg[0]):.0f}",
        snug=f"{figures.snug_deg:.0f}",
        peak=f"{figures.peak_nm:.1f}",
        flags=[*figures.flags, *(gap.sentence for gap in gaps)],
        trace=keep_trace(trace, read=coming.intake.rows),
    )
    cancel(name, coming.person)
    return Progress(id=name, rows=read.rows, read=read)


def cancel(name: str, person: str) -> None:
    """Forget a file that was coming in."""
    with _lock:
        if name in _coming and _coming[name].person == person:
            del _coming[name]

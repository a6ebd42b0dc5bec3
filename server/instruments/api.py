"""The instruments' API: what one shows, as a stream; what it is told."""

from collections.abc import Callable, Iterator
from functools import partial
from threading import BoundedSemaphore
from time import monotonic

from django.http import HttpRequest, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from pydantic import Field

from config.schemas import InSchema, refusals
from gurvo_core.ledger import GAUGE_UNIT
from gurvo_core.units import Unit
from instruments import traces
from instruments.live import LiveReading, plain_figure
from instruments.reader import Reader, reader_of
from instruments.traces import Progress
from shop.addresses import why_not
from shop.errors import Conflict, Forbidden, Refusal
from shop.idle import still_signed_in
from shop.models import Gauge, instrument_hosts
from shop.roles import may_record, person_of, role_of

router = Router()
traces_router = Router()
ASKS_EVERY_S = 2.0
MOST_AT_ONCE = 5  # streams: each holds a worker of the server as long as a bench looks
_streams = BoundedSemaphore(MOST_AT_ONCE)


class Told(InSchema):
    """What a wrench is to be pulled to, or how far a crank is to be turned."""

    torque_nm: float | None = Field(default=None, ge=0, le=5000)
    from_deg: float | None = Field(default=None, ge=-720, le=720)
    angle_deg: float = Field(default=0, ge=-2000, le=2000)


class TraceBegin(InSchema):
    """The unit of a file's torques."""

    unit: Unit = "N·m"


class TracePiece(InSchema):
    """Some text of a file, in order."""

    text: str = Field(max_length=900_000)
    is_last: bool = False


def _at_work(request: HttpRequest) -> None:
    """A viewer looks: what an instrument does, and what others wait for, is for those who work here."""
    if not may_record(role_of(request.user)):
        raise Forbidden("Only who works here uses the instruments; ask a builder or the lead.")


def _reader(code: str) -> Reader:
    gauge = get_object_or_404(Gauge, pk=code)
    if not gauge.address:
        raise Refusal(f"{gauge.code} has no port; type what it shows, or enter its port under Gauges.", "code")
    if wrong := why_not(gauge.address, instrument_hosts()):
        raise Refusal(wrong, "code")
    return reader_of(gauge.address, GAUGE_UNIT[gauge.kind], gauge.resolution)


def _events(reader: Reader, beside: Reader | None, goes_on: Callable[[], bool]) -> Iterator[str]:
    """Server-sent events: one a reading; with what the instrument beside it shows at the same moment. Asked again and again whether
    they go on.
    """
    asked = monotonic()
    other = beside.listen() if beside else None
    if other is not None:
        next(other)
    for reading in reader.listen():
        if monotonic() - asked > ASKS_EVERY_S:
            asked = monotonic()
            if not goes_on():
                return
        shown = reading
        if beside is not None and not reading.trouble:
            shown = reading.model_copy(update={"beside": _beside(reading, beside), "trouble": beside.last.trouble})
        yield f"data: {shown.model_dump_json(exclude_defaults=True)}\n\n"


def _beside(reading: LiveReading, beside: Reader) -> str:
    """What the other shows; for a point that is kept, at the very moment of this reading: both move."""
    value = beside.at(reading.at_s) if reading.take else None
    return beside.last.text if value is None else plain_figure(value, beside.resolution)


def _bounded(events: Iterator[str]) -> Iterator[str]:
    try:
        yield from events
    finally:
        _streams.release()


@router.get(
    "/{code}/live",
    response={200: LiveReading, **refusals(401, 403, 404, 409, 422)},
    operation_id="instrument_live",
    summary="What it shows, live",
)
def live(request: HttpRequest, code: str, beside: str = "") -> StreamingHttpResponse:
    """Pass on readings as server-sent events, each a LiveReading, as long as somebody listens."""
    _at_work(request)
    reader, other = _reader(code), _reader(beside) if beside else None
    goes_on = partial(still_signed_in, request.session.session_key, person_of(request).pk)
    if not _streams.acquire(blocking=False):
        raise Conflict("Too many instruments are looked at just now; type the figure, or close another bench.")
    answer = StreamingHttpResponse(_bounded(_events(reader, other, goes_on)), content_type="text/event-stream")
    answer["Cache-Control"] = "no-store"
    return answer


@router.post(
    "/{code}/target", response={204: None, **refusals(401, 403, 404, 409, 422)}, operation_id="instrument_target", summary="Tell it"
)
def target(request: HttpRequest, code: str, payload: Told) -> Status[None]:
    """Tell a wrench what is to be pulled next."""
    _at_work(request)
    first = payload.from_deg if payload.from_deg is not None else payload.torque_nm or 0
    if not _reader(code).send(f"TARGET {first:g} {payload.angle_deg:g}"):
        raise Conflict(f"{code} does not answer; look at its cable.")
    return Status(204, None)


@router.post("/{code}/zero", response={204: None, **refusals(401, 403, 404, 409, 422)}, operation_id="instrument_zero", summary="Zero it")
def zero(request: HttpRequest, code: str) -> Status[None]:
    """Set an instrument to zero where it is."""
    _at_work(request)
    if not _reader(code).send("ZERO"):
        raise Conflict(f"{code} does not answer; look at its cable.")
    return Status(204, None)


@traces_router.post(
    "", response={201: Progress, **refusals(401, 403, 409, 422)}, operation_id="trace_begin", summary="Begin to read a file"
)
def begin_trace(request: HttpRequest, payload: TraceBegin) -> Status[Progress]:
    """Begin to read a trace from a file that comes in pieces."""
    _at_work(request)
    return Status(201, traces.begin(request.user.get_username(), payload.unit))


@traces_router.put(
    "/{name}", response={200: Progress, **refusals(401, 404, 409, 413, 422)}, operation_id="trace_piece", summary="The next piece of it"
)
def take_piece(request: HttpRequest, name: str, payload: TracePiece) -> Progress:
    """Take the next piece of a file; the answer to the last one is the trace."""
    return traces.take(name, request.user.get_username(), payload.text, is_last=payload.is_last)


@traces_router.delete("/{name}", response={204: None, **refusals(401)}, operation_id="trace_cancel", summary="Stop reading it")
def cancel_trace(request: HttpRequest, name: str) -> Status[None]:
    """Stop reading a file."""
    traces.cancel(name, request.user.get_username())
    return Status(204, None)

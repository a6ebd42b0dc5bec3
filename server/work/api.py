"""The engines' API: the Floor, the Bench, its entries, and what is handed over."""

from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status
from ninja.params import P, QueryEx

from config.schemas import Problem, refusals
from engine.bridge import Places, document_of, newest_number, places_of, stand_of, twin_json
from gurvo_core.drive import Phasers, Twin
from gurvo_core.errors import CoreError
from gurvo_core.motion import Stand
from gurvo_core.work import TapeLine, cam_places, cams_of, present
from shop.roles import may_record, may_sign, may_write_documents, role_of, shown_name
from work import bridge, services
from work.models import Engine
from work.record import as_csv, as_json, as_pdf
from work.schemas import Bead, Bench, EngineHead, EngineIn, EntryIn, FloorRow

router = Router()
TAPE_SHOWN = 60


def _engine(serial: str) -> Engine:
    engine: Engine = get_object_or_404(Engine.objects.on_the_floor(), serial=serial)
    return engine


def _person(request: HttpRequest) -> User:
    assert isinstance(request.user, User)
    return request.user


def _floor_row(engine: Engine) -> FloorRow:
    state = present(bridge.ledger_of(engine).situation)
    current = next((step for step in state.steps if step.status == "now"), None)
    late = (timezone.localdate() - engine.promised).days if engine.promised and not state.signed else 0
    return FloorRow(
        serial=engine.serial,
        family=engine.revision.family.name,
        purpose=engine.purpose,
        stand=engine.stand,
        builder=shown_name(engine.builder),
        promised=engine.promised,
        late_days=max(0, late),
        beads=[Bead(title=step.title, status=step.status) for step in state.steps],
        step=current.title if current else "Signed",
        waits_for=state.waits_for,
        free_to_turn=state.permission.free,
        loose_ends=len(state.loose_ends),
        verdict=next((cam.verdict for cam in state.cams), None),
        signed=state.signed,
    )


def _bench(engine: Engine, ledger: bridge.Ledger, by: User) -> HttpResponse:
    """What the bench shows; it was checked when it was built, so it is written out once and not read again."""
    document = document_of(engine.revision_id)
    role = role_of(by)
    head = EngineHead(
        serial=engine.serial,
        family=engine.revision.family.name,
        family_code=engine.revision.family_id,
        revision=engine.revision.number,
        newest_revision=newest_number(engine.revision.family_id),
        purpose=engine.purpose,
        stand=engine.stand,
        running_direction=document.running_direction,
        cautions=list(document.cautions),
        may_record=may_record(role),
        may_sign=may_sign(role),
        may_move=may_write_documents(role),
    )
    state, tape = present(ledger.situation), bridge.tape_of(ledger.entries, most=TAPE_SHOWN)
    bench = Bench(engine=head, state=state, tape=tape, entries=len(ledger.entries))
    return HttpResponse(bench.model_dump_json(), content_type="application/json")


@router.get("", response={200: list[FloorRow], 401: Problem}, operation_id="engines_list", summary="The Floor: every engine")
def floor(request: HttpRequest) -> list[FloorRow]:
    """List every engine with what it waits for."""
    return [_floor_row(engine) for engine in Engine.objects.on_the_floor()]


@router.post("", response={201: FloorRow, **refusals(401, 403, 409, 422)}, operation_id="engine_begin", summary="Put an engine on a stand")
def begin(request: HttpRequest, payload: EngineIn) -> Status[FloorRow]:
    """Put an engine on a stand."""
    engine = services.put_on_stand(**payload.model_dump(), by=_person(request))
    return Status(201, _floor_row(engine))


@router.get("/{serial}", response={200: Bench, **refusals(401, 404)}, operation_id="bench_look", summary="The Bench of one engine")
def bench(request: HttpRequest, serial: str) -> HttpResponse:
    """Show everything the bench shows."""
    engine = _engine(serial)
    return _bench(engine, bridge.ledger_of(engine), _person(request))


@router.post(
    "/{serial}/entries",
    response={200: Bench, **refusals(401, 403, 404, 409, 413, 422)},
    operation_id="entry_record",
    summary="Make an entry; the answer is the new state",
)
def make_entry(request: HttpRequest, serial: str, payload: EntryIn) -> HttpResponse:
    """Append one entry and answer with what the bench shows now."""
    engine = _engine(serial)
    try:
        ledger = services.record(engine, entry_id=payload.id, body=payload.entry, by=_person(request), typed_at=payload.typed_at)
    except CoreError as error:
        raise error.under("entry") from None
    return _bench(engine, ledger, _person(request))


@router.get(
    "/{serial}/entries",
    response={200: list[TapeLine], **refusals(401, 404, 422)},
    operation_id="entries_list",
    summary="Older lines of the tape",
)
def entries(
    request: HttpRequest,
    serial: str,
    before: QueryEx[int | None, P(ge=1)] = None,
    most: QueryEx[int, P(ge=1, le=500)] = TAPE_SHOWN,
) -> list[TapeLine]:
    """List lines of the tape, newest first, from before a place."""
    return bridge.tape_of(bridge.ledger_of(_engine(serial)).entries, before=before, most=most)


def _places(engine: Engine, phasers: Phasers) -> Places:
    measured = cam_places(cams_of(bridge.ledger_of(engine).situation))
    return places_of(document_of(engine.revision_id), measured, phasers)


@router.get("/{serial}/twin", response={200: Twin, **refusals(401, 404, 422)}, operation_id="engine_twin", summary="The engine's twin")
def twin(request: HttpRequest, serial: str, phasers: Phasers = "rest") -> HttpResponse:
    """Hand out the twin with the camshafts where they were measured."""
    engine = _engine(serial)
    return HttpResponse(twin_json(engine.revision_id, _places(engine, phasers)), content_type="application/json")


@router.get("/{serial}/stand", response={200: Stand, **refusals(401, 404, 422)}, operation_id="engine_stand", summary="One angle")
def stand(
    request: HttpRequest, serial: str, crank_deg: QueryEx[float, P(ge=-1440, le=1440, allow_inf_nan=False)], phasers: Phasers = "rest"
) -> Stand:
    """Say everything that is to be seen at one crank angle, with the camshafts where they were measured."""
    engine = _engine(serial)
    return stand_of(engine.revision_id, crank_deg, _places(engine, phasers))


def _download(content: bytes, media_type: str, name: str) -> HttpResponse:
    return HttpResponse(content, content_type=media_type, headers={"Content-Disposition": f'inline; filename="{name}"'})


@router.get("/{serial}/record.json", operation_id="record_json", summary="The record, with everything needed to replay it")
def record_json(request: HttpRequest, serial: str) -> HttpResponse:
    """Hand over the record as JSON."""
    return _download(as_json(_engine(serial)), "application/json", f"{serial}.json")


@router.get("/{serial}/readings.csv", operation_id="record_csv", summary="The readings as a table")
def readings_csv(request: HttpRequest, serial: str) -> HttpResponse:
    """Hand over the readings as CSV."""
    return _download(as_csv(_engine(serial)), "text/csv; charset=utf-8", f"{serial}-readings.csv")


@router.get("/{serial}/record.pdf", operation_id="record_pdf", summary="The record on paper")
def record_pdf(request: HttpRequest, serial: str) -> HttpResponse:
    """Hand over the record as PDF."""
    return _download(as_pdf(_engine(serial)), "application/pdf", f"{serial}.pdf")

"""The engines' API: the Floor, the Bench, its entries, and what is handed over."""

import json
from collections.abc import Callable
from functools import partial
from typing import Annotated

from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Query, Router, Status
from ninja.params import P, QueryEx
from ninja.security import django_auth

from config.answers import json_answer, unchanged
from config.schemas import HANDED_OUT, Problem, refusals
from gurvo_core.errors import CoreError
from gurvo_core.joints.job.show import joint_view
from gurvo_core.joints.job.view import JointView, TraceLine
from gurvo_core.work import TapeLine
from shop.benches import bench_of
from shop.confirming import confirm_for, is_fresh, used_up
from shop.errors import Conflict
from shop.roles import person_of
from shop.script_keys import ByScriptKey
from shop.services import confirm
from work import bridge, services
from work.downloads import download
from work.errors import WrongPerson
from work.finding import engine_of
from work.floor import floor_json, floor_moment, floor_row, floor_tag
from work.measured import measured_of
from work.models import Engine
from work.record import as_csv, as_json, as_pdf
from work.record.in_one_file import as_html
from work.record.sheets import as_check_sheet, as_first_start, as_labels, as_parts_tags, as_stand_card
from work.record.table import table_csv, tables_of
from work.record.traces import traces_csv
from work.record.turns import one_at_a_time, printing, stop_printing
from work.record.zipped import as_zip
from work.schemas import (
    MOST_ENTRIES,
    Bench,
    BenchChange,
    ConfirmIn,
    EngineIn,
    EntryIn,
    FloorFilter,
    FloorPage,
    FloorRow,
    Printing,
    TableOut,
)
from work.showing import TAPE_SHOWN, bench_after, bench_tag, whole_bench

TurnName = Annotated[str, Query(max_length=40, description="A name made up for this one paper, by which it can be stopped")]
router = Router()
printing_router = Router()


@router.get(
    "",
    response={200: FloorPage, **refusals(401, 422)},
    auth=[ByScriptKey(), django_auth, bench_of],
    operation_id="engines_list",
    summary="The Floor, a page at a time",
)
def floor(request: HttpRequest, wanted: Query[FloorFilter]) -> HttpResponse:
    """List engines with what they wait for; a paired device may, for a screen on the wall."""
    moment = floor_moment()
    tag = floor_tag(wanted, moment)
    return unchanged(request, tag) or json_answer(floor_json(wanted, moment), tag=tag)


@router.post("", response={201: FloorRow, **refusals(401, 403, 409, 422)}, operation_id="engine_begin", summary="Put an engine on a stand")
def begin(request: HttpRequest, payload: EngineIn) -> Status[FloorRow]:
    """Put an engine on a stand."""
    engine = services.put_on_stand(**payload.model_dump(), by=person_of(request))
    return Status(201, floor_row(engine.pk))


@router.get("/{serial}", response={200: Bench, **refusals(401, 404, 409)}, operation_id="bench_look", summary="The Bench of one engine")
def bench(request: HttpRequest, serial: str) -> HttpResponse:
    """Show everything the bench shows; nothing is sent again to somebody who has it."""
    by = person_of(request)
    tag = bench_tag(Engine.objects.bench_moment(serial), by)
    return unchanged(request, tag) or whole_bench(engine := engine_of(serial), bridge.ledger_of(engine), by)


@router.post(
    "/{serial}/entries",
    response={201: Bench | BenchChange, 200: Bench | BenchChange, **refusals(401, 403, 404, 409, 413, 422)},
    operation_id="entry_record",
    summary="Make an entry; the answer is the new state, or what changed of the one the page has",
)
def make_entry(request: HttpRequest, serial: str, payload: EntryIn) -> HttpResponse:
    """Append one entry and answer with what the bench shows now: 201 when it was made, 200 when it had been made before."""
    by = person_of(request)
    if payload.by is not None and payload.by != by.username:
        raise WrongPerson(payload.by, by.username)
    proof = services.Proof(signs=partial(used_up, request), has_password=is_fresh(request))
    entry_id, body, because = payload.id, payload.entry, payload.because
    try:
        recorded = services.record(serial, entry_id=entry_id, body=body, by=by, typed_at=payload.typed_at, because=because, proof=proof)
    except CoreError as error:
        refused = error.under("entry")
        raise bridge.meanwhile(engine_of(serial), payload.seen, by, refused) or refused from None
    answer = bench_after(recorded, by, payload.has)
    answer.status_code = 200 if recorded.before is None else 201
    return answer


@router.post(
    "/{serial}/confirm",
    response={204: None, **refusals(401, 403, 404, 409, 413, 422, 429)},
    operation_id="entry_confirm",
    summary="Show who I am, for one signature",
)
def confirm_entry(request: HttpRequest, serial: str, payload: ConfirmIn) -> Status[None]:
    """Show by PIN or password who is signed in, for this entry on what was shown; it holds for that one, and not for long."""
    engine = engine_of(serial)
    ledger = bridge.ledger_of(engine)
    if payload.seen is not None and payload.seen != len(ledger.entries):
        raise Conflict("The engine has changed since this was shown: look again, then sign.", "seen")
    confirm(request, payload.password)
    confirm_for(request, services.signature_of(engine, ledger.head, payload.entry))
    return Status(204, None)


@router.get(
    "/{serial}/entries",
    response={200: list[TapeLine], **refusals(401, 404, 422)},
    operation_id="entries_list",
    summary="Older lines of the tape",
)
def entries(
    request: HttpRequest,
    serial: str,
    before: QueryEx[int | None, P(ge=1, le=MOST_ENTRIES)] = None,
    limit: QueryEx[int, P(ge=1, le=500)] = TAPE_SHOWN,
) -> list[TapeLine]:
    """List lines of the tape, newest first, from before a place."""
    return bridge.tape_of(bridge.ledger_of(engine_of(serial)), before=before, limit=limit)


@router.get("/{serial}/joints/{step}", response={200: JointView, **refusals(401, 404)}, operation_id="joint_look", summary="One joint")
def joint(request: HttpRequest, serial: str, step: str) -> HttpResponse:
    """Show a joint that is not the one being pulled."""
    view = joint_view(bridge.ledger_of(engine_of(serial)).folded.states["joints"], step)
    if view is None:
        raise Http404
    return HttpResponse(view.model_dump_json(serialize_as_any=True, warnings=False), content_type="application/json")


@router.get(
    "/{serial}/joints/{step}/traces",
    response={200: list[TraceLine], **refusals(401, 404)},
    operation_id="joint_traces",
    summary="Its traces",
)
def joint_traces(request: HttpRequest, serial: str, step: str) -> list[TraceLine]:
    """Hand out the traces of a joint's pulls that stand, to lay them over each other."""
    return bridge.traces_of(bridge.ledger_of(engine_of(serial)), step)


@router.get(
    "/{serial}/joints/{step}/traces.csv",
    response=HANDED_OUT,
    operation_id="joint_traces_csv",
    summary="Its traces as a table",
)
def joint_traces_csv(request: HttpRequest, serial: str, step: str) -> HttpResponseBase:
    """Hand over the traces of a joint as CSV."""
    return download(
        request, traces_csv(bridge.traces_of(bridge.ledger_of(engine_of(serial)), step)), "text/csv; charset=utf-8", f"{serial}-{step}.csv"
    )


def _printed(request: HttpRequest, serial: str, lay_out: Callable[[Engine], bytes], name: str, turn: str = "") -> HttpResponseBase:
    """Hand over a paper about an engine, in its turn at the press."""
    with one_at_a_time(person_of(request).username, serial, turn):
        return download(request, lay_out(engine_of(serial)), "application/pdf", name)


@router.get(
    "/{serial}/record.json",
    response=HANDED_OUT,
    operation_id="record_json",
    summary="The record, with everything needed to replay it",
)
def record_json(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over the record as JSON."""
    return download(request, as_json(engine_of(serial)), "application/json", f"{serial}.json")


@router.get(
    "/{serial}/record.zip",
    response={200: None, **refusals(401, 404, 409, 422, 429)},
    operation_id="record_zip",
    summary="Everything that is handed over: record, paper, pictures, readings, and a page that verifies them",
)
def record_zip(request: HttpRequest, serial: str, turn: TurnName = "") -> HttpResponseBase:
    """Hand over the record with all that belongs to it as one zip, in its turn at the press."""
    with one_at_a_time(person_of(request).username, serial, turn):
        return download(request, as_zip(engine_of(serial)), "application/zip", f"{serial}.zip")


@router.get(
    "/{serial}/measured.json",
    response={200: None, **refusals(401, 404, 409)},
    operation_id="measured_document",
    summary="Its document with what was found and measured",
)
def measured_document(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over the engine's document with what was found at the bench, and measured of cams without a card, for the next revision."""
    plain = measured_of(engine_of(serial))
    if plain is None:
        raise Conflict("Nothing that the book leaves open was found yet, and no cam without a card measured on both flanks.")
    text = json.dumps(plain, ensure_ascii=False, indent=1)
    return download(request, text.encode(), "application/json", f"{serial}-measured.json")


@router.get("/{serial}/readings.csv", response=HANDED_OUT, operation_id="record_csv", summary="The readings as a table")
def readings_csv(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over the readings as CSV."""
    return download(request, as_csv(engine_of(serial)), "text/csv; charset=utf-8", f"{serial}-readings.csv")


@router.get("/{serial}/tables", response={200: list[TableOut], **refusals(401, 404)}, operation_id="tables_list", summary="Tables of it")
def tables(request: HttpRequest, serial: str) -> list[TableOut]:
    """List the tables that can be handed over to a spreadsheet, of all in which something stands."""
    return tables_of(engine_of(serial))


@router.get("/{serial}/{table}.csv", response=HANDED_OUT, operation_id="table_csv", summary="One of them, such as pulls.csv")
def table_of(request: HttpRequest, serial: str, table: str) -> HttpResponseBase:
    """Hand over as CSV every row that stands."""
    return download(request, table_csv(engine_of(serial), table), "text/csv; charset=utf-8", f"{serial}-{table}.csv")


@router.get(
    "/{serial}/record.pdf",
    response={200: None, **refusals(401, 404, 409, 422, 429)},
    operation_id="record_pdf",
    summary="The record on paper",
)
def record_pdf(request: HttpRequest, serial: str, turn: TurnName = "") -> HttpResponseBase:
    """Hand over the record as PDF; under the name of a turn it can be stopped, even before it has come in."""
    return _printed(request, serial, as_pdf, f"{serial}.pdf", turn)


@router.get(
    "/{serial}/run.pdf",
    response={200: None, **refusals(401, 404, 409, 429)},
    operation_id="run_pdf",
    summary="The run of work as a check sheet",
)
def run_pdf(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over the check sheet for the wall."""
    return _printed(request, serial, as_check_sheet, f"{serial}-run.pdf")


def _bench_address(request: HttpRequest, serial: str) -> str:
    return request.build_absolute_uri(f"/bench/{serial}")


@router.get(
    "/{serial}/stand-card.pdf",
    response={200: None, **refusals(401, 404, 409, 429)},
    operation_id="stand_card_pdf",
    summary="The card that hangs at the stand",
)
def stand_card_pdf(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over the stand's card; its code leads to the bench, by the name under which it was asked for."""
    return _printed(request, serial, partial(as_stand_card, address=_bench_address(request, serial)), f"{serial}-stand.pdf")


@router.get(
    "/{serial}/parts-tags.pdf",
    response={200: None, **refusals(401, 404, 409, 429)},
    operation_id="parts_tags_pdf",
    summary="Tags for its trays",
)
def parts_tags_pdf(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over tags for trays of parts."""
    return _printed(request, serial, partial(as_parts_tags, address=_bench_address(request, serial)), f"{serial}-tags.pdf")


@router.get(
    "/{serial}/record.html",
    response={200: None, **refusals(401, 404, 409, 422, 429)},
    operation_id="record_html",
    summary="The record as one page that opens anywhere",
)
def record_html(request: HttpRequest, serial: str, turn: TurnName = "") -> HttpResponseBase:
    """Hand over the record as one file of HTML, pictures within it, in its turn at the press."""
    with one_at_a_time(person_of(request).username, serial, turn):
        answer = download(request, as_html(engine_of(serial)), "text/html; charset=utf-8", f"{serial}.html")
        answer["Content-Disposition"] = f'attachment; filename="{serial}.html"'  # its styles are its own: it is no page of the app's
        return answer


@router.get(
    "/{serial}/labels.pdf", response={200: None, **refusals(401, 404, 409, 422, 429)}, operation_id="labels_pdf", summary="A label a place"
)
def labels_pdf(request: HttpRequest, serial: str, small: bool = False) -> HttpResponseBase:
    """Hand over a label for every place of the parts that go back: on A4, or one a page for a roll."""
    return _printed(request, serial, partial(as_labels, small=small), f"{serial}-labels.pdf")


@router.get(
    "/{serial}/first-start.pdf",
    response={200: None, **refusals(401, 404, 409, 429)},
    operation_id="first_start_pdf",
    summary="First-start card",
)
def first_start_pdf(request: HttpRequest, serial: str) -> HttpResponseBase:
    """Hand over the card that goes with the engine."""
    return _printed(request, serial, as_first_start, f"{serial}-first-start.pdf")


@printing_router.get("", response={200: Printing | None, 401: Problem}, operation_id="printing_look", summary="How far my record is")
def look_at_printing(request: HttpRequest) -> Printing | None:
    """Say what is being printed for whoever asks, and how far it is."""
    now = printing(person_of(request).username)
    return None if now is None else Printing.model_validate(now)


@printing_router.delete("", response={204: None, **refusals(401, 422)}, operation_id="printing_stop", summary="Stop my record")
def stop_my_printing(request: HttpRequest, turn: TurnName = "") -> Status[None]:
    """Stop what is being printed for whoever asks: one turn, or whichever it is."""
    stop_printing(person_of(request).username, turn)
    return Status(204, None)

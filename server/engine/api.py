"""The families' API: look, check, take in, hand out, compare, and turn the twin."""

import json

from django.db.models import Count
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Status
from ninja.params import P, QueryEx

from config.answers import json_answer, unchanged
from config.schemas import HANDED_OUT, Problem, refusals
from engine import services
from engine.bridge import clearway_json, document_of, ground_of, places_of, scene_json, snapshot_of, turning_json, twin_json, words_of
from engine.examples import examples, take_example
from engine.models import Family, Revision
from engine.schemas import CheckedOut, DocumentText, ExampleRow, FamilyOut, FamilyRow, ImportIn, LiftTableIn, RevisionRow
from gurvo_core.clearway.shown import AtPlaces, ClearwayMap, ClearwayShown, MapPlace, at_places, map_of
from gurvo_core.drive import DriveDrawing, Phasers, Twin, drawn_if_known
from gurvo_core.engine.difference import Change, difference
from gurvo_core.engine.lift_table import LiftTable, read_lift_table
from gurvo_core.engine.plain import plain_document
from gurvo_core.engine.same import Same
from gurvo_core.engine.unknown import not_known
from gurvo_core.joints.job.show import joint_pictures
from gurvo_core.motion import Snapshot
from gurvo_core.motion.lobe import lobe_curve
from gurvo_core.reading import doubts_of
from gurvo_core.scene import Scene, SideTurning
from gurvo_core.walk import Walked
from gurvo_core.work import RULES_VERSION
from press.documents import walked_in
from shop.gate import Line
from shop.roles import person_of, shown_name

router = Router()
examples_router = Router()
CHECKING = Line("Documents of others are being checked")


def _revision(code: str, number: int) -> Revision:
    revision: Revision = get_object_or_404(Revision.objects.select_related("family"), family=code, number=number)
    return revision


def _family_out(shown: Revision) -> FamilyOut:
    rows = (
        Revision.objects.filter(family=shown.family_id).newest_first().select_related("by").defer("document").annotate(n=Count("engines"))
    )
    revisions = [
        RevisionRow(
            number=row.number,
            at=row.at,
            by=shown_name(row.by),
            remark=row.remark,
            engines=row.n,
        )
        for row in rows
    ]
    document = document_of(shown.pk)
    return FamilyOut(
        code=shown.family_id,
        name=document.identity.name,
        revision=shown.number,
        at=shown.at,
        document=document,
        doubtful=doubts_of(document),
        not_known=not_known(document),
        curves=[lobe_curve(profile) for profile in document.profiles],
        joints=joint_pictures(document),
        revisions=revisions,
    )


@router.get("", response={200: list[FamilyRow], 401: Problem}, operation_id="families_list", summary="All families")
def families(request: HttpRequest) -> list[FamilyRow]:
    """List families with their newest revision."""
    engines = dict(Family.objects.annotate(n=Count("revisions__engines")).values_list("code", "n"))
    about = {name: f"document__identity__{name}" for name in ("name", "layout", "fuel")}
    rows = []
    for row in Revision.objects.newest_alone().values("family_id", "number", *about.values()):
        code, identity = row["family_id"], {name: row[key] for name, key in about.items()}
        rows.append(FamilyRow.model_validate({**identity, "code": code, "revision": row["number"], "engines": engines[code]}))
    return rows


@router.post(
    "", response={201: FamilyOut, **refusals(401, 403, 409, 413, 422, 429)}, operation_id="family_import", summary="Take a document in"
)
def import_document(request: HttpRequest, payload: ImportIn) -> Status[FamilyOut]:
    """Take an engine document in as its family's next revision, or refuse it with every fault."""
    by = person_of(request)
    with CHECKING.passed(by.username):
        revision = services.import_text(payload.text, remark=payload.remark.strip(), by=by)
    return Status(201, _family_out(revision))


@examples_router.get("", response={200: list[ExampleRow], 401: Problem}, operation_id="examples_list", summary="Families to begin with")
def list_examples(request: HttpRequest) -> list[ExampleRow]:
    """List invented engine documents that ship with the app."""
    return examples()


@examples_router.post(
    "/{code}", response={201: FamilyOut, **refusals(401, 403, 404, 409, 422, 429)}, operation_id="example_take", summary="Begin with one"
)
def begin_with_example(request: HttpRequest, code: str) -> Status[FamilyOut]:
    """Take one of them in as a family of the shop."""
    by = person_of(request)
    with CHECKING.passed(by.username):
        revision = take_example(code, by)
    return Status(201, _family_out(revision))


@router.post("/check", response={200: CheckedOut, **refusals(401, 413, 422, 429)}, operation_id="family_check", summary="Check a document")
def check(request: HttpRequest, payload: DocumentText) -> services.Checked:
    """Say every fault of a document, or what it would change; nothing is kept."""
    with CHECKING.passed(person_of(request).username):
        return services.check_text(payload.text)


@router.post("/walk", response={200: Walked, **refusals(401, 413, 422, 429)}, operation_id="family_walk", summary="Walk a document through")
def walk(request: HttpRequest, payload: DocumentText) -> Walked:
    """Say whether whoever answers everything rightly gets through a document's run of work; nothing is kept."""
    with CHECKING.passed(person_of(request).username):
        return walked_in(payload.text)


@router.post(
    "/lift-table", response={200: LiftTable, **refusals(401, 413, 422)}, operation_id="lift_table_read", summary="Read a lift table"
)
def lift_table(request: HttpRequest, payload: LiftTableIn) -> LiftTable:
    """Read a lift table into a profile, or say why it is none; nothing is kept."""
    return read_lift_table(payload.text, payload.choices)


@router.get("/{code}", response={200: FamilyOut, **refusals(401, 404)}, operation_id="family_look", summary="One family")
def family(request: HttpRequest, code: str) -> FamilyOut:
    """Show a family's newest document."""
    revision = Revision.objects.newest_of(code)
    if revision is None:
        raise Http404
    return _family_out(revision)


@router.get(
    "/{code}/revisions/{int:number}", response={200: FamilyOut, **refusals(401, 404)}, operation_id="revision_look", summary="One revision"
)
def revision(request: HttpRequest, code: str, number: int) -> FamilyOut:
    """Show one revision of a family."""
    return _family_out(_revision(code, number))


@router.get(
    "/{code}/revisions/{int:number}/document.json",
    response=HANDED_OUT,
    operation_id="revision_export",
    summary="Hand the document out",
)
def export(request: HttpRequest, code: str, number: int) -> HttpResponse:
    """Hand out an engine document as a file."""
    document = plain_document(document_of(_revision(code, number).pk))
    text = json.dumps(document, ensure_ascii=False, indent=1)
    name = f"{code}-revision-{number}.json"
    return HttpResponse(text, content_type="application/json", headers={"Content-Disposition": f'attachment; filename="{name}"'})


@router.get(
    "/{code}/difference", response={200: list[Change], **refusals(401, 404, 422)}, operation_id="revisions_compare", summary="What differs"
)
def compare(request: HttpRequest, code: str, before: QueryEx[int, P(ge=1)], after: QueryEx[int, P(ge=1)]) -> list[Change]:
    """Say what differs between two revisions."""
    return difference(document_of(_revision(code, before).pk), document_of(_revision(code, after).pk))


@router.get(
    "/{code}/revisions/{int:number}/twin", response={200: Twin, **refusals(401, 404, 422)}, operation_id="twin_look", summary="The twin"
)
def twin(request: HttpRequest, code: str, number: int, phasers: Phasers = "rest") -> HttpResponse:
    """Hand out the frames of a whole cycle and the drawing of the front."""
    row = _revision(code, number)
    tag = f"twin-{row.pk}-{RULES_VERSION}-{phasers}"
    if (same := unchanged(request, tag)) is not None:
        return same
    return json_answer(twin_json(document_of(row.pk), places_of(document_of(row.pk), {}, phasers)), tag=tag, packed_for=request)


@router.get(
    "/{code}/revisions/{int:number}/scene",
    response={200: Scene, **refusals(401, 404)},
    operation_id="scene_look",
    summary="How it is drawn",
)
def scene(request: HttpRequest, code: str, number: int) -> HttpResponse:
    """Hand out the pictures of a family's engines with the crank at the first cylinder's firing TDC, and what each step is about."""
    row = _revision(code, number)
    tag = f"scene-{row.pk}-{RULES_VERSION}"
    return unchanged(request, tag) or json_answer(scene_json(document_of(row.pk), 0.0), tag=tag, packed_for=request)


@router.get(
    "/{code}/revisions/{int:number}/turning",
    response={200: SideTurning, **refusals(401, 404)},
    operation_id="scene_turning",
    summary="How it turns",
)
def turning(request: HttpRequest, code: str, number: int) -> HttpResponse:
    """Hand out a family's engines from the side as their crank turns."""
    row = _revision(code, number)
    tag = f"turning-{row.pk}-{RULES_VERSION}"
    return unchanged(request, tag) or json_answer(turning_json(document_of(row.pk)), tag=tag, packed_for=request)


@router.get(
    "/{code}/revisions/{int:number}/clearway",
    response={200: ClearwayShown, **refusals(401, 404)},
    operation_id="clearway_look",
    summary="What may meet",
)
def clearway(request: HttpRequest, code: str, number: int) -> HttpResponse:
    """Hand out how near a family's valves come, how far its camshafts may be moved and where they rest."""
    row = _revision(code, number)
    tag = f"clearway-{row.pk}-{RULES_VERSION}"
    return unchanged(request, tag) or json_answer(clearway_json(Same(document_of(row.pk))), tag=tag, packed_for=request)


@router.get(
    "/{code}/revisions/{int:number}/clearway/map",
    response={200: ClearwayMap, **refusals(401, 404, 422)},
    operation_id="clearway_map",
    summary="The map of two shafts",
)
def clearway_map(request: HttpRequest, code: str, number: int, first: str, second: str) -> HttpResponse:
    """Hand out where two shafts must not stand together: the crank and a camshaft, or two camshafts whose valves could meet."""
    row = _revision(code, number)
    tag = f"clearway-{row.pk}-{RULES_VERSION}-{first}-{second}"
    same = unchanged(request, tag)
    return same or json_answer(map_of(ground_of(Same(document_of(row.pk))), first, second).model_dump_json(), tag=tag, packed_for=request)


@router.get(
    "/{code}/revisions/{int:number}/clearway/at",
    response={200: AtPlaces, **refusals(401, 404, 422)},
    operation_id="clearway_at",
    summary="What is nearest at a place",
)
def clearway_at(request: HttpRequest, code: str, number: int, place: Query[MapPlace]) -> AtPlaces:
    """Say which valves come nearest with two shafts at some places, and how the camshaft rests there."""
    return at_places(ground_of(Same(document_of(_revision(code, number).pk))), place)


@router.get(
    "/{code}/revisions/{int:number}/front",
    response={200: DriveDrawing | None, **refusals(401, 404)},
    operation_id="front_look",
    summary="The front",
)
def front(request: HttpRequest, code: str, number: int) -> HttpResponse:
    """Draw the front of a family, a sketch where its lengths are not known; null where nothing passes anything."""
    row = _revision(code, number)
    tag = f"front-{row.pk}-{RULES_VERSION}"
    if (same := unchanged(request, tag)) is not None:
        return same
    drawn = drawn_if_known(document_of(row.pk))
    return json_answer(drawn.model_dump_json() if drawn else "null", tag=tag)


@router.get(
    "/{code}/revisions/{int:number}/twin/words",
    response={200: list[str], **refusals(401, 404, 422)},
    operation_id="twin_words",
    summary="Every degree",
)
def words(request: HttpRequest, code: str, number: int, phasers: Phasers = "rest") -> list[str]:
    """Say in a sentence what is to be seen at every degree of a cycle."""
    row = _revision(code, number)
    return words_of(document_of(row.pk), places_of(document_of(row.pk), {}, phasers))


@router.get(
    "/{code}/revisions/{int:number}/snapshot",
    response={200: Snapshot, **refusals(401, 404, 422)},
    operation_id="snapshot_look",
    summary="One angle",
)
def snapshot(
    request: HttpRequest,
    code: str,
    number: int,
    crank_deg: QueryEx[float, P(ge=-1440, le=1440, allow_inf_nan=False)],
    phasers: Phasers = "rest",
) -> Snapshot:
    """Say everything that is to be seen at one crank angle."""
    row = _revision(code, number)
    return snapshot_of(document_of(row.pk), crank_deg, places_of(document_of(row.pk), {}, phasers))

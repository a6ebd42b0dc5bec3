"""The drafts' API: engines described on screen, edit by edit."""

import json
from typing import Annotated, Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db.models import Count, Q
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Query, Router, Status

from config.answers import json_answer, unchanged
from config.schemas import HANDED_OUT, Problem, refusals
from engine.bridge import document_of
from engine.models import Revision
from gurvo_core.engine.plain import plain_document
from gurvo_core.reading import read_text
from gurvo_core.work import RULES_VERSION
from gurvo_core.writer.asking.order import questions_of
from gurvo_core.writer.draft import written
from gurvo_core.writer.form import PlaceForm
from gurvo_core.writer.needs import Needable, needable
from gurvo_core.writer.photo import PhotoRead
from gurvo_core.writer.proposals import Proposal
from gurvo_core.writer.standing import Standing, standing_of
from gurvo_core.writer.tables import TableRead
from gurvo_core.writer.view import view_of
from shop.errors import Refusal
from shop.gate import Line
from shop.roles import may_write_documents, person_of, role_of, shown_name
from work.finding import engine_of
from work.measured import measured_of
from writer import services
from writer.bridge import draft_of, edits_of, family_of
from writer.models import Draft, DraftEdit
from writer.proposals import proposals_of
from writer.schemas import AwayIn, DraftIn, DraftOut, DraftRow, EditIn, HandedIn, HandIn, LeaveIn, PhotoIn, PlaceIn, TableIn, TextIn
from writer.walking import Walk, walk_of

router = Router()
PlaceAt = Annotated[str, Query(max_length=600, description="Pointer by ids, empty = the engine's plain keys; or a fault's path")]
HANDING = Line("Documents of others are being taken in")


def _out(draft: Draft, request: HttpRequest, after: str | None = None) -> HttpResponse:
    """A draft as it is shown, written once: it is asked for with every edit."""
    edits = edits_of(draft)
    view, now = view_of(draft_of(draft), after)
    out = DraftOut(
        id=draft.pk,
        name=view.name if draft.base is not None or "name" in now.answers else draft.name,
        begun_from=draft.begun_from,
        changes=draft.changes,
        last=edits[-1].number if edits else 0,
        can_undo=bool(edits),
        can_redo=DraftEdit.objects.filter(draft=draft, is_undone=True, is_passed=False).exists(),
        may_write=may_write_documents(role_of(request.user)) and draft.handed_in_id is None,
        handed_in=draft.handed_in.number if draft.handed_in else None,
        family=family_of(now.document),
        view=view,
    )
    return json_answer(out.model_dump_json(), tag=_tag(draft, request))


def _tag(draft: Draft, request: HttpRequest) -> str:
    return f"draft-{draft.pk}-{draft.changes}-{draft.handed_in_id}-{role_of(request.user)}-{RULES_VERSION}"


@router.get("", response={200: list[DraftRow], 401: Problem}, operation_id="drafts_list", summary="All drafts")
def drafts(request: HttpRequest) -> list[DraftRow]:
    """List drafts, the one changed last first."""
    rows = Draft.objects.select_related("by", "handed_in").annotate(n=Count("edits", filter=Q(edits__is_undone=False)))
    return [
        DraftRow(
            id=row.pk,
            name=row.name,
            begun_from=row.begun_from,
            by=shown_name(row.by),
            changed_at=row.changed_at,
            edits=row.n,
            put_away=row.put_away,
            handed_in=row.handed_in.number if row.handed_in else None,
        )
        for row in rows.defer("base")
    ]


@router.post("", response={201: DraftOut, **refusals(401, 403, 404, 409, 413, 422)}, operation_id="draft_begin", summary="Begin a draft")
def begin(request: HttpRequest, payload: DraftIn) -> HttpResponse:
    """Begin a draft from nothing, a family, an engine on its stand, or a file."""
    by = person_of(request)
    services.may_write(by)
    base, name, words = _base(payload)
    answer = _out(services.begin(by, name=(payload.name or "").strip() or name, base=base, begun_from=words), request)
    answer.status_code = 201
    return answer


def _base(payload: DraftIn) -> tuple[dict[str, Any] | None, str, str]:
    """What a draft begins with, what that is called, and in words where it is from."""
    if sum(one is not None for one in (payload.family, payload.engine, payload.text)) > 1:
        raise Refusal("A draft begins with one thing: a family, an engine or a file; leave the others out.", "family")
    if payload.family is not None:
        newest = Revision.objects.newest_of(payload.family)
        if newest is None:
            raise Http404
        document = document_of(newest.pk)
        return plain_document(document), document.identity.name, f"{document.identity.name}, revision {newest.number}"
    if payload.engine is not None:
        engine = engine_of(payload.engine)
        document = document_of(engine.revision_id)
        return measured_of(engine) or plain_document(document), document.identity.name, f"{engine.serial}, as it was built here"
    if payload.text is not None:
        data = read_text(payload.text)
        if not isinstance(data, dict):
            raise Refusal("An engine document is one group, in braces; this is something else.", "text")
        return data, "From a file", "a file"
    return None, "", "nothing"


@router.get("/{uuid:draft_id}", response={200: DraftOut, **refusals(401, 404)}, operation_id="draft_look", summary="One draft")
def draft(request: HttpRequest, draft_id: UUID) -> HttpResponse:
    """Show a draft."""
    found = services.draft_named(draft_id)
    if (same := unchanged(request, _tag(found, request))) is not None:
        return same
    return _out(found, request)


@router.post(
    "/{uuid:draft_id}/edits",
    response={200: DraftOut, **refusals(401, 403, 404, 409, 413, 422)},
    operation_id="draft_edit",
    summary="Add an edit",
)
def edit(request: HttpRequest, draft_id: UUID, payload: EditIn) -> HttpResponse:
    """Add an edit, or say why it cannot be."""
    edited = services.add_edit(draft_id, payload.edit, made_on=payload.made_on, by=person_of(request))
    return _out(edited, request, payload.after)


@router.post("/{uuid:draft_id}/undo", response={200: DraftOut, **refusals(401, 403, 404, 409)}, operation_id="draft_undo", summary="Undo")
def undo(request: HttpRequest, draft_id: UUID) -> HttpResponse:
    """Undo the last edit that stands."""
    return _out(services.undo(draft_id, by=person_of(request)), request)


@router.post("/{uuid:draft_id}/redo", response={200: DraftOut, **refusals(401, 403, 404, 409)}, operation_id="draft_redo", summary="Redo")
def redo(request: HttpRequest, draft_id: UUID) -> HttpResponse:
    """Do again what was undone last."""
    return _out(services.redo(draft_id, by=person_of(request)), request)


@router.put(
    "/{uuid:draft_id}/away", response={200: DraftOut, **refusals(401, 403, 404, 422)}, operation_id="draft_away", summary="Put away"
)
def away(request: HttpRequest, draft_id: UUID, payload: AwayIn) -> HttpResponse:
    """Put a draft away, or take it out again."""
    return _out(services.put_away(draft_id, by=person_of(request), is_away=payload.put_away), request)


@router.get(
    "/{uuid:draft_id}/standing", response={200: Standing, **refusals(401, 404)}, operation_id="draft_standing", summary="Where it stands"
)
def standing(request: HttpRequest, draft_id: UUID) -> HttpResponse:
    """Say whether a draft can be built by: faults, doubts, what is not known, each with the question that settles it."""
    found = services.draft_named(draft_id)
    tag = f"standing-{found.pk}-{found.changes}-{RULES_VERSION}"
    if (same := unchanged(request, tag)) is not None:
        return same
    now = written(draft_of(found))
    asked = [one.key for one in questions_of(now.answers)] if found.base is None else []
    return json_answer(standing_of(now.document, asked).model_dump_json(), tag=tag)


@router.get("/{uuid:draft_id}/walk", response={200: Walk, **refusals(401, 404, 429)}, operation_id="draft_walk", summary="Walk it")
def walk(request: HttpRequest, draft_id: UUID) -> Walk:
    """Say whether whoever answers everything rightly gets from nothing to a signed record."""
    return walk_of(services.draft_named(draft_id), person_of(request).username)


@router.get(
    "/{uuid:draft_id}/proposals",
    response={200: list[Proposal], **refusals(401, 404)},
    operation_id="draft_proposals",
    summary="What the bench proposes",
)
def proposals(request: HttpRequest, draft_id: UUID) -> list[Proposal]:
    """Say what was found, measured, left out at the bench of this family's engines, and how long steps really took."""
    return proposals_of(services.draft_named(draft_id))


@router.post(
    "/{uuid:draft_id}/proposals/leave",
    response={200: list[Proposal], **refusals(401, 403, 404, 409, 422)},
    operation_id="draft_leave",
    summary="Leave a proposal",
)
def leave(request: HttpRequest, draft_id: UUID, payload: LeaveIn) -> list[Proposal]:
    """Leave what the bench proposes."""
    return proposals_of(services.leave(draft_id, payload.proposal, by=person_of(request)))


@router.get("/{uuid:draft_id}/document.json", response=HANDED_OUT, operation_id="draft_export", summary="Hand the document out")
def export(request: HttpRequest, draft_id: UUID) -> HttpResponse:
    """Hand out what a draft says, as a file."""
    found = services.draft_named(draft_id)
    text = json.dumps(written(draft_of(found)).document, ensure_ascii=False, indent=1)
    name = "".join(letter for letter in found.name if letter.isalnum() or letter in " -")[:60].strip() or "draft"
    disposition = f'attachment; filename="{name.encode("ascii", "ignore").decode() or "draft"}.json"'
    return HttpResponse(text, content_type="application/json", headers={"Content-Disposition": disposition})


@router.put(
    "/{uuid:draft_id}/document",
    response={200: DraftOut, **refusals(401, 403, 404, 409, 413, 422)},
    operation_id="draft_take",
    summary="Take a document over",
)
def take(request: HttpRequest, draft_id: UUID, payload: TextIn) -> HttpResponse:
    """Make of a document that was changed as a whole the edits that lead to it."""
    return _out(services.take_text(draft_id, payload.text, made_on=payload.made_on, by=person_of(request)), request)


@router.get(
    "/{uuid:draft_id}/form",
    response={200: PlaceForm, **refusals(401, 404, 409, 422)},
    operation_id="draft_form",
    summary="One place's form",
)
def form(request: HttpRequest, draft_id: UUID, at: PlaceAt = "") -> HttpResponse:
    """Show what one place of a draft says, with its schema; and which places there are."""
    tag = f"form-{draft_id}-{services.draft_named(draft_id).changes}-{at}-{RULES_VERSION}"
    if (same := unchanged(request, tag)) is not None:
        return same
    return json_answer(services.form_at(draft_id, at).model_dump_json(), tag=tag)


@router.put(
    "/{uuid:draft_id}/form",
    response={200: DraftOut, **refusals(401, 403, 404, 409, 413, 422)},
    operation_id="draft_fill",
    summary="Take a form over",
)
def fill(request: HttpRequest, draft_id: UUID, payload: PlaceIn) -> HttpResponse:
    """Make of what one place's form says the edits that lead to it."""
    taken = services.put_place(draft_id, payload.at, payload.value, made_on=payload.made_on, by=person_of(request))
    return _out(taken, request)


@router.get(
    "/{uuid:draft_id}/needs",
    response={200: list[Needable], **refusals(401, 404)},
    operation_id="draft_needs",
    summary="What a step may need",
)
def needs(request: HttpRequest, draft_id: UUID) -> list[Needable]:
    """List all that a step of a draft may need, in words."""
    return needable(services.document_now(draft_id))


@router.post(
    "/{uuid:draft_id}/photo/read",
    response={200: PhotoRead, **refusals(401, 404, 422)},
    operation_id="draft_photo_read",
    summary="Read a photo's points",
)
def read_points(request: HttpRequest, draft_id: UUID, payload: PhotoIn) -> PhotoRead:
    """Say which places follow from what was pointed at on a photo; nothing is kept."""
    return services.photo_of(draft_id, payload.marks)


@router.post(
    "/{uuid:draft_id}/photo",
    response={200: DraftOut, **refusals(401, 403, 404, 409, 422)},
    operation_id="draft_photo",
    summary="Take a photo's places over",
)
def put_points(request: HttpRequest, draft_id: UUID, payload: PhotoIn) -> HttpResponse:
    """Set the places of shafts from a photo, as measured."""
    return _out(services.put_photo(draft_id, payload.marks, made_on=payload.made_on, by=person_of(request)), request)


@router.post(
    "/{uuid:draft_id}/table/read",
    response={200: TableRead, **refusals(401, 404, 413, 422)},
    operation_id="draft_table_read",
    summary="Read a pasted table",
)
def read_rows(request: HttpRequest, draft_id: UUID, payload: TableIn) -> TableRead:
    """Say what each row of a pasted table would become; nothing is kept."""
    return services.table_of(draft_id, payload.kind, payload.text)


@router.post(
    "/{uuid:draft_id}/table",
    response={200: DraftOut, **refusals(401, 403, 404, 409, 413, 422)},
    operation_id="draft_table",
    summary="Put a pasted table in",
)
def put_rows(request: HttpRequest, draft_id: UUID, payload: TableIn) -> HttpResponse:
    """Put every row of a pasted table in, or none."""
    return _out(services.put_table(draft_id, payload.kind, payload.text, made_on=payload.made_on, by=person_of(request)), request)


@router.post(
    "/{uuid:draft_id}/hand-in",
    response={201: HandedIn, **refusals(401, 403, 404, 409, 422, 429)},
    operation_id="draft_hand_in",
    summary="Hand it in",
)
def hand_in(request: HttpRequest, draft_id: UUID, payload: HandIn) -> Status[HandedIn]:
    """Take a draft in as its family's next revision; engines stay on theirs."""
    by: User = person_of(request)
    with HANDING.passed(by.username):
        revision = services.hand_in(draft_id, remark=payload.remark.strip(), by=by)
    return Status(201, HandedIn(family=revision.family_id, revision=revision.number))

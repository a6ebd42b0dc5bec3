"""Changes to drafts: begun, edited, undone and done again, put away, handed in."""

__all__ = [
    "add_edit",
    "add_edits",
    "begin",
    "document_now",
    "draft_named",
    "form_at",
    "hand_in",
    "leave",
    "may_write",
    "photo_of",
    "put_away",
    "put_photo",
    "put_place",
    "put_table",
    "redo",
    "table_of",
    "take_text",
    "undo",
]

import json
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404
from pydantic import JsonValue

from engine.models import Revision
from engine.services import import_text
from gurvo_core.errors import CoreError
from gurvo_core.reading import read_text
from gurvo_core.writer.asking.order import must_be_answered, question_of
from gurvo_core.writer.between import edits_between
from gurvo_core.writer.draft import Numbered, answers_of, clash_of, written
from gurvo_core.writer.edits import Answer, Clear, Edit, NoPlace
from gurvo_core.writer.form import PlaceForm, form_of, place_changes
from gurvo_core.writer.photo import PhotoMarks, PhotoRead, read_photo
from gurvo_core.writer.tables import TableKind, TableRead, read_table
from gurvo_core.writer.tape import tape_words
from shop.errors import Conflict, Forbidden, Refusal
from shop.models import Shop
from shop.roles import may_write_documents, role_of, shown_name
from writer.bridge import draft_of, edits_of, keep
from writer.errors import Meanwhile
from writer.models import Draft, DraftEdit

MOST_EDITS, MOST_LEFT = 20_000, 500
LARGEST = 900_000  # characters of the document that a draft begins with, or of one value


def draft_named(draft_id: UUID, *, to_change: bool = False) -> Draft:
    """Return a draft; one that was handed in is not changed any more."""
    draft = Draft.objects.filter(pk=draft_id).first()
    if draft is None:
        raise Http404
    if to_change and draft.handed_in_id is not None:
        raise Conflict("This draft was handed in; begin another one from its family.")
    return draft


def may_write(user: User) -> None:
    """Refuse whoever is no lead."""
    if not may_write_documents(role_of(user)):
        raise Forbidden("Only the lead describes engines; tell the lead what you found.")


def begin(by: User, *, name: str, base: dict[str, Any] | None, begun_from: str) -> Draft:
    """Begin a draft."""
    may_write(by)
    if base is not None and len(json.dumps(base)) > LARGEST:
        raise Refusal(f"This is longer than any engine document ({LARGEST} characters at most).", "text")
    return Draft.objects.create(name=name or "Not named yet", base=base, begun_from=begun_from, by=by)


def add_edit(draft_id: UUID, edit: Edit, *, made_on: int, by: User) -> Draft:
    """Add an edit that was made on what stood at a number; one about what somebody else wrote since is not taken, and said."""
    return add_edits(draft_id, [edit], made_on=made_on, by=by)


@transaction.atomic
def add_edits(draft_id: UUID, edits: Sequence[Edit], *, made_on: int, by: User) -> Draft:
    """Add edits that belong together, all of them or none."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    before = edits_of(draft)
    if before and before[-1].number > made_on:
        others = DraftEdit.objects.filter(draft=draft, number__gt=made_on, is_undone=False).exclude(by=by)
        by_others = set(others.values_list("number", flat=True))
        for edit in edits:
            _meanwhile(draft, [one for one in before if one.number in by_others], edit)
    last = DraftEdit.objects.filter(draft=draft).order_by("-number").values_list("number", flat=True).first() or 0
    if last + len(edits) > MOST_EDITS:
        raise Conflict(f"A draft takes {MOST_EDITS} edits at most; hand it in, or begin another one from what it says.")
    new = [Numbered(last + n, _canonical(before, edit)) for n, edit in enumerate(edits, 1)]
    rows = [DraftEdit(draft=draft, number=one.number, body=one.edit.model_dump(mode="json"), by=by) for one in new]
    if any(len(json.dumps(row.body)) > LARGEST for row in rows):
        raise Refusal(f"This is longer than any engine document ({LARGEST} characters at most).", "edit.value")
    after = (*before, *new)
    if any(not isinstance(edit, Answer | Clear) for edit in edits):
        lost = written(draft_of(draft)._replace(edits=after)).lost
        if why := next((lost[one.number] for one in new if one.number in lost), ""):
            raise Conflict(f"This has no place: {why}. Nothing was changed.", "edit")
    DraftEdit.objects.filter(draft=draft, is_undone=True).update(is_passed=True)
    DraftEdit.objects.bulk_create(rows)
    return _changed(draft, after)


@transaction.atomic
def take_text(draft_id: UUID, text: str, *, made_on: int, by: User) -> Draft:
    """Make of a whole document the edits that lead to it; one that somebody else changed meanwhile is not taken."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    if edits_of(draft) and edits_of(draft)[-1].number > made_on:
        raise Meanwhile("Somebody changed this draft meanwhile; look at it as it is now, and change it there.", "text")
    data = read_text(text)
    if not isinstance(data, dict):
        raise Refusal("An engine document is one group, in braces; this is something else.", "text")
    changes = edits_between(written(draft_of(draft)).document, data)
    return add_edits(draft_id, changes, made_on=MOST_EDITS, by=by) if changes else draft


def document_now(draft_id: UUID) -> dict[str, Any]:
    """What a draft says by now."""
    return written(draft_of(draft_named(draft_id))).document


def form_at(draft_id: UUID, at: str) -> PlaceForm:
    """The form of one place of a draft."""
    try:
        return form_of(document_now(draft_id), at)
    except NoPlace as error:
        raise Conflict(f"This is not there: {error}. Choose another place.", "at") from None


@transaction.atomic
def put_place(draft_id: UUID, at: str, value: JsonValue, *, made_on: int, by: User) -> Draft:
    """Make of what a form says the edits that lead to it."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    try:
        changes = place_changes(written(draft_of(draft)).document, at, value)
    except NoPlace as error:
        raise Conflict(f"This has no place: {error}. Nothing was changed.", "at") from None
    return add_edits(draft_id, changes, made_on=made_on, by=by) if changes else draft


def photo_of(draft_id: UUID, marks: PhotoMarks) -> PhotoRead:
    """What a photo tells of the front of a draft."""
    return read_photo(marks, document_now(draft_id))


@transaction.atomic
def put_photo(draft_id: UUID, marks: PhotoMarks, *, made_on: int, by: User) -> Draft:
    """Take the places that follow from a photo over, as measured."""
    may_write(by)
    draft_named(draft_id, to_change=True)
    found = photo_of(draft_id, marks)
    if found.wrong:
        raise Refusal(found.wrong, "marks")
    return add_edits(draft_id, found.edits, made_on=made_on, by=by)


def table_of(draft_id: UUID, kind: TableKind, text: str) -> TableRead:
    """A pasted table, as it would be put into a draft."""
    try:
        return read_table(kind, text, document_now(draft_id))
    except CoreError as error:
        raise error.under("") from None


@transaction.atomic
def put_table(draft_id: UUID, kind: TableKind, text: str, *, made_on: int, by: User) -> Draft:
    """Put the rows of a table in, all of them or none: each is an edit of its own."""
    may_write(by)
    draft_named(draft_id, to_change=True)
    table = table_of(draft_id, kind, text)
    if table.wrong:
        raise Refusal(table.wrong, "text")
    if not table.edits:
        raise Refusal("There is no row in this; paste a table, or write a line with ; between the cells.", "text")
    return add_edits(draft_id, table.edits, made_on=made_on, by=by)


def _meanwhile(draft: Draft, since: list[Numbered], edit: Edit) -> None:
    number = clash_of(since, edit)
    if number is None:
        return
    row = DraftEdit.objects.select_related("by").get(draft=draft, number=number)
    now = written(draft_of(draft))
    questions = {key: found for key in [getattr(edit, "question", "")] if (found := question_of(now.answers, key)) is not None}
    other = next(one.edit for one in since if one.number == number)
    words = tape_words(other, now.document, questions)
    said = f"{shown_name(row.by)} wrote meanwhile: {words.what}: {words.said}"
    raise Meanwhile(f"{said}. Yours was not taken; write it once more if it holds.", "edit")


def _canonical(edits: tuple[Numbered, ...], edit: Edit) -> Edit:
    """An answer in its one form; refused with the word that cannot be read."""
    if not isinstance(edit, Answer):
        return edit
    question = question_of(answers_of(edits), edit.question)
    if question is None:
        raise Conflict("This is not asked of this engine any more; look at what was answered before it.", "edit.question")
    if edit.text is None:
        if question.must_be_known:
            raise Refusal("This must be known to describe an engine; write what the shop would say.", "edit.text")
        return edit
    try:
        return edit.model_copy(update={"text": question.read(edit.text)})
    except CoreError as error:
        raise error.under("edit") from None


def _changed(draft: Draft, edits: tuple[Numbered, ...]) -> Draft:
    draft.changes += 1
    name = next((one.edit.text for one in reversed(edits) if isinstance(one.edit, Answer) and one.edit.question == "name"), None)
    draft.name = name or draft.name
    draft.save(update_fields=["changes", "name", "changed_at"])
    keep(draft, edits)
    return draft


@transaction.atomic
def undo(draft_id: UUID, *, by: User) -> Draft:
    """Undo the last edit that stands."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    last = DraftEdit.objects.filter(draft=draft, is_undone=False).order_by("-number").first()
    if last is None:
        raise Conflict("Nothing is left to be undone.")
    DraftEdit.objects.filter(pk=last.pk).update(is_undone=True)
    return _changed(draft, tuple(one for one in edits_of(draft) if one.number != last.number))


@transaction.atomic
def redo(draft_id: UUID, *, by: User) -> Draft:
    """Do again what was undone last, as long as nothing else was written since."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    first = DraftEdit.objects.filter(draft=draft, is_undone=True, is_passed=False).order_by("number").first()
    if first is None:
        raise Conflict("Nothing is left to be done again.")
    DraftEdit.objects.filter(pk=first.pk).update(is_undone=False)
    draft.changes += 1  # what is kept of it is not how it stands now
    return _changed(draft, edits_of(draft))


@transaction.atomic
def leave(draft_id: UUID, proposal: str, *, by: User) -> Draft:
    """Leave what the bench proposes: it is not proposed to this draft again."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    draft.left = [*draft.left, proposal][-MOST_LEFT:]
    draft.save(update_fields=["left"])
    return draft


@transaction.atomic
def put_away(draft_id: UUID, *, by: User, is_away: bool) -> Draft:
    """Put a draft away, or take it out again; nothing of it is lost."""
    may_write(by)
    draft = draft_named(draft_id)
    draft.put_away = is_away
    draft.save(update_fields=["put_away"])
    return draft


def hand_in(draft_id: UUID, *, remark: str, by: User) -> Revision:
    """Take a draft in as its family's next revision."""
    may_write(by)
    draft = draft_named(draft_id, to_change=True)
    now = written(draft_of(draft))
    for question in must_be_answered(now.answers) if draft.base is None else ():
        raise Refusal(f"“{question.title}” is not answered yet; nothing can be built by it before.", question.key)
    shop = Shop.objects.first()
    if shop is not None and shop.second_lead_looks and DraftEdit.objects.filter(draft=draft, by=by, is_undone=False).exists():
        raise Forbidden("In this shop a lead who wrote none of it looks first and hands it in; ask another lead.")
    revision = import_text(json.dumps(now.document, ensure_ascii=False), remark=remark, by=by)
    Draft.objects.filter(pk=draft.pk).update(handed_in=revision)
    return revision

"""The families' API; read only for now."""

from django.db.models import Count
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from config.schemas import Problem, refusals
from engine.bridge import document_of
from engine.models import Family, Revision
from engine.schemas import FamilyOut, FamilyRow

router = Router()


@router.get("", response={200: list[FamilyRow], 401: Problem}, operation_id="families_list", summary="All families")
def families(request: HttpRequest) -> list[FamilyRow]:
    """List families with their newest revision."""
    engines = dict(Family.objects.annotate(n=Count("revisions__engines")).values_list("code", "n"))
    newest: dict[str, Revision] = {}
    for revision in Revision.objects.select_related("family").newest_first():
        newest.setdefault(revision.family_id, revision)
    rows = []
    for code, revision in newest.items():
        identity = document_of(revision.pk).identity
        row = {"code": code, "name": identity.name, "layout": identity.layout, "fuel": identity.fuel}
        rows.append(FamilyRow.model_validate({**row, "revision": revision.number, "engines": engines[code]}))
    return rows


@router.get("/{code}", response={200: FamilyOut, **refusals(401, 404)}, operation_id="family_look", summary="One family")
def family(request: HttpRequest, code: str) -> FamilyOut:
    """Show a family's newest document."""
    row = get_object_or_404(Family, code=code)
    revision = row.revisions.newest_first().first()
    assert revision is not None
    return FamilyOut(code=row.code, name=row.name, revision=revision.number, at=revision.at, document=document_of(revision.pk))

"""The API of looking back: how the engines of a family came out, and all of it as a table."""

from typing import Literal

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.shortcuts import get_object_or_404
from ninja import Router

from config.schemas import HANDED_OUT, refusals
from engine.models import Family
from shop.gate import Line
from shop.roles import person_of
from work.downloads import download
from work.looking_back import back_of, figures_table, happenings_table, minutes_table
from work.record.table import csv_of
from work.schemas import BackOut

router = Router()
LOOKING = Line("Others are looking back just now")


@router.get("/{code}", response={200: BackOut, **refusals(401, 404, 429)}, operation_id="look_back", summary="How a family came out")
def look_back(request: HttpRequest, code: str) -> BackOut:
    """Show figures, minutes and happenings over a family's engines; some may still be drawn up, then ask again."""
    family = get_object_or_404(Family, pk=code)
    with LOOKING.passed(person_of(request).username):
        return back_of(family.code, family.name)


TABLES = {"figures": figures_table, "happenings": happenings_table, "minutes": minutes_table}


@router.get("/{code}/{table}.csv", response=HANDED_OUT | refusals(422), operation_id="look_back_csv", summary="All of it as tables")
def table_csv(request: HttpRequest, code: str, table: Literal["figures", "happenings", "minutes"]) -> HttpResponseBase:
    """Hand out every figure, happening or minute that was drawn up."""
    family = get_object_or_404(Family, pk=code)
    return download(request, csv_of(TABLES[table](family.code)), "text/csv; charset=utf-8", f"{family.code}-{table}.csv")

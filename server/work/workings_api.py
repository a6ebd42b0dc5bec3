"""The Workings' API: one bolt, one span of belt, one chain, without an engine."""

from django.http import HttpRequest
from ninja import File, Query, Router
from ninja.files import UploadedFile

from config.schemas import refusals
from gurvo_core.drive.pluck import pitch_of, read_wav
from gurvo_core.drive.span import plausible_hz
from gurvo_core.drive.workings import DriveAsked, drive_workings
from gurvo_core.errors import ReadingError
from gurvo_core.joints.workings import BoltAsked, workings_of
from gurvo_core.workings import Line
from work.schemas import PluckOut

router = Router()
MOST_BYTES = 2_000_000


@router.get("/bolt", response={200: list[Line], **refusals(401, 422)}, operation_id="workings_bolt", summary="What can be said of one bolt")
def bolt(request: HttpRequest, asked: Query[BoltAsked]) -> list[Line]:
    """Say what a torque and an angle do to one bolt, each figure with its formula and source."""
    return workings_of(asked)


@router.get("/drive", response={200: list[Line], **refusals(401, 422)}, operation_id="workings_drive", summary="One span, one chain")
def drive(request: HttpRequest, asked: Query[DriveAsked]) -> list[Line]:
    """Say what a span sounds at or how tight it is, and how far a chain has worn longer."""
    return drive_workings(asked)


@router.post("/pluck", response={200: PluckOut, **refusals(401, 413, 422)}, operation_id="workings_pluck", summary="A plucked span")
def pluck(request: HttpRequest, asked: Query[DriveAsked], file: File[UploadedFile]) -> PluckOut:
    """Say at which pitch a plucked span sounds in a recording, or that it cannot be told. Where the span's length, the belt's mass and the
    tension that is wanted are said, only a pitch that goes with them.
    """
    if (file.size or 0) > MOST_BYTES:
        raise ReadingError("file", file.size, f"a recording is {MOST_BYTES // 1_000_000} MB at most: a few seconds are enough")
    rate, samples = read_wav(file.read())
    tension_n, span_mm, mass_g_m = asked.tension_n, asked.span_mm, asked.mass_g_m
    within = plausible_hz(tension_n, span_mm, mass_g_m) if tension_n and span_mm and mass_g_m else None
    found = pitch_of(samples, rate, within)
    return PluckOut(frequency_hz=round(found.frequency_hz, 2), u_hz=round(found.u_hz, 2), share=round(found.share, 3))

"""The Workings' API: one bolt, without an engine."""

from django.http import HttpRequest
from ninja import Query, Router

from config.schemas import refusals
from gurvo_core.joints.workings import BoltAsked, Line, workings_of

router = Router()


@router.get("/bolt", response={200: list[Line], **refusals(401, 422)}, operation_id="workings_bolt", summary="What can be said of one bolt")
def bolt(request: HttpRequest, asked: Query[BoltAsked]) -> list[Line]:
    """Say what a torque and an angle do to one bolt, each figure with its formula and source."""
    return workings_of(asked)

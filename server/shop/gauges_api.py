"""The gauges' API: all of them, one entered or changed, checks, and what each was used on."""

from django.http import HttpRequest
from ninja import Router, Status
from ninja.params import P, PathEx

from config.schemas import Problem, refusals
from gurvo_core.ledger import GAUGE_UNIT
from gurvo_core.ledger.usual import USUAL_GAUGES
from shop import gauges
from shop.roles import person_of
from shop.schemas import CheckIn, GaugeHistory, GaugeIn, GaugeOut, UsualGaugeOut

router = Router()
CODE = r"^[A-Za-z0-9][A-Za-z0-9._-]{0,39}$"


def _all() -> list[GaugeOut]:
    return [GaugeOut.model_validate(gauge) for gauge in gauges.all_gauges()]


@router.get("", response={200: list[GaugeOut], 401: Problem}, operation_id="gauges_list", summary="All gauges")
def all_of_them(request: HttpRequest) -> list[GaugeOut]:
    """List every gauge and wrench with what its calibration says."""
    return _all()


@router.get("/usual", response={200: list[UsualGaugeOut], 401: Problem}, operation_id="gauges_usual", summary="Gauges most shops have")
def usual(request: HttpRequest) -> list[UsualGaugeOut]:
    """List gauges to begin with, each as it is taken to be until its certificate is entered."""
    return [UsualGaugeOut.model_validate({**one._asdict(), "unit": GAUGE_UNIT[one.kind]}) for one in USUAL_GAUGES]


@router.put("/{code}", response={200: list[GaugeOut], **refusals(401, 403, 422)}, operation_id="gauge_set", summary="Add or change a gauge")
def set_one(request: HttpRequest, code: PathEx[str, P(pattern=CODE)], payload: GaugeIn) -> list[GaugeOut]:
    """Add a gauge, or change what is known of it; answer with all of them."""
    gauges.set_gauge(code, person_of(request), payload.model_dump())
    return _all()


@router.post(
    "/{code}/checks",
    response={201: list[GaugeOut], **refusals(401, 403, 404, 422)},
    operation_id="gauge_check",
    summary="Try it against another",
)
def check(request: HttpRequest, code: str, payload: CheckIn) -> Status[list[GaugeOut]]:
    """Keep what a gauge showed when it was tried against another; answer with all of them."""
    gauges.check_gauge(code, person_of(request), payload.model_dump())
    return Status(201, _all())


@router.get(
    "/{code}/history", response={200: GaugeHistory, **refusals(401, 404)}, operation_id="gauge_history", summary="Its checks and uses"
)
def history(request: HttpRequest, code: str) -> GaugeHistory:
    """Say what a gauge was tried against and what it was used on."""
    return GaugeHistory.model_validate(gauges.history_of(code))

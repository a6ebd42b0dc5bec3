"""The API of the cam drive: what comes of a chain or belt laid so, and what is likely wrong. Nothing of it is kept."""

from django.http import Http404, HttpRequest
from ninja import Query, Router

from config.schemas import refusals
from gurvo_core.drive.lay import Around, LayAsked, LayView, lay_view
from gurvo_core.drive.what_if import ChangedAsked, ChangedView, changed_view
from gurvo_core.run.job.lay import held_by, laid_loops, looks_made, loop_of
from gurvo_core.run.job.state import RunState
from gurvo_core.timing.job.causes import CausesAsked, CausesView, causes_view
from work import bridge
from work.finding import engine_of

router = Router()


@router.post(
    "/{serial}/lay/{step}",
    response={200: LayView, **refusals(401, 404, 422)},
    operation_id="lay_look",
    summary="What comes of laying it so",
)
def lay(request: HttpRequest, serial: str, step: str, payload: LayAsked) -> LayView:
    """Say where every shaft ends once the slack is taken up, what a turn would show, and how to lay it right."""
    now: RunState | None = bridge.ledger_of(engine_of(serial)).folded.states.get("run")
    planned = now.plan.by_id.get(step) if now else None
    loop = loop_of(now.document, planned.step) if now and planned else None
    if now is None or planned is None or loop is None:
        raise Http404
    at = planned.step.position or now.parked
    crank_deg = now.document.position_deg(at) if at and now.document.is_placed(at) else None
    return lay_view(now.document, loop, payload, Around(held=held_by(now), laid=laid_loops(now), crank_deg=crank_deg))


@router.post(
    "/{serial}/causes",
    response={200: CausesView, **refusals(401, 404, 422)},
    operation_id="causes_look",
    summary="What is likely wrong",
)
def causes(request: HttpRequest, serial: str, payload: CausesAsked) -> CausesView:
    """Rank what would explain the measured camshafts, with the one check that tells the first two apart."""
    states = bridge.ledger_of(engine_of(serial)).folded.states
    if "timing" not in states:
        raise Http404
    return causes_view(states["timing"], payload, looks_made(states["run"]) if "run" in states else None)


@router.get(
    "/{serial}/changed",
    response={200: ChangedView, **refusals(401, 404, 422)},
    operation_id="changed_look",
    summary="What wear and machining would do",
)
def changed(request: HttpRequest, serial: str, asked: Query[ChangedAsked]) -> ChangedView:
    """Say how late each camshaft would stand, and how far out each tensioner."""
    return changed_view(bridge.ledger_of(engine_of(serial)).folded.document, asked)

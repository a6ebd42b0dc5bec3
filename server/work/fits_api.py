"""The API of fits and lash: whole sheets, what a pasted one says, what stock and shims would give."""

from django.http import HttpRequest
from ninja import Query, Router

from config.schemas import refusals
from gurvo_core.fits.job.intake import SheetRead
from gurvo_core.fits.job.view import FitSheet
from gurvo_core.fits.job.whatif import ChamberAsked, ChamberView, chamber_view
from gurvo_core.lash.job.view import LashSheet
from work import bridge
from work.finding import engine_of
from work.fits import intake, sheet_of, shims_of
from work.schemas import PastedIn

router = Router()


@router.get(
    "/{serial}/fits/{step}/{fit}", response={200: FitSheet, **refusals(401, 404)}, operation_id="fit_look", summary="All of one fit"
)
def fit(request: HttpRequest, serial: str, step: str, fit: str) -> FitSheet:
    """Show every reading of a fit, what would settle it, what stock would give, and how others of its family came out."""
    return sheet_of(engine_of(serial), step, fit)


@router.post(
    "/{serial}/fits/{step}/{fit}/pasted",
    response={200: SheetRead, **refusals(401, 404, 413, 422)},
    operation_id="fit_pasted",
    summary="What a pasted sheet says",
)
def pasted(request: HttpRequest, serial: str, step: str, fit: str, payload: PastedIn) -> SheetRead:
    """Say which figures of a sheet would be taken and which not; nothing is kept."""
    return intake(engine_of(serial), step, fit, payload.text)


@router.get(
    "/{serial}/lash/{step}", response={200: LashSheet, **refusals(401, 404)}, operation_id="lash_look", summary="What shims would give"
)
def lash(request: HttpRequest, serial: str, step: str) -> LashSheet:
    """Show which shim would go to which valve, from the engine's own, stock, or to be bought."""
    return shims_of(engine_of(serial), step)


@router.get(
    "/{serial}/chamber",
    response={200: ChamberView | None, **refusals(401, 404, 422)},
    operation_id="chamber_look",
    summary="Compression ratio",
)
def chamber(request: HttpRequest, serial: str, asked: Query[ChamberAsked]) -> ChamberView | None:
    """Say compression ratio and squish of every cylinder, as measured or with another gasket or a skimmed head."""
    return chamber_view(bridge.ledger_of(engine_of(serial)).folded.states["fits"], asked)

"""The API of an engine's pictures: its twin, how it stands from each side, how it turns, and what is told of a part that was touched."""

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router
from ninja.params import P, QueryEx

from config.answers import etag, json_answer, unchanged
from config.schemas import refusals
from engine.bridge import Places, places_of, scene_json, snapshot_of, turning_json, twin_json, words_of
from gurvo_core.clearway.job.thought import ground_of
from gurvo_core.clearway.shown import AtPlaces, ClearwayMap, ClearwayShown, MapPlace, at_places, map_of, shown_of
from gurvo_core.drive import Phasers, Twin
from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import CAM_PLACES, Folded
from gurvo_core.motion import Snapshot
from gurvo_core.scene import Scene, SideTurning
from gurvo_core.work import RULES_VERSION, PartTold
from work import bridge
from work.finding import engine_of
from work.floor import drawn_small, drawn_tag
from work.models import Engine

router = Router()


def _drawn(serial: str, phasers: Phasers) -> tuple[EngineDocument, Places]:
    """The engine's document with what was found at the bench, and where its camshafts stand."""
    folded = bridge.ledger_of(engine_of(serial)).folded
    return folded.document, places_of(folded.document, folded.facts.get(CAM_PLACES) or {}, phasers)


@router.get("/{serial}/twin", response={200: Twin, **refusals(401, 404, 422)}, operation_id="engine_twin", summary="The engine's twin")
def twin(request: HttpRequest, serial: str, phasers: Phasers = "rest") -> HttpResponse:
    """Hand out the twin with the camshafts where they were measured."""
    engine = engine_of(serial)
    document, places = _drawn(serial, phasers)
    tag = f"twin-{engine.revision_id}-{RULES_VERSION}-{sorted(places, key=str)}-{_found(bridge.ledger_of(engine).folded)}"
    return unchanged(request, tag) or json_answer(twin_json(document, places), tag=tag, packed_for=request)


@router.get("/{serial}/turning", response={200: SideTurning, **refusals(401, 404)}, operation_id="engine_turning", summary="How it turns")
def turning(request: HttpRequest, serial: str) -> HttpResponse:
    """Hand out the engine from the side as its crank turns."""
    engine = engine_of(serial)
    folded = bridge.ledger_of(engine).folded
    tag = f"turning-{engine.revision_id}-{RULES_VERSION}-{_found(folded)}"
    return unchanged(request, tag) or json_answer(turning_json(folded.document), tag=tag, packed_for=request)


def _found(folded: Folded) -> list[tuple[str, object]]:
    """What was found at the bench, and is part of the document since."""
    return [(one.fact.pointer, one.fact.value) for one in folded.states["found"].found.values()]


@router.get(
    "/{serial}/picture.svg", response={200: None, **refusals(401, 404)}, operation_id="engine_picture", summary="How it stands, drawn small"
)
def small(request: HttpRequest, serial: str) -> HttpResponse:
    """Hand out the engine as it stands as a small drawing, what is asked in blue."""
    tag = drawn_tag(serial)
    return unchanged(request, tag) or HttpResponse(drawn_small(serial), content_type="image/svg+xml", headers={"ETag": etag(tag)})


@router.get(
    "/{serial}/parts/{part}", response={200: PartTold, **refusals(401, 404)}, operation_id="engine_part", summary="What is told of a part"
)
def told_of_part(request: HttpRequest, serial: str, part: str) -> HttpResponse:
    """Say what the ledger knows of one part of the pictures: what its steps came to, what is left loose, its entries."""
    told = bridge.told_of(bridge.ledger_of(engine_of(serial)), part)
    return HttpResponse(told.model_dump_json(), content_type="application/json")


@router.get("/{serial}/scene", response={200: Scene, **refusals(401, 404, 422)}, operation_id="engine_scene", summary="How it is drawn")
def scene(request: HttpRequest, serial: str, crank_deg: QueryEx[float, P(ge=0, le=1440, allow_inf_nan=False)] = 0.0) -> HttpResponse:
    """Hand out the engine's pictures with its crank at an angle, and what each step is about; how far each part has come its state says."""
    engine = engine_of(serial)
    folded = bridge.ledger_of(engine).folded
    tag = f"scene-{engine.revision_id}-{RULES_VERSION}-{crank_deg}-{_found(folded)}"
    return unchanged(request, tag) or json_answer(scene_json(folded.document, round(crank_deg, 1)), tag=tag, packed_for=request)


@router.get(
    "/{serial}/clearway", response={200: ClearwayShown, **refusals(401, 404)}, operation_id="engine_clearway", summary="What may meet"
)
def clearway(request: HttpRequest, serial: str) -> HttpResponse:
    """Hand out how near an engine's valves come as it was measured, how far its camshafts may be moved and where they rest."""
    engine = engine_of(serial)
    folded, tag = bridge.ledger_of(engine).folded, _entries_tag(engine)
    if (same := unchanged(request, tag)) is not None:
        return same
    advances = {cam: place.advance_deg for cam, place in (folded.facts.get(CAM_PLACES) or {}).items()}
    return json_answer(shown_of(ground_of(folded.states["clearway"]), advances).model_dump_json(), tag=tag, packed_for=request)


@router.get(
    "/{serial}/clearway/map",
    response={200: ClearwayMap, **refusals(401, 404, 422)},
    operation_id="engine_clearway_map",
    summary="The map of two shafts",
)
def clearway_map(request: HttpRequest, serial: str, first: str, second: str) -> HttpResponse:
    """Hand out where two shafts of an engine must not stand together, by what was measured of it."""
    engine = engine_of(serial)
    folded, tag = bridge.ledger_of(engine).folded, f"{_entries_tag(engine)}-{first}-{second}"
    same = unchanged(request, tag)
    return same or json_answer(map_of(ground_of(folded.states["clearway"]), first, second).model_dump_json(), tag=tag, packed_for=request)


@router.get(
    "/{serial}/clearway/at",
    response={200: AtPlaces, **refusals(401, 404, 422)},
    operation_id="engine_clearway_at",
    summary="What is nearest at a place",
)
def clearway_at(request: HttpRequest, serial: str, place: Query[MapPlace]) -> AtPlaces:
    """Say which valves come nearest with two shafts at some places, and how the camshaft rests there."""
    return at_places(ground_of(bridge.ledger_of(engine_of(serial)).folded.states["clearway"]), place)


def _entries_tag(engine: Engine) -> str:
    """What changes with every entry."""
    return f"clearway-{engine.revision_id}-{RULES_VERSION}-{engine.head}"


@router.get(
    "/{serial}/twin/words", response={200: list[str], **refusals(401, 404, 409, 422)}, operation_id="engine_words", summary="Every degree"
)
def words(request: HttpRequest, serial: str, phasers: Phasers = "rest") -> list[str]:
    """Say in a sentence what is to be seen at every degree of a cycle."""
    return words_of(*_drawn(serial, phasers))


@router.get("/{serial}/snapshot", response={200: Snapshot, **refusals(401, 404, 422)}, operation_id="engine_snapshot", summary="One angle")
def snapshot(
    request: HttpRequest, serial: str, crank_deg: QueryEx[float, P(ge=-1440, le=1440, allow_inf_nan=False)], phasers: Phasers = "rest"
) -> Snapshot:
    """Say everything that is to be seen at one crank angle, with the camshafts where they were measured."""
    document, places = _drawn(serial, phasers)
    return snapshot_of(document, crank_deg, places)

"""All of one fit: every reading, what would settle a place, what stock would give, how others of its family came out."""

__all__ = ["Others", "fit_sheet", "shelf_for"]

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from gurvo_core.engine import Select
from gurvo_core.fits.chamber import choose_gasket
from gurvo_core.fits.choose import Bare, choose
from gurvo_core.fits.clearance import ReadWith, Size, size_of
from gurvo_core.fits.job.book import AXIS_SIGNS, PlacedFit
from gurvo_core.fits.job.show import fit_view
from gurvo_core.fits.job.state import FitsState, ReadSpot
from gurvo_core.fits.job.view import (
    ChoiceRow,
    ChoiceView,
    FitSheet,
    SheetCell,
    SheetColumn,
    SheetLine,
    SizeView,
    TrendLine,
    WayView,
)
from gurvo_core.fits.settle import Settling, brings_in, settle
from gurvo_core.ledger import GAUGE_UNIT, Gauge
from gurvo_core.sentence import at_start, fine

LIKE = {"micrometer": ("micrometer",), "caliper": ("caliper", "micrometer"), "bore": ("bore",), "strip": ("strip", "bore", "micrometer")}
MOST_SIZES = 2  # of another part that are offered
Stock = Mapping[str, Mapping[str, int]]


@dataclass(frozen=True, kw_only=True)
class Others:
    """How one place came out in the other engines of the family [mm]."""

    values_mm: Sequence[float]


def shelf_for(fit: PlacedFit, now: FitsState, gauges: Sequence[Gauge]) -> dict[str, ReadWith]:
    """Return the gauges that could read a side of a fit instead.

    Source: Practice: a bore is read again with a bore gauge, a journal with a micrometer of its range.
    >>> from gurvo_core.fits.job.state import begin_fits
    >>> fit = PlacedFit(document=quern_4(), fit=Fit(id="f", name="Float", gap={"name": "gap"}), is_guessed=False)
    >>> shelf_for(fit, begin_fits(quern_4()), [Gauge(id="F1", name="x", kind="feeler", resolution=0.01, expanded_uncertainty=0)])
    {}
    """
    found = {}
    kinds = {gauge.id: gauge.kind for gauge in gauges}
    for key, side in fit.fit.sides:
        ready = now.ready.get((fit.fit.id, key))
        used = kinds.get(ready.gauge or "") if ready else None
        if used is None or ready is None:
            continue
        for gauge in gauges:
            nominal = side.nominal_mm
            in_range = nominal is None or ((gauge.least or 0) <= nominal <= (gauge.most or math.inf))
            if GAUGE_UNIT[gauge.kind] == "mm" and gauge.kind in LIKE.get(used, (used,)) and in_range:
                found[f"{key}:{gauge.id}"] = ReadWith(
                    resolution_mm=gauge.resolution,
                    calibration_mm=gauge.expanded_uncertainty,
                    standard_mm=ready.read_with.standard_mm,
                )
    return found


def fit_sheet(
    now: FitsState,
    fit: PlacedFit,
    step_id: str,
    *,
    gauges: Sequence[Gauge] = (),
    stock: Stock | None = None,
    others: Mapping[str, Others] | None = None,
) -> FitSheet:
    """Return all of one fit."""
    read = now.of_fit(fit.fit.id)
    lines = [SheetLine(place=place, cells=[_cell(read.get(spot.key)) for spot in spots]) for place, spots in fit.at_place.items()]
    shelf = shelf_for(fit, now, gauges)
    return FitSheet(
        fit=fit_view(now, fit, step_id),
        columns=_columns(fit),
        lines=lines,
        ways=[way for place in fit.at_place for way in _ways(now, fit, place, shelf, stock)],
        choice=_choice(now, fit, stock),
        trend=_trends(now, fit, others or {}),
        gasket=_gasket(now, fit),
    )


def _columns(fit: PlacedFit) -> list[SheetColumn]:
    first = fit.places[0].id
    side_names = {key: side.name for key, side in fit.fit.sides}
    return [
        SheetColumn(
            side=spot.side,
            plane=spot.plane,
            axis=spot.axis,
            label=" ".join(filter(None, [side_names[spot.side], spot.plane, AXIS_SIGNS.get(spot.axis, spot.axis)])),
        )
        for spot in fit.at_place[first]
    ]


def _cell(readings: Sequence[ReadSpot] | None) -> SheetCell | None:
    if not readings:
        return None
    size = size_of([one.size_mm for one in readings], readings[-1].read_with)
    last = readings[-1]
    return SheetCell(size_mm=round(size.estimate.value, 6), count=len(readings), gauge=last.gauge or "", by=last.by)


def _ways(now: FitsState, fit: PlacedFit, place: str, shelf: Mapping[str, ReadWith], stock: Stock | None) -> list[WayView]:
    stands = now.stands(fit.fit.id, place)
    if stands is None or (fit.fit.id, place) in now.decided:
        return []
    low, high = fit.limits_mm
    if stands.judged.verdict == "out":
        figure = stands.judged.figure
        others, rule = _other_sizes(now, fit, place, figure.value, stock), fit.document.decision_rule
        found = brings_in(figure, (low, high), wanted_mm=fit.wanted_mm, is_filed=fit.fit.at == "rings", sizes=others, rule=rule)
        return [WayView(place=place, words=way.words, settles=way.settles) for way in found]
    if stands.judged.verdict != "can't tell":
        return []
    read = now.of_fit(fit.fit.id)
    readings = {spot.side: read[spot.key] for spot in fit.at_place[place]}
    scattered: dict[str, Size] = {key: size_of([one.size_mm for one in own], own[-1].read_with) for key, own in readings.items()}
    case = Settling(
        figure=stands.judged.figure,
        low_mm=low,
        high_mm=high,
        sides={key: own[-1].read_with for key, own in readings.items()},
        sizes_mm={key: size.estimate.value for key, size in scattered.items()},
        scatter_mm={key: size.scatter_mm for key, size in scattered.items()},
        counts={key: size.count for key, size in scattered.items()},
        rule=fit.document.decision_rule,
        called={key: side.name for key, side in fit.fit.sides},
        gauge={key: own[-1].gauge or "" for key, own in readings.items()},
    )
    sizes = _other_sizes(now, fit, place, stands.judged.figure.value, stock)
    return [WayView(place=place, words=way.words, settles=way.settles) for way in settle(case, shelf, sizes)]


def _other_sizes(now: FitsState, fit: PlacedFit, place: str, value_mm: float, stock: Stock | None) -> list[tuple[str, float]]:
    """What the other sizes of the part would give at a place, as far as they are free; the one nearest to what is wanted first."""
    select = fit.fit.select
    size = select.size_of(now.size_in(fit, place)) if select else None
    if select is None or size is None:
        return []
    free = stock.get(select.part, {}) if stock is not None else None
    others = [
        (f"{select.part} {one.id}", round(value_mm - select.takes * (one.size_mm - size), 6))
        for one in select.classes
        if one.size_mm != size and (free is None or free.get(one.id, 0) >= select.pieces)
    ]
    wanted = fit.wanted_mm
    return sorted(others, key=lambda one: abs(one[1] - wanted))[:MOST_SIZES] if wanted is not None else others[:MOST_SIZES]


def _choice(now: FitsState, fit: PlacedFit, stock: Stock | None) -> ChoiceView | None:
    """What stock would give, once all is measured."""
    select = fit.fit.select
    if select is None:
        return None
    free = (stock or {}).get(select.part, {})
    sizes = [SizeView(id=one.id, tells=one.tells, size_mm=one.size_mm, free=free.get(one.id, 0) // select.pieces) for one in select.classes]
    bare = _bare(now, fit, select)
    wanted = fit.wanted_mm
    if bare is None or wanted is None:
        words = "All places are measured first." if bare is None else "Nothing is known of what clearance is wanted."
        return ChoiceView(part=select.part, pieces=select.pieces, wanted_mm=wanted, sizes=sizes, rows=[], words=words)
    counts = {one.id: one.free for one in sizes}
    # what is in the engine already may change places
    for place in fit.places:
        size = now.size_in(fit, place.id)
        if size is not None and select.measured_in is not None:
            counts[size] = counts.get(size, 0) + 1
    sizes_mm = {one.id: one.size_mm for one in select.classes}
    found = choose(list(bare.values()), sizes_mm, counts, takes=select.takes, wanted_mm=wanted, limits_mm=fit.limits_mm)
    rows = [
        ChoiceRow(
            place=one.place,
            size_now=now.size_in(fit, one.place) or "",
            now_mm=_now_mm(bare[one.place].bare_mm, select, now.size_in(fit, one.place)),
            size=one.size,
            gives_mm=round(one.gives_mm, 6),
            least_mm=round(one.ends_mm[0], 6),
            most_mm=round(one.ends_mm[1], 6),
        )
        for one in found or ()
    ]
    words = (
        _choice_words(rows, fit) if found else f"Too few {select.part} are free for {len(bare)} places: order more, or type what goes in."
    )
    return ChoiceView(part=select.part, pieces=select.pieces, wanted_mm=wanted, sizes=sizes, rows=rows, words=words)


def _now_mm(bare_mm: float, select: Select, size: str | None) -> float | None:
    size_mm = select.size_of(size)
    return None if size_mm is None else round(bare_mm - select.takes * size_mm, 6)


def _choice_words(rows: Sequence[ChoiceRow], fit: PlacedFit) -> str:
    after = [row.gives_mm for row in rows]
    before = [row.now_mm for row in rows if row.now_mm is not None]
    low, high = fit.limits_mm
    beyond = [row.place for row in rows if (low is not None and row.least_mm < low) or (high is not None and row.most_mm > high)]
    said = f"Spread {fine(max(after) - min(after))}"
    if len(before) == len(after):
        said += f", {fine(max(before) - min(before))} as it is"
    return f"{said}." + (f" No size in stock brings {beyond[0]} in." if beyond else "")


def _bare(now: FitsState, fit: PlacedFit, select: Select) -> dict[str, Bare] | None:
    """The clearance of each place with no part in it, its least and most; None while a spot is not read."""
    read = now.of_fit(fit.fit.id)
    found = {}
    for place, spots in fit.at_place.items():
        sides: dict[str, list[float]] = {}
        for spot in spots:
            own = read.get(spot.key)
            if not own:
                return None
            sides.setdefault(spot.side, []).append(math.fsum(one.size_mm for one in own) / len(own))
        outer, inner = sides.get("outer") or sides["gap"], sides.get("inner") or [0.0]
        least, most = min(outer) - max(inner), max(outer) - min(inner)
        size_mm = select.size_of(now.size_in(fit, place)) if select.measured_in is not None else None
        bare_mm = (least + most) / 2 + select.takes * (size_mm or 0.0)
        found[place] = Bare(place=place, bare_mm=bare_mm, half_mm=(most - least) / 2)
    return found


def _trends(now: FitsState, fit: PlacedFit, others: Mapping[str, Others]) -> list[TrendLine]:
    own = now.places.get(fit.fit.id, {})
    compared = [place for place in own if place in others and others[place].values_mm]
    return [_trend(place, own[place].judged.figure.value, others[place].values_mm) for place in compared]


def _trend(place: str, value_mm: float, others_mm: Sequence[float]) -> TrendLine:
    count = len(others_mm)
    mean = math.fsum(others_mm) / count
    spread = math.sqrt(math.fsum((one - mean) ** 2 for one in others_mm) / (count - 1)) if count > 1 else 0.0
    return TrendLine(place=place, value_mm=value_mm, mean_mm=round(mean, 6), spread_mm=round(spread, 6), count=count)


def _gasket(now: FitsState, fit: PlacedFit) -> str:
    """The gasket by the highest piston, where this fit measures that."""
    chamber = now.document.chamber
    places = now.places.get(fit.fit.id, {})
    if chamber is None or chamber.protrusion_fit != fit.fit.id or not chamber.gaskets or len(places) < len(fit.places):
        return ""
    choice = choose_gasket(chamber.gaskets, {fit.names_place(place): stands.judged.figure for place, stands in places.items()})
    return f"{at_start(choice.sentence)}."

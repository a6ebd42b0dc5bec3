"""What the fits show: loose ends, each place with its verdict. All follows from what stands."""

__all__ = ["fit_view", "limits_words", "loose_ends_of", "says_of", "tells_of", "view_of"]

from collections.abc import Iterator, Mapping

from gurvo_core.fits.job.book import PlacedFit
from gurvo_core.fits.job.entries import FitDecided
from gurvo_core.fits.job.state import FitsState, PlaceStands
from gurvo_core.fits.job.view import FitsView, FitView, PlaceView, SideView
from gurvo_core.fits.places import FitPlace
from gurvo_core.ledger import CURRENT_STEP, Doing, Facts, LooseEnd, Step, kept_with
from gurvo_core.sentence import fine

LATE: frozenset[Doing] = frozenset({"start", "hand over"})
WORTH_SAYING_MM = 0.0005  # less no gauge of the shop tells
DECIDED = {"accepted": "accepted by the lead"}


def limits_words(limits_mm: tuple[float | None, float | None]) -> str:
    """Return limits in words. Limits in mm; a limit that is not known is left out."""
    low, high = limits_mm
    if low is not None and high is not None:
        return f"{fine(low)} to {fine(high)}"
    return f"at least {fine(low)}" if low is not None else f"at most {fine(high)}" if high is not None else "no limit known"


def loose_ends_of(now: FitsState, _facts: Facts) -> Iterator[LooseEnd]:
    """Places that are out or cannot be told, until they are read finer, get another part, or the lead accepts them."""
    for name, places in now.places.items():
        fit = now.book.fits.get(name)
        for place, stands in places.items():
            verdict = stands.judged.verdict
            if fit is None or verdict not in ("out", "can't tell") or (name, place) in now.decided:
                continue
            title = f"{fit.names_place(place)} {'is out' if verdict == 'out' else 'cannot be told'}"
            since = max((one.seq for spot in fit.at_place[place] for one in now.of_fit(name).get(spot.key, ())), default=0)
            until = "another part goes in, or the lead accepts it" if verdict == "out" else "it is read finer, or the lead accepts it"
            step = next((name_of for name_of, one in now.book.steps.items() if name in one.fits), None)
            body = {"kind": "fit_decided", "step": step, "fit": name, "place": place, "decision": "accepted"}
            yield LooseEnd(
                title=title,
                since=since,
                holds_back=LATE,
                until=until,
                kept_from="start, hand over",
                waived_with=FitDecided.model_validate(body) if step else None,
                waived_as="Accept it",
            )


def view_of(now: FitsState, facts: Facts) -> FitsView:
    """The fits of the step that is to be done."""
    step = facts.get(CURRENT_STEP) or ""
    return FitsView(fits=[fit_view(now, fit, step) for fit in now.book.of_step(step)])


def fit_view(now: FitsState, fit: PlacedFit, step_id: str) -> FitView:
    """One fit as it stands."""
    low, high = fit.limits_mm
    own = now.of_fit(fit.fit.id)
    select = fit.fit.select
    about = [side.condition for _, side in fit.fit.sides if side.condition]
    about += [f"{select.part}: {len(select.classes)} sizes"] if select else []
    about += ["limits are a guess, so nothing is judged"] if fit.is_guessed else []
    return FitView.model_construct(
        id=fit.fit.id,
        name=fit.fit.name,
        step=step_id,
        drawn=fit.drawn,
        sides=[SideView.model_construct(key=key, name=side.name) for key, side in fit.fit.sides],
        low_mm=low,
        high_mm=high,
        limits=limits_words((low, high)),
        about=about,
        places=[_place(now, fit, place) for place in fit.places],
        read=len(own),
        of=len(fit.spots),
    )


def _place(now: FitsState, fit: PlacedFit, place: FitPlace) -> PlaceView:
    """One place as it stands; a reading changes one place of many, so what is shown of a whole one is kept with it."""
    name = fit.fit.id
    own, decision, size = now.of_fit(name), now.decided.get((name, place.id)), now.size_in(fit, place.id) or ""
    decided = f"{DECIDED[decision.decision]}: {decision.reason}" if decision else ""
    stands = now.stands(name, place.id)
    if stands is not None:
        return _whole(stands, fit, place, len(fit.at_place[place.id]), (size, decided))
    read = sum(spot.key in own for spot in fit.at_place[place.id])
    return _place_view(None, fit, place, read, (size, decided))


def _place_view(stands: PlaceStands | None, fit: PlacedFit, place: FitPlace, read: int, about: tuple[str, str]) -> PlaceView:
    size, decided = about
    judged, made = (stands.judged, stands.clearance) if stands else (None, None)
    return PlaceView.model_construct(
        id=place.id,
        label=place.label,
        cylinder=place.cylinder,
        read=read,
        of=len(fit.at_place[place.id]),
        verdict=judged.verdict if judged else None,
        end="" if judged is None or fit.fit.gap is not None else judged.end,
        value_mm=round(judged.figure.value, 6) if judged else None,
        u_mm=round(judged.figure.expanded, 6) if judged else None,
        least_mm=round(made.least.value, 6) if made else None,
        most_mm=round(made.most.value, 6) if made else None,
        outer_mm=round(made.ends_mm["outer"], 6) if made else None,
        inner_mm=round(made.ends_mm["inner"], 6) if made and "inner" in made.ends_mm else None,
        notes=_notes(fit, made.taper_mm, made.out_of_round_mm) if made else "",
        size=size,
        decided=decided,
    )


_whole = kept_with(_place_view)


def _notes(fit: PlacedFit, taper_mm: Mapping[str, float], out_of_round_mm: Mapping[str, float]) -> str:
    said = []
    for key, side in fit.fit.sides:
        own = [f"taper {fine(taper_mm[key])}"] if taper_mm.get(key, 0) >= WORTH_SAYING_MM else []
        own += [f"out of round {fine(out_of_round_mm[key])}"] if out_of_round_mm.get(key, 0) >= WORTH_SAYING_MM else []
        said += [f"{side.name} {', '.join(own)}"] if own else []
    return "; ".join(said)


def says_of(now: FitsState) -> Iterator[str]:
    """How each fit came out."""
    for name, places in now.places.items():
        fit = now.book.fits.get(name)
        if fit is None or not places:
            continue
        values = [stands.judged.figure.value for stands in places.values()]
        verdicts = [stands.judged.verdict for stands in places.values()]
        counts = ", ".join(f"{verdicts.count(one)} {one}" for one in dict.fromkeys(verdicts))
        yield f"{fit.fit.name}: {counts} of {len(fit.places)}, {fine(min(values))} to {fine(max(values))}"


def tells_of(now: FitsState, step: Step) -> Iterator[str]:
    """What each place of a step's fits came to."""
    for name, fit in now.book.fits.items():
        places = now.places.get(name, {}) if now.book.step_of.get(name) == step.key else {}
        judged = [(place, places[place.id].judged) for place in fit.places if place.id in places]
        said = [f"{place.label} {fine(one.figure.value)}{'' if one.verdict == 'in' else f' {one.verdict}'}" for place, one in judged]
        if said:
            yield f"{fit.fit.name}: {', '.join(said)}"

"""What is asked at a fit: with what it is read, the next spots, which sizes go in, what to do about a place that is not in."""

__all__ = ["ask_measure"]

from functools import lru_cache

from gurvo_core.engine.fit import SideKey
from gurvo_core.fits.job.book import FitsBook, PlacedFit, where_on_it
from gurvo_core.fits.job.kinds.fit_decided import FitDecisionQuestion
from gurvo_core.fits.job.show import limits_words
from gurvo_core.fits.job.state import FitsState, SideReady, spots_left
from gurvo_core.fits.job.view import FitChosenQuestion, FitReadingQuestion, FitsReadyQuestion
from gurvo_core.fits.places import FitSpot
from gurvo_core.ledger import STEPS_DONE, Asked, Facts, Question, Step, decisions
from gurvo_core.sentence import fine, within
from gurvo_core.verdict import Verdict

AHEAD = 3  # spots that a screen is told of, so that it need not wait for the next
HINTS = {"outer": "Wipe, rock it through the least, read twice.", "inner": "Wipe, feel it, read twice.", "gap": "Wipe, read twice."}


def ask_measure(now: FitsState, step: Step, facts: Facts) -> Asked:
    """What one step that measures fits asks."""
    fits = now.book.of_step(step.key)
    if not fits:
        return Asked(questions=[])
    if step.key in (facts.get(STEPS_DONE) or ()):
        return _asked_done(now.book, step.key)
    if not any(now.of_fit(fit.fit.id) or (fit.fit.id, key) in now.ready for fit in fits for key, _ in fit.fit.sides):
        return _asked_first(now.book, step.key)
    questions: list[Question] = []
    for fit in fits:
        questions += _of_fit(now, fit, step)
    read = sum(len(now.of_fit(fit.fit.id)) for fit in fits)
    of = sum(len(fit.spots) for fit in fits)
    return Asked(questions=questions, note=f"{read} / {of}" if read > 0 else "")


@lru_cache(maxsize=4096)
def _asked_first(book: FitsBook, step_id: str) -> Asked:
    """The same for every look at a step that is not begun."""
    plain, quiet = _plain(book, step_id), FitsState(document=book.document, book=book)
    return Asked(questions=[question for fit in book.of_step(step_id) for question in _of_fit(quiet, fit, plain)])


def _plain(book: FitsBook, step_id: str) -> Step:
    return Step(key=step_id, title=book.steps[step_id].says.rstrip("."), does="measure")


@lru_cache(maxsize=4096)
def _asked_done(book: FitsBook, step_id: str) -> Asked:
    """The same for every look at a step that is done."""
    fit = book.of_step(step_id)[0]
    key, _ = fit.fit.sides[0]
    return Asked(questions=[_ready(book, fit, key, _plain(book, step_id), is_done=True, is_first=True)])


def _of_fit(now: FitsState, fit: PlacedFit, step: Step) -> list[Question]:
    questions: list[Question] = []
    left = spots_left(now, fit)
    is_first_fit = now.book.of_step(step.key)[0] is fit
    for at, (key, _) in enumerate(fit.fit.sides):
        ready = now.ready.get((fit.fit.id, key))
        own = [spot for spot in left if spot.side == key]
        questions.append(_ready(now.book, fit, key, step, is_done=ready is not None, is_first=is_first_fit and at == 0))
        questions += [_reading(now.book, fit, spot, step, ready) for spot in own[:AHEAD]] if ready else []
    if left:
        return questions
    places = now.places.get(fit.fit.id, {})
    select = fit.fit.select
    apart: dict[str, Verdict] = {
        place: stands.judged.verdict
        for place, stands in places.items()
        if stands.judged.verdict in ("out", "can't tell") and (fit.fit.id, place) not in now.decided
    }
    if select is not None:
        is_needed = select.measured_in is None and any(place not in now.sizes.get(fit.fit.id, {}) for place in fit.at_place)
        questions.append(_choose(fit, step, is_needed=is_needed))
    return [*questions, *(_decide(fit, step, place, verdict) for place, verdict in apart.items())]


def _ready(book: FitsBook, fit: PlacedFit, side_key: SideKey, step: Step, *, is_done: bool, is_first: bool) -> FitsReadyQuestion:
    side = fit.side(side_key)
    assert side is not None
    return FitsReadyQuestion.model_construct(
        key=step.key if is_first else f"{step.key}:{fit.fit.id}:{side_key}",
        kind="fits_ready",
        title=step.title if is_first else f"{fit.fit.name}, {side.name}",
        ask=f"{fit.fit.name}: with what is the {side.name} read?",
        hint=f"{side.condition}. {limits_words(fit.limits_mm)}." if side.condition else f"Limits {limits_words(fit.limits_mm)}.",
        status="done" if is_done else "open",
        group="",
        waits="",
        blocked="",
        doing="",
        later=False,
        step=step.key,
        fit=fit.fit.id,
        side=side_key,
        side_name=side.name,
        nominal_mm=side.nominal_mm,
        condition=side.condition or "",
        radius_mm=side.radius_mm,
        kinds=list(fit.fit.read_by),
        limits=limits_words(fit.limits_mm),
        cautions=list(book.steps[step.key].cautions),
    )


def _reading(book: FitsBook, fit: PlacedFit, spot: FitSpot, step: Step, ready: SideReady) -> FitReadingQuestion:
    side = fit.side(spot.side)
    assert side is not None
    where = fit.names_place(spot.place)
    warmth = f"part {ready.read_with.part_c:g} °C" if ready.read_with.part_c is not None else "temperature not looked at"
    return FitReadingQuestion.model_construct(
        key=f"{step.key}:{fit.fit.id}:{spot.key}",
        kind="fit_reading",
        title=fit.called(spot),
        ask=f"{where}: what does the {side.name} measure{where_on_it(spot)}?",
        hint=f"{side.condition}. {HINTS[spot.side]}" if side.condition else HINTS[spot.side],
        status="open",
        group=fit.fit.name,
        waits=f"{within(fit.fit.name)} to be measured",
        blocked="",
        doing="",
        later=False,
        step=step.key,
        fit=fit.fit.id,
        place=spot.place,
        side=spot.side,
        plane=spot.plane,
        axis=spot.axis,
        spot=fit.called(spot),
        nominal_mm=side.nominal_mm,
        set_to_mm=ready.set_to_mm,
        gauge=ready.gauge,
        about=f"{f'gauge {ready.gauge}' if ready.gauge else 'no gauge named'} · {warmth}",
        places=[place.id for place in fit.places],
        planes=list(side.planes),
        axes=list(side.axes),
        cautions=list(book.steps[step.key].cautions),
    )


def _choose(fit: PlacedFit, step: Step, *, is_needed: bool) -> FitChosenQuestion:
    select = fit.fit.select
    assert select is not None
    wanted = f"About {fine(fit.wanted_mm)} is wanted." if fit.wanted_mm is not None else ""
    return FitChosenQuestion(
        key=f"{step.key}:{fit.fit.id}:sizes",
        title=f"{select.part} chosen",
        ask=f"{select.part}: which go where?",
        hint=f"From stock, so that all lie close together. {wanted}".strip(),
        status="open" if is_needed else "optional",
        waits=f"{within(select.part)} to be chosen",
        step=step.key,
        fit=fit.fit.id,
        part=select.part,
    )


WHAT_IS_DONE = (
    ("read_again", "Read it again", "with a finer gauge; what was read is put aside", "Why, and with what"),
    ("replaced", "Another part goes in", "then it is read again", "Which part, from where"),
    ("accepted", "Accepted by the lead", "a concession, with the reason", "Why may it stay?"),
)


def _decide(fit: PlacedFit, step: Step, place: str, verdict: Verdict) -> FitDecisionQuestion:
    where = fit.names_place(place)
    said = "is out" if verdict == "out" else "cannot be told"
    at = {"kind": "fit_decided", "step": step.key, "fit": fit.fit.id, "place": place}
    return FitDecisionQuestion(
        key=f"{step.key}:{fit.fit.id}:{place}:decide",
        title=f"{where} {said}",
        ask=f"{where} {said}. What is done about it?",
        hint="What would settle it stands beside the drawing.",
        status="open",
        waits=f"{within(where)} to be decided",
        step=step.key,
        fit=fit.fit.id,
        place=place,
        verdict=verdict,
        answers=decisions(at, WHAT_IS_DONE),
    )

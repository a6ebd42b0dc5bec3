"""What cannot be right in the fits, the lash and the chamber of a document: each one sentence with its JSON path."""

__all__ = ["fit_faults"]

from collections import Counter
from collections.abc import Iterator

from gurvo_core.engine import EngineDocument, Fit, WorkStep
from gurvo_core.engine.checks.links import missing
from gurvo_core.errors import Fault


def fit_faults(document: EngineDocument) -> list[Fault]:
    """Return what cannot be in the fits, the lash and the chamber of a document.

    Limits go from less to more, a size is given once, a fit is measured in one step.
    """
    found = [fault for at, fit in enumerate(document.fits) for fault in _fit(f"fits.{at}", fit)]
    return [*found, *_steps(document), *_lash(document), *_chamber(document)]


def _fit(path: str, fit: Fit) -> Iterator[Fault]:
    low, high = fit.least_per_mm, fit.most_per_mm
    if low is not None and high is not None and low > high:
        yield Fault(path=f"{path}.most_per_mm", sentence=f"{fit.name}: limits go from less to more, and {low:g} to {high:g} does not.")
    if (fit.least_per_mm is not None or fit.most_per_mm is not None) and fit.is_placed and fit.nominal_mm is None:
        yield Fault(path=path, sentence=f"{fit.name}: limits for each mm of diameter need a nominal diameter.")
    for place, count in Counter(fit.places).items():
        if count > 1:
            yield Fault(path=f"{path}.places", sentence=f"{fit.name}: {place} is named {count} times; give each place a name of its own.")
    for size, count in Counter(one.id for one in fit.select.classes).items() if fit.select else ():
        if count > 1:
            yield Fault(path=f"{path}.select.classes", sentence=f"{fit.name}: {count} sizes are called {size}; give each its own name.")


def _steps(document: EngineDocument) -> Iterator[Fault]:
    placed = {fit.id: fit.name for fit in document.fits if fit.is_placed}
    seen: dict[str, str] = {}
    for at, stage in enumerate(document.stages):
        for n, step in enumerate(stage.steps):
            if not isinstance(step, WorkStep):
                continue
            path = f"stages.{at}.steps.{n}"
            if step.does == "lash":
                for place, cylinder in enumerate(step.cylinders):
                    yield from missing(f"{path}.cylinders.{place}", cylinder, document.cylinders, "cylinder")
            own = [fit for fit in step.fits if fit in placed] if step.does == "measure" else []
            if own and len(own) < len(step.fits):
                yield Fault(
                    path=f"{path}.fits", sentence="Some of these fits have places and some do not: give all of a step's places, or none."
                )
            for fit in own:
                if fit in seen:
                    yield Fault(path=f"{path}.fits", sentence=f"{placed[fit]} is measured in step {seen[fit]} already; measure it once.")
                seen[fit] = step.id


def _lash(document: EngineDocument) -> Iterator[Fault]:
    for valve, count in Counter(one.valve for one in document.lash).items():
        if count > 1:
            yield Fault(path="lash", sentence=f"The lash of {valve} valves is given {count} times; give it once.")


def _chamber(document: EngineDocument) -> Iterator[Fault]:
    chamber = document.chamber
    if chamber is None:
        return
    for name, count in Counter(one.id for one in chamber.gaskets).items():
        if count > 1:
            yield Fault(path="chamber.gaskets", sentence=f"{count} gaskets are called {name}; give each its own name.")

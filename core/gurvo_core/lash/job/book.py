"""A document's valves as their clearances are set: which step sets which, by what; kept with the document."""

__all__ = ["LashBook", "LashValve", "lash_book", "shim_sorts"]

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache

from gurvo_core.engine import EngineDocument, Lash, Select, WorkStep
from gurvo_core.engine.same import Same
from gurvo_core.lash.stops import LashStops, stops_for
from gurvo_core.lash.windows import ValveKey, are_known, may_be_set, valves_of


@dataclass(frozen=True, kw_only=True, eq=False)
class LashValve:
    """One valve, and what the book says of its clearance."""

    key: ValveKey
    lash: Lash | None
    is_guessed: bool

    @property
    def limits_mm(self) -> tuple[float | None, float | None]:
        """What it is judged against [mm]: nothing against a guess."""
        if self.lash is None or self.is_guessed:
            return None, None
        return self.lash.least_mm, self.lash.most_mm


def shim_sorts(valves: Mapping[str, LashValve]) -> list[tuple[Select | None, list[str]]]:
    """The sorts of shims that some valves are set by, and the valves of each; a shim of one sort fits no other valve."""
    sorts: dict[str, tuple[Select | None, list[str]]] = {}
    for name, one in valves.items():
        select = one.lash.shims if one.lash else None
        sorts.setdefault(select.part if select else "", (select, []))[1].append(name)
    return list(sorts.values())


@dataclass(frozen=True, kw_only=True, eq=False)
class LashBook:
    """All steps of a document that set valve clearances."""

    document: EngineDocument

    @cached_property
    def steps(self) -> Mapping[str, WorkStep]:
        """The steps, by id, of all variants."""
        return {step.id: step for step in self.document.work_steps if step.does == "lash"}

    @cached_property
    def _valves(self) -> Mapping[str, Mapping[str, LashValve]]:
        lash = {one.valve: (at, one) for at, one in enumerate(self.document.lash)}
        found = {}
        for step in self.steps.values():
            keys = valves_of(self.document, step.cylinders)
            found[step.id] = {
                key.id: LashValve(
                    key=key,
                    lash=lash[key.valve][1] if key.valve in lash else None,
                    is_guessed=key.valve in lash and self.document.is_guessed(f"/lash/{lash[key.valve][0]}"),
                )
                for key in keys
            }
        return found

    def valves(self, step_id: str) -> Mapping[str, LashValve]:
        """The valves that a step sets, by what each is kept under."""
        return self._valves.get(step_id, {})

    def stops(self, step_id: str, way: str, begin_deg: float) -> LashStops:
        """How a step reaches its valves."""
        step = self.steps[step_id]
        return stops_for(self.document, way, step.cylinders, begin_deg)

    def may_be_set(self, step_id: str, valve: str, stops: LashStops, stop: int) -> bool:
        """Whether a valve stands on its base circle at a stop, counted from 1."""
        at = stops.stops[stop - 1]
        one = self.valves(step_id)[valve]
        if one.key in at.valves:
            return True
        keys = valves_of(self.document, self.steps[step_id].cylinders)
        if at.crank_deg is None or not are_known(self.document, keys):
            return False
        margin = one.lash.margin_deg if one.lash else 0.0
        return bool(may_be_set(self.document, keys[one.key][1], margin)[round(at.crank_deg) % 720])


@lru_cache(maxsize=64)
def _kept(same: Same) -> LashBook:
    return LashBook(document=same.document)


def lash_book(document: EngineDocument) -> LashBook:
    """Return the valves of a document as their clearances are set."""
    return _kept(Same(document))

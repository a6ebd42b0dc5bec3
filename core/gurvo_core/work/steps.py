"""The steps of an engine as the bench shows them: what each room asks in its own, what keeps it waiting, which is to be done now.

Rooms that an entry did not touch, and nothing they look at, ask what they asked before: a long run is not gone through anew for
one reading.
"""

__all__ = ["Steps"]

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache, cached_property, partial
from typing import Any, get_args

from gurvo_core.ledger import PLAN, Asked, Beside, Doing, Facts, Folded, Question, Room, Step, kept_last
from gurvo_core.work.gate import held_back
from gurvo_core.work.state import StepStatus, StepView

LAYOUTS_KEPT = 64
_SHUT = "shut"


@dataclass(frozen=True, eq=False)
class _AskedStep:
    """What is asked in a step, why each question waits, and whether any can be answered."""

    step: Step
    asked: Asked
    blocked: tuple[str, ...] = ()
    can: bool = False
    can_now: bool = False  # and need not be left for later


@dataclass(frozen=True, eq=False)
class _Layout:
    """The steps of a run, and which room asks in each."""

    plan: Sequence[Step] | None
    steps: tuple[tuple[Step, Room[Any] | None], ...]
    of_rooms: tuple[tuple[Room[Any], list[Step]], ...]
    by_key: Mapping[str, Step]


@dataclass(frozen=True, eq=False)
class Steps:
    """The steps of all rooms together."""

    rooms: tuple[Room[Any], ...]
    step_type: Any  # of which views are made

    @cached_property
    def _asking(self) -> dict[str, Room[Any]]:
        """The room that asks what is asked in a step, by what the step does."""
        return {does: room for room in reversed(self.rooms) for does in room.asks}

    @cached_property
    def _layouts(self) -> dict[int, _Layout]:
        """Runs with their steps shared out among the rooms; every look at an engine of one family asks for the same."""
        return {}

    def _layout(self, plan: Sequence[Step] | None) -> _Layout:
        """A run's steps, the room that closes the record coming last; without a run each room's own steps one after another."""
        layout = self._layouts.get(id(plan))
        if layout is None or layout.plan is not plan:
            if len(self._layouts) >= LAYOUTS_KEPT:
                self._layouts.clear()
            steps = (*plan, *self.rooms[-1].steps) if plan else tuple(step for room in self.rooms for step in room.steps)
            rooms = [self._asking.get(step.does) for step in steps]
            own = {room.name: (room, [step for step, its in zip(steps, rooms, strict=True) if its is room]) for room in rooms if room}
            layout = self._layouts[id(plan)] = _Layout(
                plan, tuple(zip(steps, rooms, strict=True)), tuple(own.values()), {step.key: step for step in steps}
            )
        return layout

    @cached_property
    def _first(self) -> tuple[tuple[Room[Any], Callable[[Any, Mapping[str, Step], Facts], Mapping[str, Sequence[Question]]]], ...]:
        """Rooms that ask something before a step, whatever room it is of."""
        return tuple((room, room.asks_first) for room in self.rooms if room.asks_first)

    @cached_property
    def _blocking(self) -> tuple[tuple[Room[Any], Callable[[Any, Step, Facts], str]], ...]:
        """Rooms that may hold back a step of another."""
        return tuple((room, room.blocks) for room in self.rooms if room.blocks)

    def _asked(self, folded: Folded, room: Room[Any], step: Step, asked: Asked, held: Callable[[str], str]) -> _AskedStep:
        """What a step asks, and why each of its questions cannot be answered yet."""
        blocked = self._blocked(folded, room, step, asked, held)
        pairs = zip(asked.questions, blocked, strict=True)
        can = [question for question, why in pairs if question.status == "open" and not why]
        return _AskedStep(step, asked, blocked, bool(can), any(not question.later for question in can))

    def _blocked(self, folded: Folded, asked_by: Room[Any], step: Step, asked: Asked, held: Callable[[str], str]) -> tuple[str, ...]:
        """Why each question cannot be answered yet: another room holds its step back, or what it does may not be done."""
        others = (blocks(folded.states[room.name], step, folded.facts) for room, blocks in self._blocking if room is not asked_by)
        before, said = next(filter(None, others), ""), []
        for question in asked.questions:
            if question.status == "open":
                before = question.blocked or before or (held(question.doing) if question.doing else "")
                said.append(before)  # what a step asks is answered one after another
            else:
                said.append(question.blocked)
        return tuple(said)

    def _all_asked(self, folded: Folded) -> list[_AskedStep]:
        """What each step asks. Rooms that an entry did not touch, and nothing they look at, ask what they asked before."""
        layout = self._layout(folded.facts.get(PLAN))
        held = {doing: "; ".join(held_back(folded, doing)) for doing in get_args(Doing)}
        beside = [folded.states[room.name] for room, _ in (*self._blocking, *self._first)]
        key = Beside(self, layout, *folded.facts.values, *beside, *held.values())
        found: dict[str, Iterator[_AskedStep]] = {}
        first = cache(partial(self._asked_first, folded, layout))
        for room, own in layout.of_rooms:
            asked = partial(self._asked_by, folded, room, own, held.__getitem__, first)
            found[room.name] = iter(kept_last(folded.states[room.name], "steps", key, asked))
        return [next(found[room.name]) if room else _AskedStep(step, Asked(questions=[])) for step, room in layout.steps]

    def _asked_first(self, folded: Folded, layout: _Layout) -> Mapping[str, Sequence[Question]]:
        """What rooms ask before steps of any of them, in the rooms' order."""
        found: dict[str, list[Question]] = {}
        for room, asks in self._first:
            for key, questions in asks(folded.states[room.name], layout.by_key, folded.facts).items():
                found.setdefault(key, []).extend(questions)
        return found

    def _asked_by(
        self,
        folded: Folded,
        room: Room[Any],
        steps: Sequence[Step],
        held: Callable[[str], str],
        first: Callable[[], Mapping[str, Sequence[Question]]],
    ) -> list[_AskedStep]:
        now, facts, before, found = folded.states[room.name], folded.facts, first(), []
        for step in steps:
            asked = room.asks[step.does](now, step, facts)
            if before.get(step.key):
                asked = Asked(questions=[*before[step.key], *asked.questions], note=asked.note)
            shut = asked.views.get(_SHUT)  # most steps of a long run: each is made once for what is asked in it
            if shut is None and asked.is_shut:
                shut = asked.views[_SHUT] = _AskedStep(step, asked, asked.said)
            found.append(shut or self._asked(folded, room, step, asked, held))
        return found

    def show(self, folded: Folded) -> list[StepView]:
        """The run of work: the first step with a question that can be answered is the one to do now."""
        all_asked, plan = self._all_asked(folded), folded.facts.get(PLAN)
        current = next((one for one in all_asked if one.can_now), None) or next((one for one in all_asked if one.can), None)
        found, all_before = [], True
        for one in all_asked:
            all_before = all_before and not one.asked.is_open
            # without a plan one step stands on the other: nothing after an open one is done
            is_done = not one.asked.is_open if plan else all_before
            found.append(self._view(one, "now" if one is current else "done" if is_done else "open"))
        return found

    def _view(self, one: _AskedStep, status: StepStatus) -> StepView:
        """One step as it is shown; most of a long run is the same for every look at it."""
        key = (self.step_type, one.blocked, status)
        view: StepView | None = one.asked.views.get(key)
        if view is None:
            pairs = zip(one.asked.questions, one.blocked, strict=True)
            questions = [each if each.blocked == why else each.model_copy(update={"blocked": why}) for each, why in pairs]
            view = self.step_type.model_construct(**{**vars(one.step), "note": one.asked.note, "questions": questions}, status=status)
            one.asked.views[key] = view
        return view

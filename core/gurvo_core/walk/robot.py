"""A robot that builds an engine by its run of work, entry by entry, through the one gate; with a clock of its own."""

__all__ = ["BUILDER", "LEAD", "Robot"]

from collections import Counter
from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

from gurvo_core.engine import EngineDocument
from gurvo_core.errors import AskFirst, CoreError
from gurvo_core.ledger import GAUGES, MAKER, NOW, Fact, Folded, LedgerEntry
from gurvo_core.ledger.versions import ENTRY_VERSION
from gurvo_core.run.job.proof import can_be_proven
from gurvo_core.run.plan import plan_of
from gurvo_core.walk.answers import Body, next_question, right_answer
from gurvo_core.walk.shelf import ROBOT_SHELF, Shelf
from gurvo_core.walk.shot import Shot, shot_of
from gurvo_core.work import HOUSE, RULES_VERSION, BenchState

BUILDER, LEAD = "builder", "lead"
BEGINS = datetime(2026, 1, 5, 7, tzinfo=UTC)
A_WHILE = timedelta(minutes=2)
ENOUGH = 3
A_NIGHT = timedelta(hours=30)  # whatever cures or settles has done so
BY_CLOCK = ("cures", "has rested")  # words of what is refused until time has gone by


class Robot:
    """One engine on its stand, with a builder, a lead, and a clock that needs no waiting."""

    def __init__(self, document: EngineDocument, shelf: Shelf = ROBOT_SHELF) -> None:
        self.document, self.shelf = document, shelf
        self.folded: Folded = HOUSE.fold(document, ())
        self.clock = BEGINS
        self.shots: dict[str, Shot] = {}  # by key of a step: the bench when it was come to first
        self._shown: tuple[Folded, BenchState] | None = None
        self._ends: Counter[str] = Counter()  # how often each loose end was ended so

    @property
    def state(self) -> BenchState:
        """What the bench shows."""
        if self._shown is None or self._shown[0] is not self.folded:
            self._shown = (self.folded, HOUSE.show(self.folded))
        return self._shown[1]

    def known(self, by: str) -> Mapping[Fact[Any], Any]:
        """What a server hands in when an entry is judged."""
        return {GAUGES: {gauge.id: gauge for gauge in self.shelf.gauges}, NOW: self.clock, MAKER: by}

    def enter(self, kind: str, *, by: str = BUILDER, because: str = "", **body: Any) -> None:
        """Make an entry; raises CoreError where it is refused."""
        read = HOUSE.read({"kind": kind, **body}, ENTRY_VERSION)
        self.clock += A_WHILE
        HOUSE.check(self.folded, read, self.known(by), because=because, is_lead=by == LEAD)
        read = HOUSE.signed(self.folded, HOUSE.completed(read, self.document, self.folded.entries), RULES_VERSION)
        named, seq = HOUSE.gauges_named(read), len(self.folded.entries) + 1
        gauges = tuple(gauge for gauge in self.shelf.gauges if gauge.id in named)
        entry = LedgerEntry(id=UUID(int=seq), seq=seq, at=self.clock, by=by, body=read, because=because, gauges=gauges)
        self.folded = HOUSE.apply(self.folded, entry)

    def say(self, body: Body, because: str = "") -> None:
        """Make an entry as whoever may make it; what only needs time is waited for."""
        kind = HOUSE.kinds.get(body["kind"])
        is_lead = body["kind"] == "strike" or because or (kind is not None and kind.by == "lead")
        by = LEAD if is_lead else BUILDER
        try:
            self.enter(**body, by=by, because=because)
        except CoreError as refused:
            if not any(word in str(refused) for word in BY_CLOCK):
                raise
            self.clock += A_NIGHT
            self.enter(**body, by=by, because=because)

    def answer_next(self) -> bool:
        """Answer what is asked now, rightly; False where nothing can be answered."""
        question = next_question(self.state)
        if question is None:
            return False
        body = right_answer(self.state, question, self.document, self.shelf)
        try:
            self.say(body)
        except AskFirst:
            self.say(body, because="walked through")
        return True

    def walk(self, most: int = 5000) -> str:
        """Go on until the record is signed; empty, or where it gets stuck and why. Of a cam that nothing in the run tells to stand right
        the lead gives his word: that is a doubt, said of the document, and no dead end.
        """
        for _ in range(most):
            asked = next_question(self.state)
            self._keep_shot()
            try:
                if not (self.answer_next() or self._gave_word()):
                    break
            except CoreError as refused:
                return f"“{asked.title}” cannot be answered rightly: {refused}"
        else:
            return f"it goes on and on: “{asked.title}” is asked again and again"
        return "" if self.state.signed else self._stuck()

    def _keep_shot(self) -> None:
        """Keep how the bench stands when a step is come to first."""
        step = next((one.key for one in self.state.steps if one.status == "now"), None)
        if step is not None and step not in self.shots:
            shot = shot_of(self.state)
            self.shots |= {step: shot} if shot else {}

    def _gave_word(self) -> bool:
        """The lead says of one more cam by what he knows it, where neither marks nor locks nor readings could tell."""
        plan = plan_of(self.document, frozenset())
        untold = {cam.id for cam in self.document.camshafts if not can_be_proven(plan, cam)}
        words = [end.waived_with for end in self.state.loose_ends if end.waived_with and end.waived_with.get("kind") == "cam_word"]
        return any(body["camshaft"] in untold and self._tried({**body, "reason": "walked through"}) for body in words)

    def carry(self, most: int = 4000) -> str:
        """Go on from whatever stands until the record is signed, by what is offered: answers, what ends a loose end, the lead's word.

        Empty, or why nobody can.
        """
        for _ in range(most):
            if self.state.signed:
                return ""
            if not (self._answered() or self._ended() or self._left_out()):
                return self._stuck()
        return "it goes on and on"

    def _answered(self) -> bool:
        """Answer what is asked; where the right answer is refused, what is offered beside it."""
        question = next_question(self.state)
        before = len(self.folded.entries)
        try:
            return self.answer_next()
        except CoreError:
            if len(self.folded.entries) > before:
                return True
        step, fastener = getattr(question, "step", None), getattr(question, "fastener", None)
        ways: list[Body] = []
        if fastener:
            ways.append({"kind": "bolt", "step": step, "fastener": fastener, "found": "replaced", "note": "a new one"})
        if step:
            ways.append({"kind": "step_skipped", "step": step, "reason": "walked through"})
        return any(self._tried(body) for body in ways)

    def _ended(self) -> bool:
        """End or waive a loose end that no step asks for."""
        for end in self.state.loose_ends:
            if end.ends_with and not end.is_after and self._ends[end.title] < ENOUGH and self._tried(dict(end.ends_with)):
                self._ends[end.title] += 1  # what is put on again right after is ended once more, and then left out
                return True
        for end in self.state.loose_ends:
            if end.waived_with and not end.is_after and self._tried({**end.waived_with, "reason": "walked through"}):
                return True
        return False

    def _left_out(self) -> bool:
        """The lead leaves out what holds everything."""
        steps = {one.key.partition(":")[0] for one in self.state.stuck} | {one.key for one in self.state.steps if one.status != "done"}
        known = [one.step.id for one in self.folded.states["run"].plan.steps if one.step.id in steps]
        is_out = any(self._tried({"kind": "step_skipped", "step": step, "reason": "walked through"}) for step in known)
        if is_out:
            self._ends.clear()  # what was asked for again and again no longer is
        return is_out

    def _tried(self, body: Body) -> bool:
        """Make an entry as the lead, with a reason where one is asked for; whether it was taken."""
        try:
            self.enter(**body, by=LEAD, because="walked through")
        except CoreError:
            return False
        return True

    def _stuck(self) -> str:
        """Between which steps it is stuck: each that is open with what it waits for itself."""
        waiting = [(one, next((q.blocked for q in one.questions if q.status == "open"), "")) for one in self.state.steps]
        said = [f"“{one.title}” waits: {why}" for one, why in waiting if why]
        return "; ".join(said[:3]) or "nothing is asked, and nothing is signed"

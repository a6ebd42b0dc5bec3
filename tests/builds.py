"""An engine that is built by its run of work, entry by entry, through the core's one gate."""

import uuid
from datetime import UTC, datetime, timedelta
from functools import cache

from demo.player import answer
from gurvo_core.errors import CoreError
from gurvo_core.ledger import GAUGES, MAKER, NOW, LedgerEntry
from gurvo_core.ledger.versions import ENTRY_VERSION
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE, RULES_VERSION
from tests.engines import DIAL, LENGTHS, WHEEL, WRENCHES, family_with_run

BUILDER, LEAD = "Della", "Oren"


class Build:
    """What a builder and a lead do at one engine."""

    def __init__(self, engine) -> None:
        self.code = engine if isinstance(engine, str) else ""
        self.engine = family_with_run(engine) if self.code else engine
        self.folded = HOUSE.fold(self.engine, ())
        self.shown = None
        self.clock = datetime(2026, 11, 2, 7, tzinfo=UTC)
        self.gauges = (WHEEL, DIAL, *WRENCHES, *LENGTHS)

    @property
    def state(self):
        """What the bench shows, worked out once for each entry."""
        if self.shown is None or self.shown[0] is not self.folded:
            self.shown = (self.folded, HOUSE.show(self.folded))
        return self.shown[1]

    def enter(self, kind, *, by=BUILDER, because="", **body):
        """Make an entry, or be refused."""
        read = HOUSE.read({"kind": kind, **body}, ENTRY_VERSION)
        self.clock += timedelta(minutes=3)
        HOUSE.check(self.folded, read, self.known(by), because=because, is_lead=by == LEAD)
        read = HOUSE.signed(self.folded, HOUSE.completed(read, self.engine, self.folded.entries), RULES_VERSION)
        named = HOUSE.gauges_named(read)
        gauges = tuple(gauge for gauge in self.gauges if gauge.id in named)
        seq = len(self.folded.entries) + 1
        entry = LedgerEntry(id=uuid.uuid4(), seq=seq, at=self.clock, by=by, body=read, because=because, gauges=gauges)
        self.folded = HOUSE.apply(self.folded, entry)
        return self.state

    def known(self, by=BUILDER):
        """What the server hands in when an entry is judged."""
        return {GAUGES: {gauge.id: gauge for gauge in self.gauges}, NOW: self.clock, MAKER: by}

    def end_count(self, words):
        """How many loose ends say so."""
        return sum(words in title for title in self.ends())

    def done(self, step, *, by=BUILDER, because="", **answers):
        return self.enter(
            "step_done", step=step, answers={key.replace("_", "-"): text for key, text in answers.items()}, by=by, because=because
        )

    def turned(self, step, stop, *, off=None, by=BUILDER, **more):
        """A stop of turning over at which all meets, or one mark is off."""
        asked = next(one for shown in self.state.steps for one in shown.questions if one.key == step)
        looks = [off if off and off["of"] == one.of else {"of": one.of, "saw": "meets"} for one in asked.looks]
        tools = [one.of for one in asked.looks if one.kind == "tool" and not (off and off["of"] == one.of)]
        body = {"step": step, "stop": stop, "saw": "off" if off else "meets", "looks": looks, "went_in": tools, **more}
        return self.enter("turn_seen", by=by, **body)

    def answer(self, question):
        """Answer as somebody careful; wait where a sealant has to cure, or a joint to rest."""
        body = answer(self.state, question, self.engine)
        by = LEAD if body["kind"] in ("hold_point", "sign_off") else BUILDER
        try:
            return self.enter(**body, by=by)
        except CoreError as refused:
            if not any(word in str(refused) for word in ("cures", "has rested")):
                raise
            self.clock += timedelta(hours=3)
            return self.enter(**body, by=by)

    def play(self, until=""):
        """Answer whatever is asked until a question comes up, or to the end."""
        if self.code and not self.folded.entries:
            self.folded, self.shown, self.clock = _way(self.code).reached(until)
        while (question := next_question(self.state)) and question.key != until:
            self.answer(question)
        return self

    def to(self, step):
        """The same, and it must come up."""
        self.play(step)
        question = next_question(self.state)
        assert question is not None, f"{step} never came up"
        return self

    def ends(self):
        """Titles of the loose ends, but for what is over by itself and what comes after hand-over."""
        return [end.title for end in self.state.loose_ends if not end.clears and not end.is_after]

    def end(self, words):
        """The loose end that says this."""
        return next(end for end in self.state.loose_ends if words in end.title)


class _Way:
    """The careful way through a family's run, gone once for all tests that begin somewhere along it."""

    def __init__(self, code) -> None:
        self.build = Build(code)
        self.build.code = ""  # it goes each step itself
        self.passed = {}

    def reached(self, until):
        """What stands where a question first comes up, or at the end."""
        while until not in self.passed:
            question = next_question(self.build.state)
            key = question.key if question else ""
            self.passed.setdefault(key, (self.build.folded, self.build.shown, self.build.clock))
            if question is None:
                return self.passed[""]
            if key != until:
                self.build.answer(question)
        return self.passed[until]


@cache
def _way(code):
    return _Way(code)

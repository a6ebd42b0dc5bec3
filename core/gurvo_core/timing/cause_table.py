"""What is known beforehand of likely causes: how often each is met, and what each check would show. Data, for whoever knows better.

Common practice throughout, with no source: the figures say which is met more often than which, not how often in all.
"""

__all__ = ["CHECKS", "KINDS", "MARK_OF", "TWO_AT_ONCE", "CauseKind", "Check", "check_of"]

from dataclasses import dataclass, field, replace


@dataclass(frozen=True, kw_only=True)
class CauseKind:
    """One kind of cause."""

    prior: float  # of all its variants together
    says: str  # what is done about it
    free_deg: float = 0.0  # how far it may move a cam beyond what it predicts, standard deviation [crank deg]
    shows: dict[str, float] = field(default_factory=dict)  # chance that a check finds all as it should be; elsewhere as usual


@dataclass(frozen=True, kw_only=True)
class Check:
    """One look that tells causes apart."""

    ask: str
    sound: str  # the answer where all is as it should be
    off: str
    usual: float  # chance of the sound answer under a cause that has nothing to do with it
    effort: float  # bits that it has to be worth more than a look, for the work it takes


MARK_OF = "marks:"  # before a camshaft's id: the look at its mark alone
TWO_AT_ONCE = 0.25  # of the product of what both are met with alone: about one engine of ten that something is wrong with

CHECKS: dict[str, Check] = {
    "again": Check(
        ask="Read the figure that stands out once more: does it come out the same?",
        sound="The same",
        off="Another",
        usual=0.97,
        effort=0.05,
    ),
    "marks": Check(
        ask="Bring the crank to its mark: does every cam mark meet its own?", sound="All meet", off="One does not", usual=0.95, effort=0.0
    ),
    "before": Check(
        ask="Did the marks meet when it was laid, before the first turn?", sound="They met", off="They did not", usual=0.95, effort=0.05
    ),
    "count": Check(
        ask="Count from mark to mark once more: is it the book's count?", sound="The book's", off="Another", usual=0.97, effort=0.1
    ),
    "zero": Check(
        ask="Find true TDC again, another way: does the pointer's error stand?", sound="It stands", off="It moved", usual=0.97, effort=0.2
    ),
    "fitted": Check(
        ask="Look which slot, bush or hole is used: is it the one that was meant?", sound="It is", off="Another", usual=0.97, effort=0.15
    ),
    "clamped": Check(
        ask="Look at the clamped sprocket: do its bolts stand where they were set, and all hold?",
        sound="As set",
        off="Elsewhere, or loose",
        usual=0.96,
        effort=0.05,
    ),
    "phaser": Check(
        ask="Push the phaser to its rest by hand: does it stay where it was?", sound="It stays", off="It moved", usual=0.96, effort=0.05
    ),
    "stamp": Check(
        ask="Read the letters on the camshafts: is each where it belongs?", sound="It is", off="One is not", usual=0.98, effort=0.1
    ),
    "feel": Check(
        ask="Turned by hand through two turns: even, without a springy or hard place?", sound="Even", off="Not even", usual=0.95, effort=0.1
    ),
    "pull": Check(
        ask="Pull the chain straight and measure over its links: within its limit?", sound="Within", off="Beyond", usual=0.92, effort=0.3
    ),
    "height": Check(
        ask="Measure head height and gasket: as the book has them?", sound="As the book", off="Less, or thicker", usual=0.93, effort=0.4
    ),
}

KINDS: dict[str, CauseKind] = {
    "none": CauseKind(prior=0.5, says="leave it as it is"),
    "zero": CauseKind(prior=0.08, says="find true TDC again before anything is moved", free_deg=4.0, shows={"zero": 0.05}),
    "zero_tooth": CauseKind(prior=0.03, says="find true TDC again before anything is moved", shows={"zero": 0.05}),
    "laid": CauseKind(prior=0.16, says="lay it again by its counts", shows={"marks": 0.04, "count": 0.05, "before": 0.15, "feel": 0.75}),
    "slack": CauseKind(
        prior=0.08, says="bring the slack over to the tensioner's side, then lay it again", shows={"marks": 0.04, "count": 0.1}
    ),
    "one_cam": CauseKind(
        prior=0.12, says="lay it again at that cam, by its counts", shows={"marks": 0.05, "count": 0.06, "before": 0.3, "feel": 0.7}
    ),
    "fitted": CauseKind(prior=0.08, says="put the one in that was meant", shows={"fitted": 0.03, "marks": 0.85}),
    "clamped": CauseKind(
        prior=0.08,
        says="set it to the lock or by degrees and clamp it again",
        free_deg=8.0,
        shows={"clamped": 0.08, "marks": 0.6, "before": 0.5},
    ),
    "phaser": CauseKind(prior=0.06, says="bring the phaser to its rest and pin it, then read again", shows={"phaser": 0.05, "marks": 0.7}),
    "swapped": CauseKind(
        prior=0.02, says="take the camshafts out and put each in its place", shows={"stamp": 0.02, "marks": 0.4, "feel": 0.3}
    ),
    "worn": CauseKind(prior=0.05, says="measure the chain; a worn one is not laid again", free_deg=1.2, shows={"pull": 0.08, "marks": 0.8}),
    "machined": CauseKind(
        prior=0.05, says="correct it at the sprockets; head, deck and gasket stay", free_deg=0.8, shows={"height": 0.07, "marks": 0.85}
    ),
    "misread": CauseKind(prior=0.08, says="strike the reading and take it again", free_deg=20.0, shows={"again": 0.05}),
    "unlisted": CauseKind(prior=0.03, says="look further before anything is moved", free_deg=20.0),
}

_ONE_MARK = Check(
    ask="Bring the crank to its mark: does the mark of the {name} meet its own?",
    sound="It meets",
    off="It does not",
    usual=0.97,
    effort=0.02,
)


def check_of(key: str, name: str = "") -> Check:
    """A check by its key; of the look at one camshaft's mark with its name."""
    if not key.startswith(MARK_OF):
        return CHECKS[key]
    return replace(_ONE_MARK, ask=_ONE_MARK.ask.format(name=name)) if name else _ONE_MARK

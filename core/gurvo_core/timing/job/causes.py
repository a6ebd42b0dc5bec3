"""Likely causes of what was measured, for the bench: the likeliest few, what each explains, and the one check between the first two."""

__all__ = ["CauseShown", "CausesAsked", "CausesView", "causes_view"]

from collections.abc import Iterator, Mapping

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.errors import GeometryError
from gurvo_core.ledger import View
from gurvo_core.sentence import within
from gurvo_core.timing.cause_table import CHECKS, KINDS, MARK_OF, check_of
from gurvo_core.timing.causes import Cause, Ranking, rank_causes
from gurvo_core.timing.evidence import MeasuredCam
from gurvo_core.timing.hypotheses import hypotheses_of
from gurvo_core.timing.job.cams import advance_words, cams_of
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero

SHOWN = 4
LEAST_SHARE = 0.02
LIKELY = 0.9
MOST_PERCENT = 99  # nothing is surer than that
ALIKE_U = 2.0  # times the uncertainty: predictions nearer than this look the same from the cams


class CausesAsked(BaseModel):
    """Checks that were made, by their key: whether all was as it should be."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    seen: dict[str, bool] = Field(default_factory=dict, max_length=20)


class Explained(View):
    """One camshaft: where it was found, and where this cause would have it."""

    name: str
    found: str
    predicted: str


class CauseShown(View):
    """One thing that could be."""

    key: str
    name: str
    percent: int
    says: str
    explains: list[Explained]


class CheckAsked(View):
    """One look, and its two answers."""

    key: str
    ask: str
    sound: str
    off: str


class CheckSeen(View):
    """A look that was made."""

    key: str
    ask: str
    answer: str
    is_from_run: bool


class CausesView(View):
    """What is likely wrong, as far as it can be told."""

    says: str
    is_sure: bool
    causes: list[CauseShown]
    check: CheckAsked | None
    seen: list[CheckSeen]


def causes_view(now: TimingState, asked: CausesAsked, known: Mapping[str, bool] | None = None) -> CausesView:
    """Return what is likely wrong with the drive.

    Raises GeometryError if a check is none of those that are asked.
    """
    own_marks = {f"{MARK_OF}{cam.id}": within(cam.name) for cam in now.document.camshafts}
    for key in asked.seen:
        if key not in CHECKS and key not in own_marks:
            raise GeometryError(f"seen.{key}", key, f"no check is called {key}; choose one of {', '.join(CHECKS)}")
    zero = adopted_zero(now)
    measured = list(_measured(now))
    if zero is None or not measured:
        return CausesView(says="Measure a camshaft first.", is_sure=False, causes=[], check=None, seen=[])
    seen = {**(known or {}), **asked.seen}
    ranking = rank_causes(hypotheses_of(now.document), measured, zero.own_u_deg, seen)
    called = {key: check_of(key, own_marks.get(key, "")) for key in (*seen, *([ranking.check] if ranking.check else []))}
    check = called[ranking.check] if ranking.check else None
    return CausesView(
        says=_says(ranking, measured, zero.own_u_deg),
        is_sure=ranking.is_sure,
        causes=[
            _shown(now, one, measured, does=n == 0 and ranking.is_sure)
            for n, one in enumerate(ranking.causes[:SHOWN])
            if n == 0 or one.share >= LEAST_SHARE
        ],
        check=CheckAsked(key=ranking.check or "", ask=check.ask, sound=check.sound, off=check.off) if check else None,
        seen=[
            CheckSeen(key=key, ask=called[key].ask, answer=called[key].sound if ok else called[key].off, is_from_run=key not in asked.seen)
            for key, ok in seen.items()
        ],
    )


def _measured(now: TimingState) -> Iterator[MeasuredCam]:
    zero = adopted_zero(now)
    for cam in cams_of(now):
        for valve in cam.valves:
            if zero is not None and valve.advance_deg is not None and valve.centreline_expanded_deg is not None:
                own = max(0.0, (valve.centreline_expanded_deg / 2) ** 2 - zero.own_u_deg**2) ** 0.5
                yield MeasuredCam(camshaft=cam.camshaft, valve=valve.valve, advance_deg=valve.advance_deg, u_deg=own)


def _shown(now: TimingState, cause: Cause, measured: list[MeasuredCam], *, does: bool) -> CauseShown:
    """One cause; what is done about it is said once it is sure, since it may take a good part out."""
    several = len(now.document.camshafts) > 1
    names = {cam.id: cam.name for cam in now.document.camshafts}
    first, *more = cause.parts
    return CauseShown(
        key="+".join(one.key for one in cause.parts),
        name=", and ".join([first.name, *(within(one.name) for one in more)]),
        percent=min(MOST_PERCENT, round(100 * cause.share)),
        says=", then ".join(dict.fromkeys(KINDS[kind].says for kind in cause.kinds)) if does else "",
        explains=[
            Explained(
                name=names[cam.camshaft] if several else cam.valve,
                found=advance_words(cam.advance_deg),
                predicted=advance_words(cause.predicted_deg[cam.place]),
            )
            for cam in measured
        ],
    )


def _says(ranking: Ranking, measured: list[MeasuredCam], u_zero_deg: float) -> str:
    """Whether it can be told, and which two the figures cannot tell apart."""
    first, second = ranking.causes[:2]
    if ranking.is_sure:
        return "Nothing is wrong that the figures could show." if first.is_nothing else "The figures say it, and a look has found it."
    if first.kinds == ("unlisted",):
        return "Nothing that is listed here explains the figures well. Read once more what stands out, then look further."
    if not first.is_nothing and first.share >= LIKELY:
        return "The figures point to the first. Move nothing for it before a look has found it."
    apart = any(
        abs(first.predicted_deg[cam.place] - second.predicted_deg[cam.place]) > ALIKE_U * (cam.u_deg**2 + u_zero_deg**2) ** 0.5
        for cam in measured
    )
    if apart:
        return "The figures alone cannot tell yet."
    return "The first two look the same from the camshafts: no more readings will tell them apart, one look does."

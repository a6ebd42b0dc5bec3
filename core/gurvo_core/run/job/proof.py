"""How each camshaft is told to stand right, from what was looked at since the drive was touched last. Nothing is proven by being done."""

__all__ = ["can_be_proven", "proofs_of", "touched_of"]

from collections.abc import Iterator, Mapping

from gurvo_core.engine import Camshaft, EngineDocument, LoopStage, WorkStep
from gurvo_core.engine.same import kept_for
from gurvo_core.ledger import CamProof, kept_with
from gurvo_core.motion.laid import counted_spans
from gurvo_core.run.job.state import Done, RunState
from gurvo_core.run.looks import looks_at_turn, tools_that_fit
from gurvo_core.run.plan import Plan
from gurvo_core.sentence import listed, within


@kept_with
def proofs_of(now: RunState) -> Mapping[str, CamProof]:
    """What proves each camshaft: marks, locks or counts at the last turning over since its drive was touched."""
    touched, found = touched_of(now), {}
    for cam in now.document.camshafts:
        proof = None
        for step, done in _turned(now):
            if done.seq > touched.get(cam.id, 0):
                proof = _at_turn(now, cam, step, done) or proof
        if proof is not None:
            found[cam.id] = proof
    return found


def _at_turn(now: RunState, cam: Camshaft, step: WorkStep, done: Done) -> CamProof | None:
    if done.is_skipped:
        return None
    if done.is_taken:
        words = f"marks taken as they are, on the lead's word: {done.because}"
        return CamProof(cam.id, cam.name, "word", words, done.seq, done.by)
    return _by_marks(now, cam, step, done) or _by_lock(now, cam, step, done) or _by_gears(now, cam, done) or _by_counts(now, cam, done)


@kept_with
def touched_of(now: RunState) -> Mapping[str, int]:
    """The last entry that touched the way from the crank to each camshaft."""
    everywhere = now.touched.get("", 0)
    return {
        cam.id: max((now.touched.get(loop, 0) for loop in loops_towards(now.document, cam.id)), default=everywhere)
        for cam in now.document.camshafts
        if now.touched
    }


@kept_for
def loops_towards(document: EngineDocument, shaft: str) -> frozenset[str]:
    """Ids of the chains, belts and gears on the way from the crank to a shaft."""
    on: dict[str, set[str]] = {}
    for wheel in document.drive.wheels:
        on.setdefault(wheel.shaft, set()).add(wheel.id)
    found: set[str] = set()
    waiting, seen = [shaft], {shaft}
    while waiting:
        own = on.get(waiting.pop(), set())
        for stage in document.drive.stages:
            drives = own & set(stage.wheel_ids[1:])  # the first one drives
            if drives and stage.id not in found:
                found.add(stage.id)
                before = [document.drive.wheel(name).shaft for name in stage.wheel_ids]
                waiting += [one for one in before if one not in seen and document.drive.shaft(one).kind != "crank"]
                seen.update(before)
    return frozenset(found)


def _turned(now: RunState) -> Iterator[tuple[WorkStep, Done]]:
    """The turns by hand that stand, oldest first."""
    turns = [one.step for one in now.did("turn_over")]
    yield from sorted(((step, now.done[step.id]) for step in turns), key=lambda one: one[1].seq)


def _marks_on(document: EngineDocument, cam: Camshaft) -> dict[str, str]:
    """The deciding marks that say how a camshaft stands, by their id with their names: on its wheels, or on one that faces those."""
    wheels = document.drive.wheels_on(cam.id)
    own = {mark.id for mark in document.drive.marks if mark.wheel in wheels}
    told = [mark for mark in document.drive.marks if mark.decides and not mark.decoy and (mark.wheel in wheels or mark.meets in own)]
    return {mark.id: within(mark.name) for mark in told}


def _by_marks(now: RunState, cam: Camshaft, step: WorkStep, done: Done) -> CamProof | None:
    marks = _marks_on(now.document, cam)
    if done.all_met:
        asked = looks_at_turn(now.document, now.plan.position_at(step.id), 0.0, step.stops[-1].turns)
        met = [marks[one.id] for one in asked if one.id in marks]
    else:
        met = [marks[name] for name, look in done.looks.items() if name in marks and look.saw == "meets"]
    if not met:
        return None
    turns = step.stops[-1].turns
    words = f"{listed(met)} met after {turns:g} turn{'' if turns == 1 else 's'} by hand"
    return CamProof(cam.id, cam.name, "marks", words, done.seq, done.by)


def _by_lock(now: RunState, cam: Camshaft, step: WorkStep, done: Done) -> CamProof | None:
    fitted = [thing for thing in now.document.things if thing.id in done.went_in and cam.id in thing.holds]
    if not fitted:
        return None
    turns = step.stops[-1].turns
    words = f"{listed([within(one.name) for one in fitted])} went in again after {turns:g} turn{'' if turns == 1 else 's'} by hand"
    return CamProof(cam.id, cam.name, "lock", words, done.seq, done.by)


def _by_gears(now: RunState, cam: Camshaft, done: Done) -> CamProof | None:
    """Gears keep what they were laid with: an idler's dots come together again only after many turns, so it is their laying that tells."""
    marks, gears = _marks_on(now.document, cam), _gears_of(now.document, cam)
    laid = [now.done[one.step.id] for one in now.did("lay") if one.step.loop in gears]
    for own in laid:
        met = [marks[name] for name, look in own.looks.items() if name in marks and look.saw == "meets"]
        if met and not own.is_skipped:
            words = f"{listed(met)} met when the gears were laid, turned over by hand since"
            return CamProof(cam.id, cam.name, "marks", words, max(done.seq, own.seq), own.by)
    return None


def _gears_of(document: EngineDocument, cam: Camshaft) -> set[str]:
    """Ids of the gear trains that drive a camshaft."""
    wheels = document.drive.wheels_on(cam.id)
    return {one.id for one in document.drive.stages if not isinstance(one, LoopStage) and wheels & set(one.wheel_ids)}


def _by_counts(now: RunState, cam: Camshaft, done: Done) -> CamProof | None:
    """Links or teeth counted as the book has them, and turned over since without anything seen to be off."""
    wheels = now.document.drive.wheels_on(cam.id)
    for loop in now.document.drive.stages:
        if not isinstance(loop, LoopStage) or not wheels & set(loop.wheel_ids):
            continue
        laid = [now.done[one.id] for one in now.plan.of_loop.get(loop.id, ()) if one.does == "lay" and one.id in now.done]
        said = [own for own in laid if not own.is_skipped and _counted(loop, own, wheels, now.document)]
        if said:
            words = f"{loop.counted_in} of {within(loop.name)} counted as the book has them, turned over by hand"
            return CamProof(cam.id, cam.name, "counts", words, max(done.seq, said[-1].seq), said[-1].by)
    return None


def _counted(loop: LoopStage, laid: Done, wheels: set[str], document: EngineDocument) -> bool:
    """Whether a count to or from a mark of these wheels was made, or a coloured link was seen on one of them."""
    wheel_of = {mark.id: mark.wheel for mark in document.drive.marks}
    spans = [span for span in counted_spans(loop) if span.book is not None and laid.answers.get(span.key)]
    links = [link for link in loop.marked if link.id in laid.looks and laid.looks[link.id].saw == "meets"]
    ends = {wheel_of.get(name, "") for span in spans for name in (span.from_mark, span.to_mark)}
    return bool(wheels & (ends | {wheel_of.get(link.meets, "") for link in links}))


def can_be_proven(plan: Plan, cam: Camshaft) -> bool:
    """Whether a run has anything by which a camshaft may be told to stand right: readings, marks, locks or counts."""
    document = plan.document
    if plan.doing("degree") and document.is_on_the_wheel(cam):
        return True
    turns = [one.step for one in plan.doing("turn_over")]
    if not turns:
        return False
    where = [(plan.position_at(step.id), step.stops[-1].turns) for step in turns]
    asked = {look.id for position, turns_in_all in where for look in looks_at_turn(document, position, 0.0, turns_in_all)}
    if asked & _marks_on(document, cam).keys():
        return True
    if any(cam.id in thing.holds for step in turns for stop in step.stops for thing in tools_that_fit(document, stop.turns)):
        return True
    if any(one.step.loop in _gears_of(document, cam) for one in plan.doing("lay")) and _marks_on(document, cam):
        return True
    wheels = document.drive.wheels_on(cam.id)
    wheel_of = {mark.id: mark.wheel for mark in document.drive.marks}
    laid = {one.step.loop for one in plan.doing("lay")}
    loops = [one for one in document.drive.stages if isinstance(one, LoopStage) and one.id in laid and wheels & set(one.wheel_ids)]
    ends = {name for loop in loops for span in counted_spans(loop) for name in (span.from_mark, span.to_mark)}
    return bool(wheels & {wheel_of.get(name, "") for name in ends})

"""What could be wrong with a cam drive, and where each camshaft would then be found."""

__all__ = ["Hypothesis", "hypotheses_of"]

from collections.abc import Iterator
from dataclasses import dataclass, replace

from gurvo_core.angles import signed_deg
from gurvo_core.engine import (
    Camshaft,
    EngineDocument,
    GearStage,
    HoleCircles,
    KeySlots,
    LoopStage,
    OffsetBushes,
    SlottedSprocket,
    Stage,
)
from gurvo_core.motion.laid import crank_deg_a_pitch, loads_of, shaft_name
from gurvo_core.sentence import within

TEETH = (1, 2)
TWO_TEETH = 0.2  # of how often one tooth is met
ALONE = ("none", "unlisted")
ONE_THING = {"zero": "zero", "zero_tooth": "zero", "worn": "worn", "machined": "machined"}  # however many variants it has
BOTH_BANKS = "laid:all"
WORN_DEG = -2.0  # a worn chain retards, this much as a rule
MACHINED_DEG = -1.0
SAME_PLACE_DEG = 0.5


@dataclass(frozen=True, kw_only=True)
class Hypothesis:
    """One thing that could be, and what it does to every camshaft; early is positive [crank deg]."""

    key: str
    kind: str
    name: str
    share: float  # of its kind's prior
    moves_deg: dict[str, float]  # camshafts that are left out stand as they should
    free_of: tuple[str, ...] = ()  # camshafts that it may move by any amount, together where it is one cause
    at_most_deg: float = 0.0  # lost motion: anything up to this beyond what it says, the same way

    def moves(self, camshaft: str) -> bool:
        """Whether it has anything to do with where a camshaft stands."""
        return camshaft in self.moves_deg or any(name.split("/")[0] == camshaft for name in self.free_of)

    @property
    def thing(self) -> str:
        """What it is about, however it is wrong: one loop, one sprocket, the wheel's zero."""
        what, *named = self.key.split(":")
        return ONE_THING.get(self.kind) or ":".join(["laid" if what == "slack" else what, *named[:1]])

    def goes_with(self, other: "Hypothesis") -> bool:
        """Whether both may be at once; one thing is wrong in one way, and what nothing explains needs no second."""
        if self.kind in ALONE or other.kind in ALONE or self.thing == other.thing:
            return False
        laid = {self.thing, other.thing}
        return not (BOTH_BANKS in laid and all(thing.startswith("laid:") for thing in laid))


def hypotheses_of(document: EngineDocument) -> list[Hypothesis]:
    """Return everything that could be wrong with a drive.

    Source: Common practice; what a tooth, a slot and a bush are worth follows from their geometry.
    >>> [one.key for one in hypotheses_of(quern_4())][:4]
    ['none', 'zero', 'zero_tooth:+17.1', 'zero_tooth:-17.1']
    """
    found = [
        Hypothesis(key="none", kind="none", name="Everything as it should be", share=1.0, moves_deg={}),
        *_zero(document),
        *_laid(document),
        *_both_banks(document),
        *_fitted(document),
        *_clamped(document),
        *_phasers(document),
        *_swapped(document),
        *_small(document),
        *_misread(document),
        *_unlisted(document),
    ]
    return _shared(found)


def _shared(found: list[Hypothesis]) -> list[Hypothesis]:
    """Variants of one kind share its prior."""
    whole: dict[str, float] = {}
    for one in found:
        whole[one.kind] = whole.get(one.kind, 0.0) + one.share
    return [replace(one, share=one.share / whole[one.kind]) for one in found]


def _zero(document: EngineDocument) -> Iterator[Hypothesis]:
    """The wheel's zero out: by anything, or by just as much as a tooth, which no camshaft can tell from a tooth."""
    every = tuple(cam.id for cam in document.camshafts)
    yield Hypothesis(key="zero", kind="zero", name="The pointer is out", share=1.0, moves_deg=dict.fromkeys(every, 0.0))
    pitches = (_pitch_deg(document, stage) for stage in document.drive.stages if _driven_by(document, stage))
    for pitch_deg in dict.fromkeys(deg for deg in pitches if deg):
        for sign, way in ((1, "on"), (-1, "back")):
            name = f"The pointer is out by a tooth's worth, {round(pitch_deg, 1):g}° {way}"
            key = f"zero_tooth:{sign * pitch_deg:+.1f}"
            yield Hypothesis(key=key, kind="zero_tooth", name=name, share=1.0, moves_deg=dict.fromkeys(every, sign * pitch_deg))


def _driven_by(document: EngineDocument, stage: Stage) -> tuple[str, ...]:
    """Camshafts that turn with a stage: its own, and those that other stages drive from these."""
    reached: list[str] = []
    waiting = [document.drive.wheel(name).shaft for name in stage.wheel_ids][1:]
    while waiting:
        shaft = waiting.pop(0)
        if shaft in reached or document.drive.shaft(shaft).kind == "crank":
            continue
        reached.append(shaft)
        for other in document.drive.stages:
            wheels = [document.drive.wheel(name).shaft for name in other.wheel_ids]
            if other is not stage and wheels[0] == shaft:
                waiting += wheels[1:]
    return tuple(cam.id for cam in document.camshafts if cam.id in reached)


def _pitch_deg(document: EngineDocument, stage: Stage) -> float | None:
    if isinstance(stage, LoopStage):
        return crank_deg_a_pitch(document, stage)
    wheel = document.drive.wheel(stage.meshes[0].driver)
    turns = document.turns_clockwise.get(wheel.shaft)
    return 360 / wheel.teeth / abs(turns) if wheel.teeth and turns else None


def _laid(document: EngineDocument) -> Iterator[Hypothesis]:
    """Laid teeth off: the whole stage, or one cam of several."""
    for stage in document.drive.stages:
        pitch_deg, cams = _pitch_deg(document, stage), _driven_by(document, stage)
        if pitch_deg is None or not cams:
            continue
        one, many = (stage.counted_one, stage.counted_in) if isinstance(stage, LoopStage) else ("tooth", "teeth")
        for teeth in TEETH:
            how = f"a {one}" if teeth == 1 else f"{teeth} {many}"
            share = 1.0 if teeth == 1 else TWO_TEETH
            for sign, way in ((1, "early"), (-1, "late")):
                moves = dict.fromkeys(cams, sign * teeth * pitch_deg)
                name = f"{stage.name}: laid {how} {way}"
                yield Hypothesis(key=f"laid:{stage.id}:{sign * teeth:+d}", kind="laid", name=name, share=share, moves_deg=moves)
                yield from _one_cam(document, stage, (sign * teeth, f"{how} {way}"), sign * teeth * pitch_deg)
        if isinstance(stage, LoopStage):
            name = f"{stage.name}: slack was on the tight side"
            yield Hypothesis(key=f"slack:{stage.id}", kind="slack", name=name, share=1.0, moves_deg=dict.fromkeys(cams, -pitch_deg))


def _both_banks(document: EngineDocument) -> Iterator[Hypothesis]:
    """Every stage that the crank drives a camshaft by, laid alike: one mistake made twice."""
    crank = next((shaft.id for shaft in document.drive.shafts if shaft.kind == "crank"), None)
    roots = [
        stage for stage in document.drive.stages if document.drive.wheel(stage.wheel_ids[0]).shaft == crank and _driven_by(document, stage)
    ]
    if len(roots) < 2:
        return
    for sign, way in ((1, "early"), (-1, "late")):
        moves = {cam: sign * (_pitch_deg(document, stage) or 0.0) for stage in roots for cam in _driven_by(document, stage)}
        yield Hypothesis(key=f"laid:all:{sign:+d}", kind="laid", name=f"Both sides laid one {way}", share=0.5, moves_deg=moves)


def _one_cam(document: EngineDocument, stage: Stage, off: tuple[int, str], off_deg: float) -> Iterator[Hypothesis]:
    """One of several camshafts that a loop drives stands teeth off, and all that hangs on it."""
    if isinstance(stage, GearStage):
        return
    own = [shaft for _, shaft in loads_of(document, stage) if document.camshaft(shaft) is not None]
    if len(own) < 2 or document.drive.wheel(stage.wheel_ids[0]).shaft in own:
        return
    for cam in own:
        hung = [other for other in document.drive.stages if document.drive.wheel(other.wheel_ids[0]).shaft == cam]
        with_it = {cam, *(moved for other in hung for moved in _driven_by(document, other))}
        name = f"{stage.name}: {shaft_name(document, cam)} {off[1]}"
        share = 1.0 if abs(off[0]) == 1 else TWO_TEETH
        yield Hypothesis(
            key=f"one_cam:{cam}:{off[0]:+d}", kind="one_cam", name=name, share=share, moves_deg=dict.fromkeys(sorted(with_it), off_deg)
        )


def _moved_by(document: EngineDocument, camshafts: tuple[str, ...]) -> tuple[str, ...]:
    return camshafts or tuple(cam.id for cam in document.camshafts)


def _fitted(document: EngineDocument) -> Iterator[Hypothesis]:
    """Another slot, bush or hole than the one that was meant."""
    for adjustment in document.adjustments:
        cams = _moved_by(document, adjustment.camshafts)
        if isinstance(adjustment, KeySlots):
            book = next(slot.advance_deg for slot in adjustment.slots if slot.name == adjustment.fitted)
            steps = {f"slot {slot.name}": slot.advance_deg - book for slot in adjustment.slots if slot.name != adjustment.fitted}
        elif isinstance(adjustment, OffsetBushes):
            steps = {f"bush {bush.name}": 2 * bush.cam_deg for bush in adjustment.bushes if bush.cam_deg}
        elif isinstance(adjustment, HoleCircles):
            step_deg = 360 / adjustment.sprocket_holes * 2  # the cam one whole hole of the sprocket on, as it is mistaken
            steps = {"the next hole": step_deg, "the hole before": -step_deg}
        else:
            continue
        for what, deg in steps.items():
            key = f"fitted:{adjustment.name}:{what}"
            yield Hypothesis(key=key, kind="fitted", name=f"{adjustment.name}: {what}", share=1.0, moves_deg=dict.fromkeys(cams, deg))


def _clamped(document: EngineDocument) -> Iterator[Hypothesis]:
    """A sprocket that is clamped by angle may stand anywhere its slots let it; of which nobody says whose it is, each cam has its own."""
    for adjustment in document.adjustments:
        if not isinstance(adjustment, SlottedSprocket):
            continue
        for cams in [adjustment.camshafts] if adjustment.camshafts else [(cam.id,) for cam in document.camshafts]:
            names = [] if adjustment.camshafts else [f", {within(shaft_name(document, cams[0]))}"]
            yield Hypothesis(
                key=f"clamped:{cams[0]}",
                kind="clamped",
                name="".join([adjustment.name, *names, ": clamped elsewhere"]),
                share=1.0,
                moves_deg=dict.fromkeys(cams, -(adjustment.range_deg or 0.0)),
                at_most_deg=2 * (adjustment.range_deg or 0.0),
            )


def _phasers(document: EngineDocument) -> Iterator[Hypothesis]:
    for cam in document.camshafts:
        if cam.phaser is not None and cam.phaser.travel_deg is not None:
            # with its rest unknown it is looked for on the advanced side
            name = f"{cam.phaser.name} off its stop"
            travel = cam.phaser.other_stop_deg or cam.phaser.travel_deg
            yield Hypothesis(key=f"phaser:{cam.id}", kind="phaser", name=name, share=1.0, moves_deg={cam.id: 0.0}, at_most_deg=travel)


def _swapped(document: EngineDocument) -> Iterator[Hypothesis]:
    """Two camshafts of one head, or the same one of two heads: each stands where the other's lobes are, keyed as it was."""

    def could(one: Camshaft, other: Camshaft) -> bool:
        return one.bank == other.bank or one.valves == other.valves

    cams = document.camshafts
    for n, one in enumerate(cams):
        for other in cams[n + 1 :]:
            noses = _first_nose_deg(document, one), _first_nose_deg(document, other)
            if not could(one, other) or noses[0] is None or noses[1] is None:
                continue
            later_deg = signed_deg(noses[1] - noses[0])  # of half a turn and more a wheel shows the rest
            if abs(later_deg) < SAME_PLACE_DEG:
                continue  # nothing that a wheel shows tells them apart
            name = f"{one.name} and {within(other.name)} swapped"
            moves = {one.id: -later_deg, other.id: later_deg}
            yield Hypothesis(key=f"swapped:{one.id}:{other.id}", kind="swapped", name=name, share=1.0, moves_deg=moves)


def _first_nose_deg(document: EngineDocument, cam: Camshaft) -> float | None:
    """Where the nose of a camshaft's first lobe stands, round the cycle from the reference cylinder's overlap [crank deg]."""
    lobe = next(iter(cam.lobes), None)
    if lobe is None or lobe.nose_after_overlap_deg is None or lobe.cylinder not in document.firing_deg:
        return None
    return document.from_reference_deg(lobe.cylinder) + lobe.nose_after_overlap_deg


def _small(document: EngineDocument) -> Iterator[Hypothesis]:
    """A worn chain retards whatever it drives; a lowered head the cams of its bank."""
    chains = {stage.name: _driven_by(document, stage) for stage in document.drive.stages if stage.kind == "chain"}
    worn = {name: cams for name, cams in chains.items() if cams}
    if len(worn) > 1:
        worn["All chains"] = tuple(cam.id for cam in document.camshafts)
    for name, cams in worn.items():
        moves = dict.fromkeys(cams, WORN_DEG)
        yield Hypothesis(key=f"worn:{name}", kind="worn", name=f"{name} worn longer", share=1.0, moves_deg=moves)
    over_head = [cam for cam in document.camshafts if all(follower.kind != "pushrod" for follower in cam.followers)]
    heads = {
        f"Head or deck of {bank.name} machined": tuple(cam.id for cam in over_head if cam.bank == bank.id)
        for bank in document.banks
        if any(cam.bank == bank.id for cam in over_head)
    }
    heads = heads if len(heads) > 1 else {}
    if over_head:
        heads["Heads or decks machined alike" if heads else "Head or deck machined"] = tuple(cam.id for cam in over_head)
    for name, cams in heads.items():
        moves = dict.fromkeys(cams, MACHINED_DEG)
        yield Hypothesis(key=f"machined:{name}", kind="machined", name=f"{name}, not made up for", share=1.0, moves_deg=moves)


def _misread(document: EngineDocument) -> Iterator[Hypothesis]:
    """One valve's figure alone, or all of a camshaft's."""
    for cam in document.camshafts:
        its = within(cam.name)
        name = f"{cam.name}: a figure misread throughout"
        yield Hypothesis(key=f"misread:{cam.id}", kind="misread", name=name, share=TWO_TEETH, moves_deg={}, free_of=(cam.id,))
        for valve in cam.valves if len(cam.valves) > 1 else ():
            name = f"A figure of the {valve} valve misread, {its}"
            yield Hypothesis(
                key=f"misread:{cam.id}/{valve}", kind="misread", name=name, share=1.0, moves_deg={}, free_of=(f"{cam.id}/{valve}",)
            )


def _unlisted(document: EngineDocument) -> Iterator[Hypothesis]:
    """Whatever nobody thought of: every camshaft anywhere. No look finds it, so that it is never sure."""
    every = tuple(cam.id for cam in document.camshafts)
    yield Hypothesis(key="unlisted", kind="unlisted", name="Something that is not listed here", share=1.0, moves_deg={}, free_of=every)

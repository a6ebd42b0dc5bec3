"""The questions a builder answers one after another: wheel, true TDC, every cam."""

__all__ = ["ask_cams", "ask_setup", "ask_tdc"]

from dataclasses import dataclass
from functools import lru_cache, partial

from gurvo_core.angles import wrap_deg
from gurvo_core.engine import Flank
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.ledger import Asked, Basis, Facts, PlainAnswer, Question, Step, kept_last, kept_with
from gurvo_core.ledger.room import Status
from gurvo_core.motion.frames import slider_of
from gurvo_core.sentence import AGAINST, RUNNING, length
from gurvo_core.timing import DegreeWheel, Side, in_words, tdc_dwell_half_width_deg, wheel_figure
from gurvo_core.timing.job.cams import cams_of
from gurvo_core.timing.job.kinds.cam_decision import CamQuestion, answers_about
from gurvo_core.timing.job.kinds.piston_stop import StopQuestion
from gurvo_core.timing.job.kinds.tdc_method import MethodQuestion
from gurvo_core.timing.job.kinds.wheel_zero import ZeroQuestion
from gurvo_core.timing.job.readings import off_of
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.true_tdc import adopted_zero, find_tdc, half_pair, pairs_of, rests_on, tdc_basis
from gurvo_core.timing.job.view import (
    CamFigures,
    LengthField,
    LiftQuestion,
    Option,
    SetupQuestion,
    TdcQuestion,
    ValveFigures,
    WheelCheckQuestion,
)
from gurvo_core.timing.job.words import METHOD_NAMES
from gurvo_core.timing.lift_fit import LEAST_POINTS
from gurvo_core.timing.lines import FLANKS, CamLine, LineAt
from gurvo_core.timing.off_centre import LEAST_PLACES
from gurvo_core.timing.tdc import TdcMethod
from gurvo_core.timing.tdc_fit import MIN_READINGS

LATE_ENDS = (
    "The other end of the dwell: turn on to the last place before the dial falls. "
    "Both ends are noticed a little late, which moves the middle: read a second pair turning back, and it falls out."
)
RUNNING_WAY = f"Turn the running way only, {RUNNING}. Went past it? Back up a quarter turn and come again."
DROP = LengthField(name="drop", label="Dial, drop from the top")
# what is asked before and after TDC, and what the figure then is
_PAIRS: dict[TdcMethod, dict[str, tuple[str, str, str]]] = {
    "positive_stop": {
        "before": (
            "Turn forward: where does the piston meet the stop?",
            f"Gently, {RUNNING}, by hand, until the piston touches. It must be a touch, not a push.",
            "met turning forward",
        ),
        "after": (
            "Turn back: where does it meet the stop?",
            f"Round the other way, {AGAINST}, until the piston touches the stop again.",
            "met turning back",
        ),
    },
    "equal_drop": {
        "before": ("Where is the piston down by the drop, coming up?", RUNNING_WAY, "at that drop"),
        "after": (
            "Where is it down by the same drop, going down?",
            "On over the top, the running way, until the dial shows the same drop again.",
            "at that drop",
        ),
    },
    "top": {
        "before": (
            "Where does the dial stop rising?",
            "One end of the dwell: the first place from which the dial moves no more. " + RUNNING_WAY,
            "where it stops rising",
        ),
        "after": (
            "Where does it begin to fall again?",
            LATE_ENDS,
            "where it begins to fall",
        ),
    },
}


def _status(done: bool) -> Status:
    return "done" if done else "open"


def _side_at(wheel: DegreeWheel | None, crank_deg: float) -> Side | None:
    """The side a figure is on, on a folded wheel."""
    return wheel_figure(crank_deg, wheel)[1] if wheel else None


def ask_setup(now: TimingState, _step: Step, _facts: Facts) -> Asked:
    """How the wheel is set up."""
    question = SetupQuestion(
        key="setup",
        title="Wheel and dial",
        ask="How is your wheel numbered, and which way does it run?",
        hint="Bolt the wheel to the crank, set its zero roughly to TDC, fix the pointer. Plugs out, stand locked.",
        status=_status(now.setup is not None),
    )
    return Asked(questions=[question])


def _check(now: TimingState) -> WheelCheckQuestion:
    """An extra: a wheel off centre errs at every place, however many readings are taken."""
    left = f"{len(now.checked)} of {LEAST_PLACES} places at least" if now.checked else "Not checked"
    off = off_of(now)
    found = f"It sits {off.most_deg:.2f}° off at most; that is taken off every reading from now on" if off else left
    return WheelCheckQuestion(
        key="tdc:check",
        title="Opposite pointers",
        ask="What do two opposite pointers read?",
        hint="Fix a second pointer half a turn from the first. Read both at four places a quarter turn apart; none is needed to go on.",
        status="optional",
        again=True,
        found=found,
    )


def ask_tdc(now: TimingState, _step: Step, _facts: Facts) -> Asked:
    """Method, stop in, readings, zero, stop out."""
    return kept_last(now.zero, "asked", rests_on(now), partial(_asked_of_tdc, now))


def _asked_of_tdc(now: TimingState) -> Asked:
    estimate, adopted = find_tdc(now), adopted_zero(now) is not None
    # a wheel is looked at before anything is read on it, by whoever wants to be surer
    questions: list[Question] = [*([_check(now)] if now.setup is not None and not now.tdc_readings else []), _method(now)]
    if now.method == "positive_stop":
        questions.append(_stop_in(now, adopted))
    questions += _fit_readings(now) if now.method == "fit" else _pair_questions(now)
    basis = tdc_basis(now)
    shown = f"{estimate.zero_deg:+.2f}° (U = {estimate.expanded_deg:.2f}°)" if estimate else ""
    questions.append(
        ZeroQuestion(
            key="tdc:zero",
            title="Pointer error",
            ask=f"Take over true TDC: the pointer is out by {shown}?" if estimate else "True TDC is not known yet",
            hint="Leave wheel and pointer where they are: the error is taken off every reading from now on.",
            status=_status(adopted),
            zero_deg=estimate.zero_deg if estimate else None,
            method=now.method,
            rests_on=basis,
            answers=[_take_over(now, estimate.zero_deg, basis)] if estimate else [],
            said="From now on the error is taken off every reading." if estimate else "Take the readings first.",
        )
    )
    if now.stop_in:
        questions.append(
            StopQuestion(
                key="tdc:stop_out",
                title="Stop out",
                ask="Take the piston stop out. Is it out?",
                hint="Turning on with the stop in bends it or cracks the piston.",
                status="open",
                fitted=False,
                answers=[PlainAnswer(title="The stop is out", entry={"kind": "piston_stop", "fitted": False})],
                said="Only you can see that it is out.",
            )
        )
    return Asked(questions=questions, note=f"±{estimate.expanded_deg:.1f}°" if estimate else "")


def _method(now: TimingState) -> MethodQuestion:
    slider = slider_of(now.document)
    details: dict[TdcMethod, str] = {
        "positive_stop": "a stop in the plug hole, met from both ways",
        "equal_drop": "a dial on the piston, the same drop either side",
    }
    if slider is not None:  # the others need to know how the piston moves
        dwell_deg = tdc_dwell_half_width_deg(slider, now.dial_step_mm)
        details["fit"] = f"a dial on the piston, {MIN_READINGS} or more readings; finds a misread one"
        details["top"] = f"both ends of the dwell, {2 * dwell_deg:.1f}° apart; the middle is TDC"
    options = [Option(value=method, label=METHOD_NAMES[method].capitalize(), detail=text) for method, text in details.items()]
    return MethodQuestion(
        key="tdc:method",
        title="Method",
        ask="How will you find true TDC?",
        hint=f"Cylinder {now.document.reference_cylinder}. The piston dwells at the top: a stop or equal drops look where it moves.",
        status=_status(now.method_chosen or bool(now.tdc_readings)),
        options=options,
        answers=[PlainAnswer(title=one.label, detail=one.detail, entry={"kind": "tdc_method", "method": one.value}) for one in options],
        first_by_enter=True,
    )


def _take_over(now: TimingState, zero_deg: float, basis: Basis) -> PlainAnswer:
    entry = {"kind": "wheel_zero", "method": now.method, "zero_deg": zero_deg, "rests_on": basis.model_dump()}
    return PlainAnswer(title="Take it over", entry=entry)


def _stop_in(now: TimingState, adopted: bool) -> StopQuestion:
    return StopQuestion(
        key="tdc:stop_in",
        title="Stop in",
        ask="Fit the piston stop. Is it in?",
        hint="Well off TDC, so that the piston is clear of it; then turn by hand only. It is a loose end until it is out again.",
        status=_status(bool(now.stop_in) or adopted or bool(now.tdc_readings)),
        fitted=True,
        answers=[PlainAnswer(title="The stop is in", entry={"kind": "piston_stop", "fitted": True})],
        said="It is on the list of loose ends until it is out.",
    )


def _fit_readings(now: TimingState) -> list[TdcQuestion]:
    count = sum(1 for reading in now.tdc_readings if reading.body.method == now.method)
    question = TdcQuestion(
        key="tdc:point",
        title=f"Readings · {count}",
        ask=f"Reading {count + 1}: dial and wheel, anywhere near TDC?",
        hint=f"Both sides of TDC, {MIN_READINGS} at least; 20° to 60° away says most. " + RUNNING_WAY,
        status=_status(find_tdc(now) is not None),
        wheel_detail="at that drop",
        field=DROP,
        method="fit",
    )
    return [question]


def _pair_questions(now: TimingState) -> list[TdcQuestion]:
    waiting, have = half_pair(now), len(pairs_of(now)) > 0
    questions = []
    for place in ("before", "after"):
        ask, hint, detail = _PAIRS[now.method][place]
        done = (have and waiting is None) or (waiting is not None and waiting.body.place == place)
        questions.append(
            TdcQuestion(
                key=f"tdc:{place}",
                title={"before": "Before TDC", "after": "After TDC"}[place],
                ask=ask,
                hint=hint,
                status=_status(done),
                wheel_detail=detail,
                field=DROP if now.method == "equal_drop" else None,
                expected_side=_side_at(now.wheel, -45.0 if place == "before" else 45.0),
                method=now.method,
                place="before" if place == "before" else "after",
            )
        )
    return questions


def ask_cams(now: TimingState, _step: Step, _facts: Facts) -> Asked:
    """Every cam: its events, its full lift as an extra, and what is done about it."""
    return _asked_of_cams(now)


@kept_with
def _asked_of_cams(now: TimingState) -> Asked:
    questions: list[Question] = []
    for cam in cams_of(now):
        questions += _lift_questions(now, cam)
        questions.append(_cam_question(now, cam))
    asked = [question for question in questions if isinstance(question, LiftQuestion) and question.status != "optional"]
    taken = sum(question.status == "done" for question in asked)
    return Asked(questions=questions, note=f"{taken} / {len(asked)}" if taken else "")


def _several(now: TimingState) -> bool:
    return len(now.document.camshafts) > 1


def _cam_question(now: TimingState, cam: CamFigures) -> CamQuestion:
    name = cam.name if _several(now) else "The cam"
    about, answers = cam.name if _several(now) else "the cam", answers_about(cam)
    return CamQuestion(
        key=f"cam:{cam.camshaft}",
        title=f"Decide, {cam.name}" if _several(now) else "Decide",
        ask=f"{name} is {cam.advance_words}. What will you do?" if cam.verdict else f"What will you do about {about}?",
        hint="Have the valve-to-piston clearance checked before turning a cam that was moved. The maker's figures come first.",
        status=_status(bool(cam.decided)),
        group=cam.name if _several(now) else "",
        waits=f"a decision about {about}",
        camshaft=cam.camshaft,
        answers=answers,
        said="" if answers else "Take the readings of both flanks of every valve first.",
        # one that may not stay as it is without a reason is moved, where that can be
        chosen=1 if len(answers) > 1 and answers[0].needs_words else 0,
    )


@dataclass(frozen=True)
class _Setting:
    """What a question about a lift depends on beside its line."""

    lobe: str  # as short as the engine allows
    wheel: DegreeWheel | None
    reference: int  # the cylinder from which the wheel counts
    several: bool  # a lone cam need not be named


def _setting(now: TimingState, at: LineAt) -> _Setting:
    """Several cams may each have an intake side: then the cam is named."""
    alike = [other for other in now.lines if other.valve == at.line.valve]
    lobe = at.line.valve.capitalize() if len(alike) == 1 else at.shaft.name
    return _Setting(lobe, now.wheel, now.document.reference_cylinder, _several(now))


def _which(at: LineAt, several: bool) -> tuple[str, str]:
    """How a question begins and whose valve it asks about."""
    if not several:
        return "Where", f"the {at.line.valve} valve"
    return f"{at.shaft.name}: where", f"the {at.line.valve} valve of cylinder {at.line.cylinder}"


def _figures_of(cam: CamFigures, line: CamLine) -> ValveFigures:
    """The figures that were worked out for a line of the card."""
    return next(v for v in cam.valves if (v.valve, v.lift_mm, v.cylinder) == (line.valve, line.lift_mm, line.cylinder))


def _on_the_wheel(at: LineAt, wheel_deg: float, reference: int) -> str:
    """Where the wheel should stand; it counts from the reference cylinder, so say so when the valve is another's."""
    if not at.line.has_card:
        return ""
    return in_words(wheel_deg) + (f" of cylinder {reference}" if at.line.cylinder != reference else "")


def _lift_questions(now: TimingState, cam: CamFigures) -> list[Question]:
    own = [(at, _setting(now, at)) for at in now.at if at.line.camshaft == cam.camshaft]
    questions: list[Question] = []
    for at, setting in own:
        figures = _figures_of(cam, at.line)
        questions.append(_event_question(at, "opening", figures.opening.readings > 0, setting))
        questions.append(_event_question(at, "closing", figures.closing.readings > 0, setting))
    tops = [_top_question(at, setting) for at, setting in own]
    curves = [_curve_question(at, flank, setting) for at, setting in _once_a_valve(own) for flank in FLANKS]
    return [*questions, *tops, *curves]


def _once_a_valve(own: list[tuple[LineAt, _Setting]]) -> list[tuple[LineAt, _Setting]]:
    """Of lines of one valve at several lifts the first, where the shape of its lobe is known."""
    firsts = {(one[0].line.cylinder, one[0].line.valve): one for one in reversed(own) if one[0].profile is not None}
    return list(firsts.values())[::-1]


@lru_cache(maxsize=1024)
def _event_question(at: LineAt, flank: Flank, is_read: bool, setting: _Setting) -> LiftQuestion:
    line, lift, begins = at.line, length(at.line.lift_mm), _which(at, setting.several)
    on_wheel_deg = wrap_deg(line.event_deg(flank) + at.on_deg, CYCLE_DEG)
    moving = "rising" if flank == "opening" else "falling"
    return LiftQuestion(
        key=f"lift:{line.camshaft}:{line.valve}:{line.lift_mm:g}:{flank}",
        title=f"{setting.lobe}, {flank} side",
        ask=f"{begins[0]} does {begins[1]} pass {lift}, {flank}?",
        hint=RUNNING_WAY,
        status=_status(is_read),
        group=at.shaft.name if setting.several else "",
        wheel_detail=f"dial on cylinder {line.cylinder} {line.valve}, {moving} through {lift}",
        field=LengthField(name="lift", label="Checking lift", asked_mm=line.lift_mm),
        expected_deg=on_wheel_deg,
        expected_words=_on_the_wheel(at, on_wheel_deg, setting.reference),
        expected_side=_side_at(setting.wheel, on_wheel_deg),
        camshaft=line.camshaft,
        cylinder=line.cylinder,
        valve=line.valve,
        flank=flank,
    )


@lru_cache(maxsize=1024)
def _top_question(at: LineAt, setting: _Setting) -> LiftQuestion:
    line, begins, on_wheel_deg = at.line, _which(at, setting.several), at.line.top_deg + at.on_deg
    return LiftQuestion(
        key=f"lift:{line.camshaft}:{line.valve}:{line.lift_mm:g}:top",
        title=f"{setting.lobe}, full lift",
        ask=f"{begins[0]} does {begins[1]} stand at full lift?",
        hint="A cross-check by maximum lift; the nose is flat, so it says less than the middle of equal lifts.",
        status="optional",
        group=at.shaft.name if setting.several else "",
        wheel_detail=f"dial on cylinder {line.cylinder} {line.valve}, at its highest",
        expected_deg=wrap_deg(on_wheel_deg, CYCLE_DEG),
        expected_words=_on_the_wheel(at, on_wheel_deg, setting.reference),
        expected_side=_side_at(setting.wheel, on_wheel_deg),
        camshaft=line.camshaft,
        cylinder=line.cylinder,
        valve=line.valve,
        flank="top",
    )


@lru_cache(maxsize=1024)
def _curve_question(at: LineAt, flank: Flank, setting: _Setting) -> LiftQuestion:
    line, begins = at.line, _which(at, setting.several)
    moving = "rising" if flank == "opening" else "falling"
    on_wheel_deg = (line.event_deg(flank) + line.top_deg) / 2 + at.on_deg  # half way up, as good as any
    return LiftQuestion(
        key=f"lift:{line.camshaft}:{line.valve}:{line.lift_mm:g}:curve:{flank}",
        title=f"{setting.lobe} curve, {flank}",
        ask=f"{begins[0]} is {begins[1]} at another lift, {flank}?",
        hint=f"Dial and wheel side by side, {LEAST_POINTS} over both flanks at least: whether the lobe is that of its profile.",
        status="optional",
        group=at.shaft.name if setting.several else "",
        wheel_detail=f"dial on cylinder {line.cylinder} {line.valve}, {moving}",
        field=LengthField(name="lift", label="Dial, lift"),
        expected_deg=wrap_deg(on_wheel_deg, CYCLE_DEG),
        expected_words="",
        expected_side=_side_at(setting.wheel, on_wheel_deg),
        camshaft=line.camshaft,
        cylinder=line.cylinder,
        valve=line.valve,
        flank=flank,
        again=True,
    )

"""The run of work of a degreed engine: its steps, and in each the questions a builder answers one after another."""

__all__ = ["METHOD_NAMES", "run_of_work"]

from gurvo_core.angles import wrap_deg
from gurvo_core.engine import CardLine
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing import Side, TdcEstimate, in_words, wheel_figure
from gurvo_core.timing.events import OVERLAP_TDC_DEG
from gurvo_core.timing.tdc import TdcMethod, top_half_width_deg
from gurvo_core.timing.tdc_fit import LEAST_READINGS
from gurvo_core.work.situation import Situation
from gurvo_core.work.state import CamFigures, Field, Option, Question, Status, Step, ValveFigures
from gurvo_core.work.tdc_work import half_pair, stop_pairs

METHOD_NAMES: dict[TdcMethod, str] = {
    "positive_stop": "positive stop",
    "equal_drop": "equal drops",
    "fit": "fit over many readings",
    "top": "at the top",
}
RUNNING_WAY = "Turn the running way only, {turn:running}. Went past it? Back up a quarter turn and come again."


def run_of_work(now: Situation, estimate: TdcEstimate | None, adopted: bool, cams: list[CamFigures]) -> list[Step]:
    """Return the steps with their questions and how far each has come.

    Parameters
    ----------
    now : Situation
        What stands.
    estimate : TdcEstimate or None
        True TDC as far as known.
    adopted : bool
        Whether it has been taken over.
    cams : list of CamFigures
        The camshafts' figures.

    Returns
    -------
    steps : list of Step
        One is ``now``, those before it ``done``; after the last one all are ``done``.

    Source
    ------
    Practice, order of the job.

    Example
    -------
    >>> [step.status for step in run_of_work(gather(quern_4(), []), None, False, [])]
    ['now', 'open', 'open', 'open']
    """
    degree = _degree_questions(now, cams)
    asked = [q for q in degree if q.kind == "lift_reading" and q.status != "optional"]
    taken = sum(q.status == "done" for q in asked)
    steps = [
        Step(key="wheel", title="Set up the wheel", status="open", questions=[_setup_question(now)]),
        Step(key="tdc", title="Find true TDC", status="open", questions=_tdc_questions(now, estimate, adopted), note=_tdc_note(estimate)),
        Step(key="degree", title="Degree the cam", status="open", questions=degree, note=f"{taken} / {len(asked)}" if taken else ""),
        Step(key="record", title="Sign the record", status="open", questions=[_sign_question(now)]),
    ]
    for step in steps:
        open_questions = [question for question in step.questions if question.status == "open"]
        step.status = "now" if open_questions else "done"
        if open_questions:
            break
    return steps


def _beside_tdc(now: Situation, place: str) -> Side | None:
    """The side a reading before or after TDC is on, on a folded wheel."""
    return _expected_side(now, -45.0 if place == "before" else 45.0)


def _expected_side(now: Situation, crank_deg: float) -> Side | None:
    return wheel_figure(crank_deg, now.wheel)[1] if now.wheel else None


def _status(done: bool) -> Status:
    return "done" if done else "open"


def _tdc_note(estimate: TdcEstimate | None) -> str:
    return f"±{estimate.expanded_deg:.1f}°" if estimate else ""


def _setup_question(now: Situation) -> Question:
    return Question(
        key="setup",
        kind="setup",
        title="Wheel and dial",
        ask="How is your wheel numbered, and which way does it run?",
        hint="Bolt the wheel to the crank, set its zero roughly to TDC, fix the pointer. Plugs out, stand locked.",
        status=_status(now.setup is not None),
    )


def _sign_question(now: Situation) -> Question:
    return Question(
        key="sign_off",
        kind="sign_off",
        title="Lead signs",
        ask="Is this engine's timing as it should be?",
        hint="The lead signs. After that the ledger takes no more readings.",
        status=_status(now.signed is not None),
    )


def _tdc_questions(now: Situation, estimate: TdcEstimate | None, adopted: bool) -> list[Question]:
    dwell_deg = top_half_width_deg(slider_of(now.document), now.dial_step_mm)
    details: dict[TdcMethod, str] = {
        "positive_stop": "a stop in the plug hole, met from both ways",
        "equal_drop": "a dial on the piston, the same drop either side",
        "fit": f"a dial on the piston, {LEAST_READINGS} or more readings; finds a misread one",
        "top": f"where the dial stands highest; no better than ±{dwell_deg:.1f}°",
    }
    questions = [
        Question(
            key="tdc:method",
            kind="method",
            title="Method",
            ask="How will you find true TDC?",
            hint=f"Cylinder {now.document.reference_cylinder}. The piston dwells at the top: a stop or equal drops look where it moves.",
            status=_status(now.method_chosen or bool(now.tdc_readings)),
            options=[Option(value=method, label=METHOD_NAMES[method].capitalize(), detail=text) for method, text in details.items()],
        )
    ]
    questions += _tdc_readings(now, estimate)
    shown = f"{estimate.zero_deg:+.2f}° (U = {estimate.expanded_deg:.2f}°)" if estimate else "not known yet"
    questions.append(
        Question(
            key="tdc:zero",
            kind="wheel_zero",
            title="Wheel zero",
            ask=f"Take over true TDC: the wheel is out by {shown}?" if estimate else "True TDC is not known yet",
            hint="Leave wheel and pointer where they are: the error is taken off every reading from now on.",
            status=_status(adopted),
            zero_deg=estimate.zero_deg if estimate else None,
            method=now.method,
        )
    )
    if now.stop_in:
        questions.append(
            Question(
                key="tdc:stop_out",
                kind="stop_out",
                title="Stop out",
                ask="Take the piston stop out. Is it out?",
                hint="Turning on with the stop in bends it or cracks the piston.",
                status="open",
            )
        )
    return questions


def _tdc_readings(now: Situation, estimate: TdcEstimate | None) -> list[Question]:
    if now.method in ("positive_stop", "equal_drop"):
        return _pair_questions(now)
    count = sum(1 for _, body in now.tdc_readings if body.method == now.method)
    if now.method == "top":
        question = Question(
            key="tdc:top",
            kind="tdc_reading",
            title="Dial highest",
            ask="Where does the dial stand highest?",
            hint=RUNNING_WAY,
            status=_status(estimate is not None),
            wheel_detail="where the dial stops rising",
        )
    else:
        question = Question(
            key="tdc:point",
            kind="tdc_reading",
            title=f"Readings · {count}",
            ask=f"Reading {count + 1}: dial and wheel, anywhere near TDC?",
            hint=f"Both sides of TDC, {LEAST_READINGS} at least; 20° to 60° away says most. " + RUNNING_WAY,
            status=_status(estimate is not None),
            wheel_detail="at that drop",
            field=Field(name="drop", label="Dial, drop from the top"),
        )
    return [question.model_copy(update={"method": now.method, "wheel_label": "Wheel reads"})]


def _pair_questions(now: Situation) -> list[Question]:
    stop = now.method == "positive_stop"
    waiting = half_pair(now)
    have = len(stop_pairs(now)) > 0
    before_ask, after_ask = "Where is the piston down by the drop, coming up?", "Where is it down by the same drop, going down?"
    before_hint = RUNNING_WAY
    after_hint = "On over the top, the running way, until the dial shows the same drop again."
    if stop:
        before_ask, after_ask = "Turn forward: where does the piston meet the stop?", "Turn back: where does it meet the stop?"
        before_hint = "Gently, {turn:running}, by hand, until the piston touches. It must be a touch, not a push."
        after_hint = "Round the other way, {turn:against}, until the piston touches the stop again."
    questions = []
    for place, ask, hint in (("before", before_ask, before_hint), ("after", after_ask, after_hint)):
        done = (have and waiting is None) or (waiting is not None and waiting.place == place)
        title = {"before": "Before TDC", "after": "After TDC"}[place]
        questions.append(
            Question(
                key=f"tdc:{place}",
                kind="tdc_reading",
                title=title,
                ask=ask,
                hint=hint,
                status=_status(done),
                wheel_label="Wheel reads",
                wheel_detail=("met turning forward" if place == "before" else "met turning back") if stop else "at that drop",
                field=None if stop else Field(name="drop", label="Dial, drop from the top"),
                expected_side=_beside_tdc(now, place),
                method=now.method,
                place="before" if place == "before" else "after",
            )
        )
    return questions


def _degree_questions(now: Situation, cams: list[CamFigures]) -> list[Question]:
    questions = []
    for cam in cams:
        lines = [line for line in now.document.cam_card if line.camshaft == cam.camshaft]
        questions += [_event_question(now, cam, line, flank) for line in lines for flank in ("opening", "closing")]
        questions += [_top_question(now, cam, line) for line in lines]
        questions.append(
            Question(
                key=f"cam:{cam.camshaft}",
                kind="cam",
                title="Decide" if len(cams) == 1 else f"Decide, {cam.name}",
                ask=f"The cam is {cam.advance_words}. What will you do?" if cam.verdict else "What will you do about the cam?",
                hint="Have the valve-to-piston clearance checked before turning a cam that was moved. The maker's figures come first.",
                status=_status(bool(cam.decided)),
                camshaft=cam.camshaft,
            )
        )
    return questions


def _lobe_name(now: Situation, cam: CamFigures, line: CardLine) -> str:
    """Which valve a question is about, as short as the engine allows: several cams may each have an intake side."""
    alike = [other for other in now.document.cam_card if other.valve == line.valve]
    return line.valve.capitalize() if len(alike) == 1 else cam.name


def _figures_of(now: Situation, cam: CamFigures, line: CardLine) -> ValveFigures:
    """The figures that were worked out for a line of the card."""
    cylinder = now.document.card_cylinder(line)
    return next(v for v in cam.valves if (v.valve, v.lift_mm, v.cylinder) == (line.valve, line.lift_mm, cylinder))


def _on_the_wheel(now: Situation, cylinder: int, wheel_deg: float) -> str:
    """Where the wheel should stand; it counts from the reference cylinder, so say so when the valve is another's."""
    reference = now.document.reference_cylinder
    return in_words(wheel_deg) + (f" of cylinder {reference}" if cylinder != reference else "")


def _event_question(now: Situation, cam: CamFigures, line: CardLine, flank: str) -> Question:
    figures = _figures_of(now, cam, line)
    event = figures.opening if flank == "opening" else figures.closing
    cylinder = figures.cylinder
    moving = "rising" if flank == "opening" else "falling"
    return Question(
        key=f"lift:{cam.camshaft}:{line.valve}:{line.lift_mm:g}:{flank}",
        kind="lift_reading",
        title=f"{_lobe_name(now, cam, line)}, {flank} side",
        ask=f"Where does the {line.valve} valve pass {{mm:{line.lift_mm:g}}}, {flank}?",
        hint=RUNNING_WAY,
        status=_status(event.readings > 0),
        wheel_label="Wheel reads",
        wheel_detail=f"dial on cylinder {cylinder} {line.valve}, {moving} through {{mm:{line.lift_mm:g}}}",
        field=Field(name="lift", label="Checking lift", asked_mm=line.lift_mm),
        expected_deg=event.card_wheel_deg,
        expected_words=_on_the_wheel(now, cylinder, event.card_wheel_deg),
        expected_side=_expected_side(now, event.card_wheel_deg),
        camshaft=cam.camshaft,
        cylinder=cylinder,
        valve=line.valve,
        flank="opening" if flank == "opening" else "closing",
    )


def _top_question(now: Situation, cam: CamFigures, line: CardLine) -> Question:
    figures = _figures_of(now, cam, line)
    cylinder = figures.cylinder
    nose_deg = OVERLAP_TDC_DEG + figures.card_top_centreline_deg * (1 if line.valve == "intake" else -1)
    on_deg = now.document.from_reference_deg(cylinder)
    return Question(
        key=f"lift:{cam.camshaft}:{line.valve}:{line.lift_mm:g}:top",
        kind="lift_reading",
        title=f"{_lobe_name(now, cam, line)}, full lift",
        ask=f"Where does the {line.valve} valve stand at full lift?",
        hint="A cross-check by maximum lift; the nose is flat, so it says less than the middle of equal lifts.",
        status="optional",
        wheel_label="Wheel reads",
        wheel_detail=f"dial on cylinder {cylinder} {line.valve}, at its highest",
        expected_deg=wrap_deg(nose_deg + on_deg, CYCLE_DEG),
        expected_words=_on_the_wheel(now, cylinder, nose_deg + on_deg),
        expected_side=_expected_side(now, nose_deg + on_deg),
        camshaft=cam.camshaft,
        cylinder=cylinder,
        valve=line.valve,
        flank="top",
    )

"""The whole run of work in the order of the trade: every thing taken off again, every joint come back to, every tensioner proven.

Each step waits for the one before it, unless a rule of the trade says what else it waits for. Ids follow from what a step is for, so that
what was changed by hand finds its place again when parts are added.
"""

__all__ = ["run_of"]

from typing import Any

from gurvo_core.writer.answers import Answers
from gurvo_core.writer.compose.bolts import BY_OIL, BY_SCREW, JointPlace, begins_bare, joints_in
from gurvo_core.writer.compose.drive import is_tensioned, tensioner_of
from gurvo_core.writer.compose.engine import known_by, position_of
from gurvo_core.writer.compose.parts import CRANK_HOLDER, HOLDER, LockSaid, kit_of, lash_of, locks_of
from gurvo_core.writer.shape import DriveShape, Shape

Step = dict[str, Any]
BEFORE_LAID = ("key", "dowel", "taper", "phaser")  # a wheel that stands on its shaft in one way is tight before anything is laid on it


class _Run:
    """Stages of steps as they are put down."""

    def __init__(self) -> None:
        self.stages: list[Step] = []
        self.last = ""

    def stage(self, ident: str, title: str) -> None:
        """Begin the next stage; one that stays empty is left out."""
        self.stages.append({"id": ident, "title": title, "steps": []})

    def step(self, ident: str, does: str, says: str, *needs: Step, why: str = "", free: bool = False, **more: Any) -> None:
        """Put down a step that waits for the one before it, or is free to be done at any time, and for what a rule says."""
        own = [*([] if free or not self.last else [{"done": self.last}]), *needs]
        found: Step = {"id": ident, "does": does, "says": says, **more}
        if why:
            found["why"] = why
        if own:
            found["needs"] = own
        self.stages[-1]["steps"].append(found)
        if not free:
            self.last = ident


def run_of(answers: Answers, shape: Shape, marks: list[Step]) -> list[Step]:
    """The run of work of an engine, from receiving its parts to its first start."""
    run = _Run()
    _receive(run, answers, shape, marks)
    in_block = shape.cams_at == "block"
    if begins_bare(answers):
        _bottom_end(run, answers, shape)
    run.stage("ready", "Ready to turn")
    run.step("plugs-out", "plugs_out", "Plugs out, stand locked")
    run.step(
        "park",
        "park",
        "Crank to its timing position",
        position=position_of(answers),
        way="running",
        why="Before any cam is in: nothing can touch yet.",
    )
    if in_block:
        run.stage("cams", "Camshaft")
        run.step("cam-in", "fit", "Camshaft in, followers first where they go in from below")
    else:
        _heads(run, answers, shape)
        _cams_above(run, answers, shape)
    _drive(run, answers, shape)
    _turn(run, answers, shape)
    if "degreed" in known_by(answers) and shape.is_valve_by_valve:
        _degree(run)
    if in_block:
        _heads(run, answers, shape)
        _rockers(run, answers, shape)
    if any(one["set_by"] != "hydraulic" for one in lash_of(answers)):
        run.stage("lash", "Valve clearances")
        # valve by valve where they are known; else as one thing to do
        does = "lash" if shape.is_valve_by_valve else "do"
        run.step("lash", does, "Valve clearances", why="Every cam stands right by now; what is set before is set for nothing.")
    _close(run, answers, shape)
    _hand_over(run)
    return [stage for stage in run.stages if stage["steps"]]


def _receive(run: _Run, answers: Answers, shape: Shape, marks: list[Step]) -> None:
    run.stage("came-in", "As it came in")
    looks = [{"id": mark["id"], "asks": mark["name"], "mark": mark["id"]} for mark in marks if mark.get("decides")][:20]
    drips = {"id": "drips", "asks": "Where it drips, what the customer says"}
    run.step(
        "as-found", "as_found", "Look before anything comes off", looks=[*looks, drips], free=True, why="Only now can be seen how it ran."
    )
    kit = kit_of(answers, shape)
    new = [part["id"] for part in kit if not part.get("returns")]
    back = [part["id"] for part in kit if part.get("returns")]
    run.stage("receive", "Receive and lay out")
    run.step("new-parts", "ready", "New parts for this one", parts=new, free=True)
    if back:
        run.step("old-parts", "ready", "What goes back, by its place", parts=back, free=True)


def _bottom_end(run: _Run, answers: Answers, shape: Shape) -> None:
    run.stage("bottom-end", "Crank and pistons")
    mains, rods = (next(iter(joints_in(answers, shape, group)), None) for group in ("mains", "rods"))
    says = "Crank in, case halves together" if shape.layout == "flat" else "Crank in, caps by their numbers, arrows as they were"
    _fit_and_tighten(run, mains, "in-crank", says, cautions=["A crank is heavy: two pairs of hands, or the hoist."])
    run.step("turns-free", "inspect", "Crank turns by hand, end float felt", why="What binds now binds for good once the pistons are in.")
    _fit_and_tighten(
        run, rods, "in-pistons", "Pistons in, arrows to the front, rod caps by their numbers", why="A cap on another rod is no round bore."
    )


def _heads(run: _Run, answers: Answers, shape: Shape) -> None:
    run.stage("heads", "Heads" if len(shape.banks) > 1 else "Head")
    for bank in shape.banks:
        place = next((one for one in joints_in(answers, shape, "head") if one.of == bank.id), None)
        name = "Head" if len(shape.banks) == 1 else f"{bank.name} head"
        on = f"on-head-{bank.id}"
        caution = ["A head is heavy: two pairs of hands, or the hoist."]
        _fit_and_tighten(run, place, on, f"{name} on, gasket looked at twice, bolts finger tight", parts=["head-gasket"], cautions=caution)


def _fit_and_tighten(run: _Run, place: JointPlace | None, ident: str, says: str, **more: Any) -> None:
    """On, and at once tight; where it has no joint, only on."""
    joint: Step = {"joint": place.id} if place else {}
    run.step(ident, "fit", says, **joint, **more)
    if place:
        run.step(f"tight-{place.id}", "tighten", place.name, joint=place.id)


def _cams_above(run: _Run, answers: Answers, shape: Shape) -> None:
    run.stage("cams", "Camshafts")
    for bank in shape.banks:
        place = next((one for one in joints_in(answers, shape, "caps") if one.of == bank.id), None)
        cams = [cam.name.lower() for cam in shape.cams if cam.bank in (None, bank.id)]
        _fit_and_tighten(run, place, f"in-cams-{bank.id}", f"{' and '.join(cams).capitalize()} in, marks where the book wants them")


def _wheel_bolts(run: _Run, answers: Answers, shape: Shape, before: bool) -> None:
    """The bolts of those cam wheels that are tight before anything is laid, or of the others after."""
    places = joints_in(answers, shape, "wheel")
    for place in places:
        if _is_before(answers, shape, place) != before:
            continue
        at: Step = {"place": dict(shape.timed)[place.of]} if len(places) > 1 else {}
        name = dict(shape.timed)[place.of].lower()
        why = "Never against what locks it for timing: that would bend, or the cam creeps."
        run.step(f"hold-{place.of}", "put_on", f"Holder on the {name}", thing=HOLDER, why=why, **at)
        run.step(f"tight-{place.id}", "tighten", place.name, {"held": place.of}, joint=place.id)
        run.step(f"let-go-{place.of}", "take_off", f"Holder off the {name}", {"tight": {"joint": place.id, "stage": 1}}, thing=HOLDER, **at)


def _is_before(answers: Answers, shape: Shape, place: JointPlace) -> bool:
    wheel = shape.wheel_of(place.of)
    fixed = answers.get(f"fixed.{wheel.id}") if wheel else None
    return fixed is None or fixed.text is None or fixed.text in BEFORE_LAID


def _drive(run: _Run, answers: Answers, shape: Shape) -> None:
    if not any(drive.wheels for drive in shape.drives):
        return
    run.stage("wheels", "Cam wheels")
    for place in joints_in(answers, shape, "wheel"):
        is_before = _is_before(answers, shape, place)
        run.step(
            f"on-{place.of}",
            "fit",
            f"{place.name.removesuffix(' bolt')} on, bolt {'in' if is_before else 'in by hand: it must still turn'}",
            joint=place.id,
        )
    _wheel_bolts(run, answers, shape, before=True)
    position, locks = position_of(answers), locks_of(answers, shape)
    run.stage("locks", "Locks")
    for lock in locks:
        run.step(
            f"in-{lock.id}",
            "put_on",
            f"{lock.name} in",
            {"parked": position},
            thing=lock.id,
            why=f"Holds {_shafts(shape, lock)} where it is timed.",
        )
    for drive in shape.drives:
        if drive.wheels:
            _lay(run, answers, shape, drive)
    run.stage("wheel-bolts", "Cam wheel bolts")
    _wheel_bolts(run, answers, shape, before=False)
    run.stage("locks-out", "Locks out")
    for lock in locks:
        run.step(f"out-{lock.id}", "take_off", f"{lock.name} out", thing=lock.id, why="Before anything is turned.")


def _shafts(shape: Shape, lock: LockSaid) -> str:
    names = dict(shape.timed)
    return " and ".join(names[shaft].lower() for shaft in lock.holds)


def _lay(run: _Run, answers: Answers, shape: Shape, drive: DriveShape) -> None:
    run.stage(f"drive-{drive.id}", drive.name)
    sort, name = tensioner_of(answers, drive), drive.name
    has = is_tensioned(answers, drive)
    bolt = next((place for place in joints_in(answers, shape, "tension") if place.of == drive.id), None)
    if has:
        bolt_in: Step = {"joint": bolt.id} if bolt else {}
        run.step(
            f"in-tensioner-{drive.id}", "tension", f"Tensioner of the {name.lower()} in, not yet let go", loop=drive.id, how_far="fitted"
        )
        if bolt_in:
            run.step(f"bolt-tensioner-{drive.id}", "fit", "Tensioner bolt in, loose", **bolt_in)
    parts: Step = {"parts": [f"new-{drive.id}"]} if drive.kind != "gears" else {}
    laid = "Gears in, marks met" if drive.kind == "gears" else f"{name} on, its tight side taut"
    why = (
        ""
        if drive.kind == "gears"
        else "All slack to the tensioner's side; what is slack on the tight side is taken up later, and the cam falls behind."
    )
    run.step(f"on-{drive.id}", "lay", laid, {"parked": position_of(answers)}, loop=drive.id, why=why, **parts)
    if has and sort != BY_OIL:
        run.step(
            f"arm-{drive.id}",
            "tension",
            "Let the tensioner go" if sort not in BY_SCREW else "Tensioner set",
            loop=drive.id,
            how_far="armed",
        )
    if bolt:
        run.step(f"tight-{bolt.id}", "tighten", bolt.name, joint=bolt.id)


def _turn(run: _Run, answers: Answers, shape: Shape) -> None:
    if not any(drive.wheels for drive in shape.drives):
        return
    run.stage("turn", "Turn over and prove")
    why = "By hand, before anything covers it: what does not meet now, meets a piston later."
    run.step("turn-over", "turn_over", "Two turns by hand", position=position_of(answers), stops=[{"turns": 2}], way="running", why=why)
    for drive in shape.drives:
        sort = tensioner_of(answers, drive)
        if drive.wheels and sort != BY_OIL and is_tensioned(answers, drive):
            run.step(
                f"prove-{drive.id}",
                "tension",
                f"Is the tensioner of the {drive.name.lower()} where it belongs?",
                loop=drive.id,
                how_far="proven",
            )
    run.step("seen", "do", "Drive looked at by the lead", hold_point=True, why="What is covered now is not seen again.")


def _degree(run: _Run) -> None:
    run.stage("degree", "Degree the cams")
    run.step("wheel", "set_up_wheel", "Set up the wheel")
    run.step("tdc", "find_tdc", "Find true TDC")
    run.step("degree", "degree", "Degree the cams")


def _rockers(run: _Run, answers: Answers, shape: Shape) -> None:
    run.stage("rockers", "Pushrods and rockers")
    for bank in shape.banks:
        place = next((one for one in joints_in(answers, shape, "rockers") if one.of == bank.id), None)
        side = "" if len(shape.banks) == 1 else f", {bank.name.lower()}"
        _fit_and_tighten(run, place, f"on-rockers-{bank.id}", f"Pushrods and rockers on{side}")


def _close(run: _Run, answers: Answers, shape: Shape) -> None:
    run.stage("close", "Close up")
    front = next(iter(joints_in(answers, shape, "front")), None)
    _fit_and_tighten(run, front, "on-front", "Front cover on", covers=True)
    for place in joints_in(answers, shape, "damper"):
        run.step("hold-crank", "put_on", "Crank held", thing=CRANK_HOLDER)
        run.step("on-damper", "fit", "Crank pulley on, bolt in", joint=place.id)
        run.step(f"tight-{place.id}", "tighten", place.name, {"held": "crank"}, joint=place.id)
        run.step("let-go-crank", "take_off", "Crank holder off", thing=CRANK_HOLDER)
    for place in joints_in(answers, shape, "valve"):
        _fit_and_tighten(run, place, "on-valve-cover", "Valve cover on", covers=True)


def _hand_over(run: _Run) -> None:
    run.stage("hand-over", "Hand over")
    run.step("oil", "do", "Oil and coolant in, fuel shut")
    run.step("prime", "prime", "Crank, plugs out, until pressure shows", seconds=20)
    run.step("plugs-in", "plugs_in", "Plugs in")
    caution = ["Fuel and hot parts: the maker's sheet and local rules."]
    run.step("start", "first_start", "First start: idle, listen, look underneath", cautions=caution)

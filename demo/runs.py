"""Engines that are built by their whole run of work, each left at a place that tells something."""

from collections.abc import Callable
from datetime import timedelta
from typing import TYPE_CHECKING, Any

from demo import photos
from demo.player import answer
from gurvo_core.walk import next_question

if TYPE_CHECKING:
    from django.contrib.auth.models import User

    from demo.scenario import Bench


def play(bench: "Bench", lead: "User", *, until: str = "", finds: dict[str, str] | None = None) -> Any:
    """Answer everything that is asked until a question comes up; return what the bench shows then. Some of what no book says is found."""
    builder, found = bench.by, finds or {}
    while True:
        state = bench.state()
        question = next_question(state)
        if question is None or question.key == until:
            return state
        body = answer(state, question, _document(bench))
        if body["kind"] == "not_known" and body["pointer"] in found:
            body = {"kind": "found", "pointer": body["pointer"], "value": found[body["pointer"]], "how": question.hows[0]}
        bench.by = lead if body["kind"] in ("hold_point", "sign_off") else builder
        bench.clock += timedelta(minutes=_taken(bench, question))
        _enter(bench, body)
        bench.by = builder


def _taken(bench: "Bench", question: Any) -> float:
    """How long a step takes here: near what the book says, and never twice the same."""
    odd = sum(map(ord, f"{bench.engine.serial} {question.key}")) % 7
    if getattr(question, "does", "") == "seal":  # a bead waits for nobody
        return 5.0 + odd / 3
    return (getattr(question, "minutes", None) or 0.0) * (0.85 + odd / 12)


def _enter(bench: "Bench", body: dict[str, Any]) -> None:
    """Make an entry; where a sealant has still to cure, come back when it has."""
    from gurvo_core.errors import EntryRefused

    try:
        bench.enter(**body)
    except EntryRefused as refused:
        if "cures" not in str(refused):
            raise
        bench.clock += timedelta(hours=3)
        bench.enter(**body)


def load(bench: "Callable[..., Bench]", lead: "User") -> None:
    """Put them on their stands."""

    def begun(serial: str, purpose: str, stand: int, days: int, family: str) -> "Bench":
        return bench(serial, purpose, stand, days, timedelta(hours=-40), family=family)

    tie = begun("F4-0045", "railcar generator", 10, 5, "tarn-f4")
    play(tie, lead, until="turn-twice")
    tie.enter(kind="thing", thing="tie", on=True, note="belt slips on the left cam")

    plate = begun("T4-0201", "vineyard tractor", 11, 2, "teasel-4")
    play(plate, lead, until="plate-out")

    hold = begun("S4-0012", "hill railcar", 12, 3, "sorrel-f4")
    play(hold, lead, until="belts-signed:hold")

    stop = begun("W1-0009", "orchard sprayer", 13, 1, "wick-1")
    play(stop, lead, until="turn")
    stop.enter(kind="turn_seen", step="turn", stop=1, saw="hard_stop", note="a quarter turn before the rotor line")

    replaced = begun("C6-0032", "village fire pump", 14, 8, "corrie-v6")
    play(replaced, lead, until="drive-signed")
    replaced.enter(kind="step_opened", step="pri-fit-a", reason="primary tensioner A replaced: it leaked down overnight")

    waiting = begun("D6-0013", "railcar", 15, 20, "garth-d6")
    kit = {"head-bolts": "new", "front-cover-gasket": "missing", "rod-bolts": "new", "damper-bolts": "new"}
    waiting.enter(kind="variant", group="use", option="railcar")
    waiting.enter(kind="step_done", step="new", answers=kit, note="gasket ordered, Thursday")
    play(waiting, lead, until="pistons")

    whole = begun("Q4-0168", "irrigation pump", 16, 0, "quern-4")
    play(whole, lead)

    dummy = begun("B8-0002", "water works generator", 18, 16, "brae-v8")
    play(dummy, lead, until="wrench-b")

    as_found = begun("M2-0001", "cellar press", 19, 10, "mallow-2")
    play(as_found, lead, until="cam:cam")

    _head(begun("Q4-0175", "vineyard tractor", 20, 6, "quern-4"), lead)

    _bottom_end(begun("Q4-0176", "irrigation pump", 21, 12, "quern-4"), lead)
    _buckets(begun("T4-0202", "vineyard tractor", 22, 4, "teasel-4"), lead)

    shells = begun("C6-0033", "works generator", 23, 15, "corrie-v6")
    _housings(shells, lead)

    valves = begun("F4-0046", "hill railcar", 24, 3, "tarn-f4")
    play(valves, lead, until="lash:stop:1")

    belt = begun("F4-0047", "village fire pump", 25, 7, "tarn-f4")
    play(belt, lead, until="belt-on")

    locked = begun("T4-0203", "vineyard tractor", 26, 8, "teasel-4")
    play(locked, lead, until="belt-on")

    _little_known(begun, lead)
    _clearway(begun, lead)
    _sealing(bench, lead)


def _sealing(bench: "Callable[..., Bench]", lead: "User") -> None:
    """A bead that was opened three minutes ago."""
    sealing = bench("Q4-0174", "vineyard tractor", 17, 4, timedelta(hours=-40))
    play(sealing, lead, until="cover-bead")
    sealing.clock = sealing.now() - timedelta(minutes=3)
    sealing.enter(kind="step_done", step="cover-bead", answers={}, note="")


HEATH = {
    "/running_direction": "clockwise",
    "/drive/wheels/crank-wheel/teeth": "22",
    "/drive/wheels/cam-wheel/teeth": "44",
    "/joints/head/fasteners": "10",
}


def _little_known(begun: Callable[..., "Bench"], lead: "User") -> None:
    """Engines of which nobody has the book: three handed over, three in the middle of some trouble."""
    pump = begun("H4-0101", "irrigation pump", 27, 1, "heath-4")
    pump.enter(kind="for_whom", customer="the Terrace growers", job="26-114", complaint="no pressure at the upper pipe, smoke")
    play(pump, lead, until="sign_off", finds=HEATH)
    for taken, shows in ((photos.FRONT, "marks, before the cover"), (photos.CAP, "main caps by number"), (photos.BEARING, "old bearing")):
        pump.picture(taken(), shows=shows)
    play(pump, lead, finds=HEATH)
    play(begun("S6-0021", "works generator", 28, 2, "scar-v6"), lead)
    play(begun("D4-0301", "orchard tractor", 29, 4, "holm-d4"), lead, finds={"/timing_positions/tdc/stroke": "firing"})

    creeps = begun("H4-0102", "vineyard sprayer", 30, 6, "heath-4")
    play(creeps, lead, until="turn", finds=HEATH)
    creeps.enter(kind="turn_seen", step="turn", stop=1, saw="meets", looks=[{"of": "crank-notch", "saw": "meets"}])
    looks = [{"of": "crank-notch", "saw": "meets"}, {"of": "cam-dot", "saw": "less", "way": "behind"}]
    creeps.enter(kind="turn_seen", step="turn", stop=2, saw="off", looks=looks, note="the spring had not taken up")

    slack = begun("S6-0022", "works generator", 31, 9, "scar-v6")
    play(slack, lead, until="turn")
    asked = next_question(slack.state()).looks
    tools = [one.of for one in asked if one.kind == "tool" and one.of != "plate-right"]
    looks = [{"of": one.of, "saw": "tool" if one.of == "plate-right" else "meets"} for one in asked]
    note = "slack was left on the tight side"
    slack.enter(kind="turn_seen", step="turn", stop=1, saw="off", looks=looks, went_in=tools, note=note)

    tooth_out = begun("D4-0302", "orchard tractor", 32, 11, "holm-d4")
    seen = {"crank-dot": "meets", "cam-dots": "off", "pump-dots": "meets", "play": "0.18", "smoke": "white smoke, no power"}
    tooth_out.enter(kind="step_done", step="as-found", answers={**seen, "complaint": "pulls badly since the last repair"})
    play(tooth_out, lead, until="gears-on")


def _clearway(begun: Callable[..., "Bench"], lead: "User") -> None:
    """Camshafts that stand where their springs left them: a bank that snapped, a belt that is off again, a dead stop."""
    from work.examples import name_example
    from work.finding import engine_of

    snapped = begun("C6-0034", "works generator", 33, 5, "corrie-v6")
    play(snapped, lead, until="sec-a")
    for cam, clock in (("intake-a", "241°"), ("exhaust-a", "46°"), ("intake-b", "246°"), ("exhaust-b", "46°")):
        snapped.enter(kind="shaft_seen", shaft=cam, at={"of": "nose-0", "clock": clock}, note="")

    off_again = begun("T4-0204", "vineyard tractor", 34, 3, "teasel-4")
    play(off_again, lead, until="pointer-again")
    for cam, text in (("intake", "2.15"), ("exhaust", "2.70")):
        gap = {"camshaft": cam, "cylinder": 1, "valve": cam, "how": "clay", "gap": {"text": text, "unit": "mm"}, "gauge": "M4"}
        off_again.enter(kind="gap_measured", **gap)
    laid = off_again.picture(photos.FRONT(), step="belt-on", shows="belt on, all marks seen")
    name_example(engine_of(off_again.engine.serial), step="belt-on", digest=laid, by=lead)
    off_again.picture(photos.CAP(), place="exhaust cam", shows="cap 2 as it came off")
    off_again.enter(kind="step_opened", step="belt-on", reason="the idler's bearing is rough: belt off, new idler")
    rough = {"is_a": "ring", "x": 0.70, "y": 0.35, "says": "flaked here"}
    off_again.picture(photos.BEARING(), place="idler", shows="bearing of the idler", drawn=[rough])
    off_again.picture(photos.FRONT_OFF(), step="belt-on", shows="the front as it stands now, belt off")
    for cam, clock in (("intake", "11"), ("exhaust", "1")):
        off_again.enter(kind="shaft_seen", shaft=cam, at={"of": f"{cam}-line", "clock": clock}, note="")

    stopped = begun("F4-0048", "railcar generator", 35, 6, "tarn-f4")
    play(stopped, lead, until="belt-on")
    stopped.enter(kind="shaft_turned", shaft="crank", way="running", by_deg=80, then="stands", how_far="a quarter on, to reach the idler")
    for cam, clock in (("cam-right", "325°"), ("cam-left", "165°")):
        line = "right-line" if cam == "cam-right" else "left-line"
        stopped.enter(kind="shaft_seen", shaft=cam, at={"of": line, "clock": clock}, note="")
    back = {"shaft": "cam-right", "way": "back", "by_deg": -40, "then": "dead_stop"}
    stopped.enter(kind="shaft_turned", **back, at={"of": "right-line", "clock": "315°"}, note="by its hexagon, it met something hard")


def _head(bench: "Bench", lead: "User") -> None:
    """A head in the middle of its last stage; the third bolt ended far below the others."""
    play(bench, lead, until="head-angle")
    bench.enter(kind="joint_ready", step="head-angle", threads="oiled", held=True, wrench="E1", angle_by="wrench")
    for bolt, torque in enumerate(("70", "69", "54", "72", "70"), 1):
        pull = {"step": "head-angle", "stage": 3, "fastener": str(bolt), "wrench": "E1"}
        bench.enter(kind="pull", **pull, torque={"text": torque, "unit": "N·m"}, angle="90")


def _bottom_end(bench: "Bench", lead: "User") -> None:
    """Journals read with the coarse micrometer: the third main cannot be told."""
    play(bench, lead, until="main-fit")
    where = {"step": "main-fit", "fit": "main-clearance"}
    ring = {"standard": {"text": "58.000", "unit": "mm"}, "standard_u": {"text": "1", "unit": "µm"}}
    bench.enter(kind="fits_ready", **where, side="outer", gauge="P1", as_asked=True, part_c="21.5", **ring)
    bores = ((58.016, 58.017), (58.015, 58.017), (58.023, 58.025), (58.017, 58.018), (58.016, 58.019))
    for number, sizes in enumerate(bores, 1):
        for plane in ("front", "rear"):
            for axis, size in zip(("up", "across"), sizes, strict=True):
                spot = {"place": f"main {number}", "side": "outer", "plane": plane, "axis": axis}
                bench.enter(kind="fit_reading", **where, **spot, reading={"text": f"{size:.3f}", "unit": "mm"})
    bench.enter(kind="fits_ready", **where, side="inner", gauge="M2", as_asked=True, part_c="21.5")
    for number in (1, 2, 3):
        for plane in ("front", "rear"):
            for axis in ("up", "across"):
                spot = {"place": f"main {number}", "side": "inner", "plane": plane, "axis": axis}
                bench.enter(kind="fit_reading", **where, **spot, reading={"text": "57.97", "unit": "mm"})


def _housings(bench: "Bench", lead: "User") -> None:
    """Four housings and journals that are not alike: no two take the same shells."""
    play(bench, lead, until="main-fit:main-clearance:main 1|outer||up")
    sizes = {"outer": (67.004, 67.009, 67.001, 67.006), "inner": (63.000, 62.996, 63.003, 62.999)}
    while (question := next_question(bench.state())) is not None and question.kind in ("fit_reading", "fits_ready"):
        body = answer(bench.state(), question, _document(bench))
        if question.kind == "fit_reading":
            size = sizes[question.side][int(question.place.removeprefix("main ")) - 1] + (0.002 if question.axis == "across" else 0)
            body |= {"reading": {"text": f"{size:.3f}", "unit": "mm"}}
        bench.enter(**body)


def _buckets(bench: "Bench", lead: "User") -> None:
    """All valves read with the shims that were in; two of them can change places, one needs another."""
    found = iter((("0.20", "2.50"), ("0.25", "2.45"), ("0.31", "2.40"), ("0.24", "2.55"), ("0.10", "2.50"), ("0.26", "2.50")))
    play(bench, lead, until="lash")
    while (question := next_question(bench.state())) is not None and question.kind != "lash_shims":
        body = answer(bench.state(), question, _document(bench))
        if question.kind == "lash_reading":
            goes, shim = next(found, ("0.22", "2.45"))
            body |= {"goes": {"text": goes, "unit": "mm"}, "shim": {"text": shim, "unit": "mm"}}
        bench.enter(**body)


def _document(bench: "Bench") -> Any:
    from work import bridge

    return bridge.ledger_of(bench.engine).folded.document

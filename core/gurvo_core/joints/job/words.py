"""How entries at a joint are said on tape and paper."""

__all__ = ["say_anew", "say_bolt", "say_decided", "say_left", "say_pull", "say_ready"]

from gurvo_core.joints.job.entries import BoltFound, JointAnew, JointLeft, JointReady, OnePull, Pull, PullDecided
from gurvo_core.joints.sequence import ALL
from gurvo_core.ledger import Words

ANGLE_WORDS = {"gauge": "by angle gauge", "wheel": "by degree wheel", "paint": "by paint marks", "eye": "by eye", "wrench": "by the wrench"}
FOUND = {"loose": "found loose", "taken_out": "taken out", "replaced": "replaced"}
DECIDED = {"go_on": "gone on with", "take_out": "taken out", "accepted": "accepted by the lead"}


def _bolt(joint: str | None, step: str, fastener: str) -> str:
    name = joint or step
    return name if fastener == ALL else f"{name} {fastener}"


def say_ready(body: JointReady) -> Words:
    """What was looked at."""
    said = [f"threads {body.threads or 'not looked at'}", *(["held against the wrench"] if body.held else [])]
    said += [f"wrench {body.wrench}"] if body.wrench else ["no wrench with a scale"]
    said += [f"extension {body.extension_mm:g} mm at {body.extension_deg:g}°"] if body.extension_mm else []
    said += [f"angle {ANGLE_WORDS[body.angle_by]}"] if body.angle_by else []
    if not body.pulls:
        return Words(title=f"{body.joint or body.step}, before the first pull", detail=", ".join(said))
    return Words(title=body.joint or body.step, value=" · ".join(map(_pulled, body.pulls)), detail=", ".join(said))


def _pulled(pull: OnePull) -> str:
    shown = [f"{pull.torque.text} {pull.torque.unit}"] if pull.torque else []
    shown += [f"{pull.angle}°"] if pull.angle and f"{pull.angle}°" not in (pull.asked or "") else []
    return f"{pull.asked or 'done'} ({', '.join(shown)})" if shown else pull.asked or "done"


def say_pull(body: Pull) -> Words:
    """One pull: what was asked, what was shown."""
    shown = [f"{body.torque.text} {body.torque.unit}"] if body.torque else []
    shown += [f"turned {body.angle}°"] if body.angle and f"{body.angle}°" not in (body.asked or "") else []
    again = f", round {body.turn}" if body.turn > 1 else ""
    by = [ANGLE_WORDS[body.angle_by]] if body.angle_by == "eye" else []
    before = [f"{body.before}° before it"] if body.before else []
    wrench = [f"wrench {body.wrench}"] if body.wrench else []
    trace = ["with its trace"] if body.trace else []
    return Words(
        title=f"{_bolt(body.joint, body.step, body.fastener)}, stage {body.stage}{again}",
        value=" · ".join([body.asked or "done", *shown]),
        detail=", ".join([*before, *by, *wrench, *trace, *filter(None, [body.note])]),
    )


def say_bolt(body: BoltFound) -> Words:
    """A fastener that is open again."""
    return Words(title=_bolt(body.joint, body.step, body.fastener), value=FOUND[body.found], detail=body.note, look_again=True)


def say_decided(body: PullDecided) -> Words:
    """What is done about a pull that stands apart."""
    title = f"{_bolt(body.joint, body.step, body.fastener)}, stage {body.stage}"
    return Words(title=title, value=DECIDED[body.decision], detail=body.reason, look_again=body.decision != "accepted")


def say_anew(body: JointAnew) -> Words:
    """Begun anew."""
    return Words(title=body.joint or body.step, value="begun anew", detail=body.reason, look_again=True)


def say_left(body: JointLeft) -> Words:
    """Left on purpose."""
    return Words(title=body.joint or body.step, value="left as it is", detail=f"until {body.until}")

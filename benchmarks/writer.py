"""A V8 of sixty steps being described: an edit of it, and where it stands beside it; once more in a draft of five thousand edits."""

import itertools

from django.contrib.auth.models import User

from benchmarks.timing import p50_p95, turn_about_ms
from tools.real_server import Person
from writer.services import begin

AIM_RATIO, AIM_MS, LONG = 3.0, 300, 1000
V_EIGHT = {
    "name": "Larch V8",
    "fuel": "gas",
    "layout": "v",
    "cylinders": "8",
    "rows": "1-3-5-7 / 2-4-6-8",
    "cams": "two",
    "drives": "chain, left chain, right chain",
    "passes.chain": "crank, jackshaft",
    "passes.left-chain": "jackshaft, left exhaust, left intake",
    "passes.right-chain": "jackshaft, right exhaust, right intake",
    "tensioner.chain": "none",
    "tensioner.left-chain": "hydraulic",
    "tensioner.right-chain": "hydraulic",
    **{f"fixed.{side}-{valve}-wheel": "clamped" for side in ("left", "right") for valve in ("intake", "exhaust")},
    "known_by": "locks",
    "position": "pin",
    "lock.crank": "pin in the flywheel",
    "lock.left-intake": "plate across both left cams",
    "lock.left-exhaust": "same",
    "lock.right-intake": "plate across both right cams",
    "lock.right-exhaust": "same",
}


def measure(port: int, count: int) -> None:
    """Print what an edit takes against a bare signed-in view, and the checked document beside it."""
    lead = Person(port, "oren", "hillside-lead")
    draft = _described(lead)
    words = itertools.cycle(("with the deep sump", "with the flat sump"))
    calls = {
        "bare": lambda: lead.call("GET", "/api/session/people"),
        "edit": lambda: _answer(lead, draft, "variant", next(words)),
        "standing": lambda: lead.call("GET", f"/api/drafts/{draft}/standing"),
    }
    taken = turn_about_ms(calls, count)
    bare, edit, standing = (p50_p95(taken[name]) for name in ("bare", "edit", "standing"))
    ratio = edit[0] / bare[0]
    print(f"an edit of a V8 of 57 steps described      {edit[0]:8.2f}   p95 {edit[1]:.2f}, {ratio:.2f} bare views, aim: {AIM_RATIO:g}")
    print(f"where it stands, checked beside            {standing[0]:8.2f}   p95 {standing[1]:.2f}, aim: {AIM_MS} ms")
    for n in range(LONG):
        _answer(lead, draft, "code", f"larch-{n % 7}")
    long = p50_p95(turn_about_ms({"edit": calls["edit"]}, count)["edit"])
    print(f"the same in a draft of {LONG} edits         {long[0]:8.2f}   p95 {long[1]:.2f}, {long[0] / edit[0]:.2f} times the short one's")


def _described(lead: Person) -> str:
    draft = str(begin(User.objects.get(username="oren"), name="Larch V8", base=None, begun_from="nothing").pk)
    for question, text in V_EIGHT.items():
        _answer(lead, draft, question, text)
    return draft


def _answer(lead: Person, draft: str, question: str, text: str) -> object:
    body = {"edit": {"does": "answer", "question": question, "text": text}, "made_on": 1_000_000}
    return lead.call("POST", f"/api/drafts/{draft}/edits", body)

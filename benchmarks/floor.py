"""A whole shop: the Floor with 5,000 engines of 60 entries, and 32 benches that only look while one builder makes entries."""

import threading
import time
import uuid
from functools import partial

from benchmarks.timing import p50_p95, times_ms, turn_about_ms
from tools.real_server import Person

ENGINES, ENTRIES_EACH = 5000, 60
AIM_FLOOR = 2.0
LOOKERS, LOOK_EVERY_S = 32, 1.5
ONLY_LOOKED_AT = "Q4-0170"
PAGES = ("", "?page=40", "?search=waiting-04", "?late=true", "?free_to_turn=true&open_only=true&page=3")


def fill(serial: str) -> None:
    """Put thousands of engines beside one, each with the first entries of its ledger."""
    from work.models import Engine, EngineSummary, Entry

    pattern = Engine.objects.select_related("summary").get(serial=serial)
    rows = list(Entry.objects.filter(engine=pattern).order_by("seq")[:ENTRIES_EACH].values())
    engines, entries, summaries = [], [], []
    shown = {f.name: getattr(pattern.summary, f.name) for f in EngineSummary._meta.fields if f.name != "engine"}
    for n in range(ENGINES):
        name, ids = f"waiting-{n:04}", [uuid.uuid4() for _ in rows]
        at_last = {"last_seq": len(rows), "last_entry": ids[-1], "summed_at": ids[-1], "newest_revision": pattern.newest_revision}
        engines.append(Engine(serial=name, revision_id=pattern.revision_id, builder_id=pattern.builder_id, **at_last))
        entries += [Entry(**{**row, "id": own, "engine_id": name}) for row, own in zip(rows, ids, strict=True)]
        summaries.append(EngineSummary(engine_id=name, **shown))
    Engine.objects.bulk_create(engines, batch_size=500)
    Entry.objects.bulk_create(entries, batch_size=500)
    EngineSummary.objects.bulk_create(summaries, batch_size=500)


def measure(port: int, count: int) -> None:
    """Print what a page of the Floor takes, and an entry with and without 32 benches that look."""
    lead = Person(port, "della", "hillside-builder")
    calls = {"bare": partial(lead.call, "GET", "/api/session/people")}
    taken = turn_about_ms(calls | {page: partial(lead.call, "GET", f"/api/engines{page}") for page in PAGES}, count // 3)
    yardstick = p50_p95(taken.pop("bare"))
    print(f"bare signed-in view             {yardstick[0]:8.2f}   p95 {yardstick[1]:.2f}, with {ENGINES} engines beside")
    for page, times in taken.items():
        p50, p95 = p50_p95(times)
        ratio = p95 / yardstick[1]
        print(f"Floor {page or 'first page':26}{p50:8.2f}   p95 {p95:.2f}, {ratio:.2f} times the bare view, aim: within {AIM_FLOOR:g}")
    look = partial(lead.call, "GET", "/api/engines")
    after = p50_p95([times_ms(look, 1, warm_up=0)[0] for _ in range(count // 3) if _note(lead) is None])
    print(f"Floor, somebody made an entry   {after[0]:8.2f}   p95 {after[1]:.2f}, {after[1] / yardstick[1]:.2f} times the bare view")
    alone = p50_p95(times_ms(partial(_note, lead), count // 3, warm_up=3))
    watched = _while_others_look(port, lead, count // 3)
    print(f"an entry, {LOOKERS} benches looking   {watched[0]:8.2f}   p95 {watched[1]:.2f}, {watched[0] / alone[0]:.2f} times alone")


def _note(person: Person) -> None:
    body = {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": "wiped the wheel"}}
    person.call("POST", "/api/engines/Q4-0172/entries", body)


def _while_others_look(port: int, lead: Person, count: int) -> tuple[float, float]:
    """Time entries while benches of other engines ask every so often whether anything has changed."""
    done = threading.Event()

    def look(after_s: float) -> None:
        bench = lead.again(port)
        bench.call("GET", f"/api/engines/{ONLY_LOOKED_AT}")
        tag = bench.tag
        done.wait(after_s)
        while not done.wait(LOOK_EVERY_S):
            bench.call("GET", f"/api/engines/{ONLY_LOOKED_AT}", tag=tag)

    lookers = [threading.Thread(target=look, args=(LOOK_EVERY_S * n / LOOKERS,)) for n in range(LOOKERS)]
    for looker in lookers:
        looker.start()
    time.sleep(LOOK_EVERY_S)
    times = times_ms(partial(_note, lead), count, warm_up=3)
    done.set()
    for looker in lookers:
        looker.join()
    return p50_p95(times)

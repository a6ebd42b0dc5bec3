"""Kills a server without warning, over and over, while somebody makes entries; then looks whether anything acknowledged is missing,
doubled or no longer fits its seal.
"""

import http.client
import json
import os
import random
import signal
import subprocess
import tempfile
import threading
import uuid
from pathlib import Path

from tools import checking
from tools.house import PYTHON, ensure_all, python_env, run
from tools.real_server import Person, free_port, wait_until_it_listens
from tools.serving import MANAGE, load_demo

SERIAL = "Q4-0173"
SEED = 20261125
FUZZED = 3 * 60  # roles and operations, papers aside
GONE = (OSError, http.client.HTTPException)


def torture(rounds: int) -> int:
    """Run so many rounds on a demo of its own; return an exit code."""
    ensure_all(checks=True)
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "torture.sqlite3"
        env = load_demo(database)
        acknowledged, kept = kill_rounds(env, rounds)
        lost, doubled = set(acknowledged) - set(kept), len(kept) - len(set(kept))
        verified = run(PYTHON, MANAGE, "verify", env=env) == 0
    print(f"{rounds} kills, {len(acknowledged)} entries acknowledged: {len(lost)} lost, {doubled} doubled.")
    # an orphan beside a restore, a restore cut off between any two steps, a full disk, a copy that is not whole
    kept = run(PYTHON, "-m", "unittest", "tests.house.test_backups", "tests.house.test_real_server", env=python_env()) == 0
    return 0 if verified and kept and not lost and not doubled else 1


def fuzz(calls: int) -> int:
    """Ask about so many things at random, by every role, and look whether all is answered as declared; return an exit code."""
    os.environ["GURVO_FUZZ_EXAMPLES"] = str(max(1, round(calls / FUZZED)))
    return checking.test(["tests.server.test_fuzz"])


def kill_rounds(env: dict[str, str], rounds: int) -> tuple[list[str], list[str]]:
    """Return the ids that were acknowledged over all rounds, and those that are in the ledger after them."""
    chance, port = random.Random(SEED), free_port()  # noqa: S311 - so that a failure comes again
    command = [str(PYTHON), "-m", "tools.phoenix", str(port)]
    phoenix = subprocess.Popen(command, env={**os.environ, **env}, stdout=subprocess.PIPE, text=True)
    try:
        child = _risen(phoenix, port)
        person = Person(port, "della", "hillside-builder")
        acknowledged: list[str] = []
        for n in range(rounds):
            how = chance.choice((signal.SIGKILL, signal.SIGTERM))
            killer = threading.Timer(chance.uniform(0.02, 0.3), os.kill, (child, how))
            # every other time it is killed only once it has acknowledged something, however slow the machine
            acknowledged += _entries_until_gone(person.again(port), killer, after=n % 2)
            child = _risen(phoenix, port)
        kept = json.loads(person.again(port).call("GET", f"/api/engines/{SERIAL}/record.json"))["entries"]
    finally:
        phoenix.kill()
        os.kill(child, signal.SIGKILL)
        phoenix.wait()
    return acknowledged, [entry["id"] for entry in kept if entry["body"]["kind"] == "note"]


def _risen(phoenix: subprocess.Popen[str], port: int) -> int:
    assert phoenix.stdout is not None
    child = int(phoenix.stdout.readline())
    wait_until_it_listens(port)
    return child


def _entries_until_gone(person: Person, killer: threading.Timer, *, after: int) -> list[str]:
    """Make entries until nobody answers; the killer's clock begins after so many."""
    made: list[str] = []
    try:
        while True:
            if len(made) == after:
                killer.start()
            entry_id = str(uuid.uuid4())
            person.call("POST", f"/api/engines/{SERIAL}/entries", {"id": entry_id, "entry": {"kind": "note", "text": "again"}})
            made.append(entry_id)
    except GONE:
        killer.join()
        return made

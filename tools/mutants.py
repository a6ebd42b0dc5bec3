"""Would the tests notice? Changes the core's code of one room in many places, one at a time, in a copy of the house, and runs the tests
that know that room. What lives on is told with its change: either it says the same in other words, or a test is missing.
"""

import json
import random
import re
import shutil
import sqlite3
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

from tools.house import PYTHON, ROOT, CannotError, ensure_python, must

COPIED = ("core", "tests", "demo", "tools", "docs", "benchmarks", "standins", "web/src")
SLOWEST_S = 300.0
CONFIG = """[cosmic-ray]
module-path = "core/gurvo_core/{room}"
timeout = {slowest_s}
excluded-modules = ["**/__init__.py"]
test-command = "{python} -m unittest --failfast {tests}"

[cosmic-ray.distributor]
name = "local"
"""


def mutants(room: str, count: int, seed: int) -> int:
    """Try so many changes of a room, drawn at random; return an exit code: 1 where one lives on."""
    ensure_python(checks=True)
    tests = list(_tests_of(room))
    if not tests:
        rooms = sorted(one.name for one in (ROOT / "core" / "gurvo_core").iterdir() if one.is_dir() and not one.name.startswith("_"))
        raise CannotError(f"no tests know a room called {room}; there are {', '.join(rooms)}.")
    with tempfile.TemporaryDirectory() as folder:
        house, session = Path(folder), Path(folder) / "session.sqlite"
        copy_house(house)
        config = house / "mutants.toml"
        config.write_text(CONFIG.format(room=room, slowest_s=SLOWEST_S, python=PYTHON, tests=" ".join(tests)))
        env = {"PYTHONPATH": f"{house / 'core'}:{house}", "PYTHONDONTWRITEBYTECODE": "1"}
        tool = PYTHON.parent / "cosmic-ray"
        must("The tests as they are", PYTHON, "-m", "unittest", "--failfast", *tests, cwd=house, env=env)
        must("Looking for what can be changed", tool, "init", config, session, cwd=house, env=env)
        of = _draw(session, count, seed)
        must("Trying the changes", tool, "exec", config, session, cwd=house, env=env)
        dumped = subprocess.run([str(tool), "dump", str(session)], capture_output=True, text=True, check=True).stdout
    return _say(room, of, [json.loads(line) for line in dumped.splitlines()])


def copy_house(to: Path) -> None:
    """Put all that the core's tests need into another folder, where it may be changed."""
    for name in COPIED:
        shutil.copytree(ROOT / name, to / name, ignore=shutil.ignore_patterns("__pycache__"))


def _tests_of(room: str) -> Iterator[str]:
    """Tests of the core that name the room."""
    for file in sorted((ROOT / "tests" / "core").rglob("test_*.py")):
        if f"gurvo_core.{room}" in file.read_text("utf-8"):
            yield ".".join(file.relative_to(ROOT).with_suffix("").parts)


def _draw(session: Path, count: int, seed: int) -> int:
    """Keep so many changes, drawn at random; return how many there are that change what is done."""
    with sqlite3.connect(session) as database:
        every = list(database.execute("SELECT job_id, module_path, start_pos_row, start_pos_col, operator_name FROM mutation_specs"))
        jobs = [job for job, file, row, column, _ in sorted(every, key=lambda one: one[1:]) if does_something(_line(file, row), column)]
        kept = set(random.Random(seed).sample(jobs, min(count, len(jobs))))  # noqa: S311 - drawn, not guarded
        for job in {job for job, *_ in every} - kept:
            database.execute("DELETE FROM mutation_specs WHERE job_id = ?", (job,))
            database.execute("DELETE FROM work_items WHERE job_id = ?", (job,))
    return len(jobs)


def _line(file: str, row: int) -> str:
    return (ROOT / file).read_text("utf-8").splitlines()[row - 1]


def does_something(line: str, column: int) -> bool:
    """Whether a place in a line of code is more than a type, a signature or a decorator: changed there, it would do the same."""
    is_head = re.match(r"\s*(def |class |@|from |import )", line) is not None
    typed = re.match(r"\s*\w+: [^=]*(?= = |$)", line)
    return not is_head and not (typed and column < typed.end())


def _say(room: str, of: int, tried: list[list[dict]]) -> int:
    lived = [result for _, result in tried if result and result["test_outcome"] == "survived"]
    for result in lived:
        print(result["diff"])
    print(f"{room}: {len(tried)} of {of} changes tried, {len(tried) - len(lived)} noticed, {len(lived)} not.", file=sys.stdout)
    return 1 if lived else 0

"""Runs every measurement once and prints what it found, with the aim beside it."""

import os
import sys
import tempfile
from pathlib import Path

import django

from tools import house, serving
from tools.real_server import running_server

SERIAL = "Q4-0172"
CALLS = 300
VERY_LONG = 10_000


def main() -> None:
    """Measure requests, replay, frames, the browser and a whole shop; ``--coverage`` and ``--judgement`` add how right what is said is."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "benchmark.sqlite3"
        os.environ |= serving.load_demo(database)
        django.setup()
        from benchmarks import (
            browser,
            clearway,
            core,
            coverage,
            drive,
            fits,
            floor,
            found,
            hostile,
            joints,
            judgement,
            needle,
            requests,
            run,
            scene,
            twin,
            writer,
        )
        from benchmarks.long_ledger import fill
        from standins.serve import serve as serve_standins

        fill(SERIAL)
        os.environ["GURVO_STANDINS"] = str(serve_standins()[0])
        print("One run on this machine; milliseconds unless said otherwise.\n")
        core.measure(SERIAL)
        joints.measure()
        fits.measure()
        drive.measure()
        clearway.measure()
        scene.measure()
        fits.fill()
        pulls = joints.fill()
        entered = run.fill()
        facts = found.fill()
        with running_server(database) as port:
            requests.measure(port, SERIAL, CALLS)
            fits.entries(port, CALLS)
            joints.entries(port, pulls)
            run.entries(port, entered)
            found.measure(port, facts, CALLS)
            writer.measure(port, CALLS)
            hostile.measure(port)
            browser.measure(port)
            twin.measure(port)
            needle.measure(port)
            floor.fill(SERIAL)
            floor.measure(port, CALLS)
            fill(SERIAL, VERY_LONG)
            requests.strikes(port, SERIAL, CALLS)
        if "--coverage" in sys.argv:
            coverage.measure()
        if "--judgement" in sys.argv:
            judgement.measure()


if __name__ == "__main__":
    house.ensure_var()
    main()

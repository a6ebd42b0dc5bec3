"""Django's own runner, closing with one plain line that counts what passed; several processes may share one list of tests."""

import json
import os
import sys
import traceback
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase, TestResult, TestSuite

import scipy.interpolate  # noqa: F401 - the core loads it when it is first asked for: here, once for all processes
from django.db import connections
from django.db.models.signals import post_migrate
from django.test.runner import DiscoverRunner, iter_test_cases


class Shared(TestSuite):
    """All tests, of which this process runs those classes that no other has begun; the long ones are begun first."""

    _cleanup = False  # what is run is not what stands at its place in the list

    def __init__(self, suite: TestSuite, begun: Path):
        super().__init__(sorted(iter_test_cases(suite), key=lambda test: not getattr(test, "runs_long", False)))
        self.begun = begun

    def __iter__(self) -> Iterator[TestCase]:
        mine: dict[type[TestCase], bool] = {}
        for test in self._tests:
            kind = type(test)
            if kind not in mine:
                mine[kind] = self._begin(kind)
            if mine[kind]:
                yield test

    def _begin(self, kind: type[TestCase]) -> bool:
        """Whether this process is the first to come to a class."""
        try:
            (self.begun / f"{kind.__module__}.{kind.__qualname__}").touch(exist_ok=False)
        except FileExistsError:
            return False
        return True


def counts_of(result: TestResult) -> Counter[str]:
    """How many passed, failed, and were left out."""
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    skipped = len(result.skipped)
    return Counter(passed=result.testsRun - failed - skipped, failed=failed, skipped=skipped)


class CountingRunner(DiscoverRunner):
    """Prints 'N passed, N failed' when done.

    With GURVO_TESTS_PROCESSES it forks once everything is imported and the database is made, so that this is done once for all.
    """

    def __init__(self, **how):
        super().__init__(**how)
        self.processes = int(os.environ.get("GURVO_TESTS_PROCESSES", "1"))

    def setup_databases(self, **kwargs):
        self.parallel = self.processes  # a copy of the database for each; set this late, so that Django does not share the list out itself
        made = super().setup_databases(**kwargs)
        # nobody's rights rest on Django's rows of permissions: they need not be made anew each time a test has emptied its database
        post_migrate.disconnect(dispatch_uid="django.contrib.auth.management.create_permissions")
        return made

    def run_suite(self, suite, **kwargs):
        if self.processes < 2:
            return counts_of(super().run_suite(suite, **kwargs))
        del os.environ["GURVO_TESTS_PROCESSES"]  # a test that runs tests runs them alone
        connections.close_all()
        with TemporaryDirectory() as folder:
            begun = [self._fork(number, Shared(suite, Path(folder)), Path(folder)) for number in range(1, self.processes + 1)]
            return sum((ended(pid, Path(folder) / f"{number}.txt") for number, pid in enumerate(begun, 1)), Counter())

    def suite_result(self, suite, result, **kwargs):
        passed, failed, skipped = (result[name] for name in ("passed", "failed", "skipped"))
        print(f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""))
        return failed

    def _fork(self, number: int, tests: Shared, folder: Path) -> int:
        """Begin a process that runs what no other has begun, on its own copy of the database, and tells a file what it found."""
        pid = os.fork()
        if pid:
            return pid
        code = 1
        try:
            said = (folder / f"{number}.txt").open("w", buffering=1)
            for stream in (sys.stdout, sys.stderr):
                os.dup2(said.fileno(), stream.fileno())
            for connection in connections.all():
                connection.creation.setup_worker_connection(number)
            counts = counts_of(super().run_suite(tests))
            (folder / f"{number}.txt.json").write_text(json.dumps(counts))
            code = 0
        except BaseException:
            traceback.print_exc()  # nobody above hears of it
        finally:  # what is done after the tests is the parent's; a Chromium and a press go with the process that began them
            sys.stdout.flush()
            sys.stderr.flush()
            os._exit(code)


def ended(pid: int, said: Path) -> Counter[str]:
    """Wait for a process, say what it said, and return its counts; one that broke down has failed."""
    _, status = os.waitpid(pid, 0)
    print(said.read_text())
    counts = Path(f"{said}.json")
    return Counter(json.loads(counts.read_text())) if status == 0 and counts.exists() else Counter(failed=1)

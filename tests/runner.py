"""Django's own runner, closing with one plain line that counts what passed; several of them share one list of tests."""

import os
from collections.abc import Iterator
from pathlib import Path
from unittest import TestCase, TestSuite

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


class CountingRunner(DiscoverRunner):
    """Prints 'N passed, N failed' when done. Runners that are given the same empty folder run each class once between them."""

    def run_suite(self, suite, **kwargs):
        begun = os.environ.get("GURVO_TESTS_BEGUN")
        return super().run_suite(Shared(suite, Path(begun)) if begun else suite, **kwargs)

    def suite_result(self, suite, result, **kwargs):
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        print(f"{result.testsRun - failed - skipped} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""))
        return super().suite_result(suite, result, **kwargs)

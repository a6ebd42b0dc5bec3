"""Django's own runner, closing with one plain line that counts what passed."""

from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    """Prints 'N passed, N failed' when done."""

    def suite_result(self, suite, result, **kwargs):
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        print(f"{result.testsRun - failed - skipped} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""))
        return super().suite_result(suite, result, **kwargs)

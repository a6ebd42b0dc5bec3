"""Small tools to time a call many times."""

import statistics
import time
from collections.abc import Callable, Mapping


def times_ms(call: Callable[[], object], count: int, warm_up: int = 5) -> list[float]:
    """Time a call over and over, in milliseconds, after a few that do not count."""
    for _ in range(warm_up):
        call()
    taken = []
    for _ in range(count):
        begun = time.perf_counter()
        call()
        taken.append(1000 * (time.perf_counter() - begun))
    return taken


def turn_about_ms(calls: Mapping[str, Callable[[], object]], count: int, warm_up: int = 5) -> dict[str, list[float]]:
    """Time several calls in turn, so that whatever else the machine does falls on all alike."""
    taken: dict[str, list[float]] = {name: [] for name in calls}
    for _ in range(count):
        for name, call in calls.items():
            taken[name] += times_ms(call, 1, warm_up=0 if taken[name] else warm_up)
    return taken


def p50_p95(taken: list[float]) -> tuple[float, float]:
    """Median and 95th percentile."""
    return statistics.median(taken), statistics.quantiles(taken, n=20)[-1]

"""An engine by its serial, or 404."""

from django.http import Http404

from config.written_once import by_key
from work.models import Engine


def engine_of(serial: str) -> Engine:
    """Return an engine as the bench needs it."""
    engine: Engine | None = by_key(Engine, serial, "at_the_bench")
    if engine is None:
        raise Http404
    return engine

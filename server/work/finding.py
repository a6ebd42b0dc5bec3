"""An engine by its serial, or 404."""

from django.shortcuts import get_object_or_404

from work.models import Engine


def engine_of(serial: str) -> Engine:
    """Return an engine as the bench needs it."""
    engine: Engine = get_object_or_404(Engine.objects.at_the_bench(), serial=serial)
    return engine

"""The craft of building engines, as pure functions: no Django, no files, no clock, no state that changes.

Rooms, and who may import whom (arrows go one way)::

    errors, units, angles  <-  engine  <-  motion  <-  timing  <-  work

- ``engine``: what an engine *is*: the engine document, its parts and its cross-checks.
- ``motion``: where everything is at a crank angle: pistons, lobes, valves.
- ``timing``: true TDC, degree wheels, lift events, verdicts, corrections.
- ``work``: the job: entries in the ledger, what is accepted, and ``replay``, which works out all the bench shows.

Inside: millimetres, newton metres, degrees of the crank. Everything typed is turned into these once, in ``units``.
Each room's public names are in its own ``__all__``.
"""

__all__ = ["angles", "engine", "errors", "motion", "timing", "units", "work"]

"""The craft of building engines, as pure functions: no Django, no files, no clock, no state that changes.

Rooms, and who may import whom (arrows go one way)::

    errors, units, angles  <-  engine  <-  motion  <-  timing, drive  <-  reading, work

- ``engine``: what an engine *is*: the engine document, its parts and its cross-checks.
- ``motion``: where everything is at a crank angle: pistons, lobes, valves, marks; the twin.
- ``drive``: the way of chains and belts round their wheels, and its drawing.
- ``timing``: true TDC, degree wheels, lift events, verdicts, corrections.
- ``reading``: the door for engine documents: text in, a sound document or all of its faults out.
- ``work``: the job: entries in the ledger, what is accepted, and ``replay``, which works out all the bench shows.

Inside: millimetres, newton metres, degrees of the crank. Everything typed is turned into these once, in ``units``.
Each room's public names are in its own ``__all__``.
"""

__all__ = ["angles", "drive", "engine", "errors", "motion", "reading", "timing", "units", "work"]

"""The craft of building engines, as pure functions: no Django, no files, no clock, no state that changes.

Rooms, and who may import whom (arrows go one way)::

    errors, units, angles, verdict  <-  engine  <-  motion  <-  ledger  <-  timing, drive, joints, fits, lash, run  <-  reading, work

- ``engine``: what an engine *is*: the engine document, its parts and its cross-checks.
- ``motion``: where everything is at a crank angle: pistons, lobes, valves, marks; the twin.
- ``drive``: the way of chains and belts round their wheels, and its drawing.
- ``timing``: true TDC, degree wheels, lift events, corrections.
- ``joints``: threads, preload, orders, pulls judged against their siblings.
- ``fits``: clearances measured place by place, judged, settled, chosen from stock.
- ``lash``: valve clearances: crank stops, screws, shims.
- ``run``: the run of work, from bare block to hand-over.
- ``reading``: the door for engine documents: text in, a sound document or all of its faults out.
- ``work``: the job: entries in the ledger, what is accepted, and ``replay``, which works out all the bench shows.

Inside: millimetres, newton metres, degrees of the crank. Everything typed is turned into these once, in ``units``.
Each room's public names are in its own ``__all__``.
"""

__all__ = ["angles", "drive", "engine", "errors", "fits", "joints", "lash", "ledger", "motion", "reading", "run", "timing", "units", "work"]

"""Valve clearances: where each valve may be set, the fewest crank stops, what to turn or which shim to put in.

``windows`` crank angles at which a valve stands on its base circle, ``stops`` the fewest that cover all valves, ``adjust`` screws and
feelers, ``shims`` which shim goes where; ``job`` all of it on the bench.
"""

__all__: list[str] = []

"""Fits: what is measured where, how far a clearance can be trusted, what would settle it, and what is chosen from stock.

``places`` the spots of a fit, ``clearance`` readings made into clearances with their uncertainty, ``settle`` what would tell what cannot
be told, ``choose`` sizes from stock, ``slips`` figures that were not meant, ``sheet`` a whole sheet of readings from a spreadsheet,
``chamber`` compression ratio, squish and the head gasket; ``job`` all of it on the bench.
"""

__all__: list[str] = []

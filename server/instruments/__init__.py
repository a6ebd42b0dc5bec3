"""Instruments that can be read: ``ports`` opens them, ``reader`` keeps reading one for all who look, ``live`` says what it means, ``api``
passes it on to the benches. Nothing here is part of any record: an entry is made by whoever is at the bench.
"""

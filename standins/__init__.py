"""Simulated instruments that ship with the demo: one process, one port each, the line protocol of docs/formats/instruments.md."""

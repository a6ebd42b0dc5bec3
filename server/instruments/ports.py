"""Where an instrument is reached: a serial port or any URL that pyserial knows; ``standin:NAME`` is a simulated one of the demo."""

import os
from typing import Protocol

import serial

STANDINS = ("wrench", "dial", "encoder", "bore")
BASE_PORT = 7610
BAUD = 115_200
WAITS_S = 1.0


class Port(Protocol):
    """An open port, line by line."""

    def readline(self) -> bytes:
        """The next line; empty when none came in time."""

    def write(self, data: bytes) -> int | None:
        """Send."""

    def close(self) -> None:
        """Let go of it."""


def url_of(address: str) -> str:
    """The URL that an address stands for."""
    name = address.removeprefix("standin:")
    if name == address or name not in STANDINS:
        return address
    base = int(os.environ.get("GURVO_STANDINS", BASE_PORT))
    return f"socket://127.0.0.1:{base + STANDINS.index(name)}"


def open_port(address: str) -> Port:
    """Open it. Raises OSError (pyserial's own errors are of that kind) or ValueError when it cannot be opened."""
    port: Port = serial.serial_for_url(url_of(address), baudrate=BAUD, timeout=WAITS_S)
    return port

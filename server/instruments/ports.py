"""Where an instrument is reached: a serial port or any URL that pyserial knows; ``standin:NAME`` is a simulated one of the demo."""

import os
from socket import getaddrinfo
from typing import Protocol

import serial

from shop.addresses import STANDINS, host_of, is_never

BASE_PORT = 7610
BAUD = 115_200
WAITS_S = 1.0


class NotAllowedError(ValueError):
    """An address that is no device of this machine and no host that the lead allowed."""


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


def _check_where(url: str) -> None:
    """What a name stands for is looked at when it is opened: it may stand for something else today."""
    host = host_of(url)
    found = {str(entry[4][0]) for entry in getaddrinfo(host, None)} if host else set()
    if any(is_never(one) for one in found):
        raise NotAllowedError(url)


def open_port(address: str) -> Port:
    """Open it. Raises OSError (pyserial's own errors are of that kind) or ValueError when it cannot be opened."""
    _check_where(url_of(address))
    port: Port = serial.serial_for_url(url_of(address), baudrate=BAUD, timeout=WAITS_S)
    return port

"""Where an instrument may be: a device of this machine, a simulated one of the demo, a host that the lead allowed; and never some."""

__all__ = ["STANDINS", "host_of", "is_never", "why_not"]

from collections.abc import Collection
from ipaddress import ip_address
from urllib.parse import urlsplit

STANDINS = ("wrench", "dial", "encoder", "bore")


def why_not(address: str, hosts: Collection[str]) -> str:
    """Return what is wrong with an address, given the hosts that the lead allowed; empty when nothing is."""
    if address.startswith("standin:"):
        return "" if address.removeprefix("standin:") in STANDINS else f"There is no simulated instrument called {address}."
    if address.startswith(("/dev/", "COM")):
        return "" if ".." not in address else "A device of this machine is such as /dev/ttyUSB0; it has no “..”."
    host = host_of(address)
    if is_never(host):
        return f"{host} is no host of a shop's network; nothing is opened there."
    return "" if host in hosts else f"{host or address} is not among the hosts at which instruments may be; the lead adds it under People."


def host_of(address: str) -> str:
    """The host that an address names, as it is written; empty where it names none."""
    return (urlsplit(address).hostname or "").lower()


def is_never(host: str) -> bool:
    """Whether a host is of those that belong to no shop: of the link alone, of everybody, of nobody."""
    try:
        own = ip_address(host)
    except ValueError:
        return False
    return own.is_link_local or own.is_multicast or own.is_unspecified or own.is_reserved

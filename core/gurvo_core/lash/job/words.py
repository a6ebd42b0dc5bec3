"""How entries about valve clearances are said on tape and paper."""

__all__ = ["valve_called"]


def valve_called(valve: str) -> str:
    """A valve as it is called, from what it is kept under."""
    parts = valve.split("|")
    if len(parts) < 3:
        return valve
    return f"cylinder {parts[1]} {parts[2]}{f', {parts[3]}' if len(parts) > 3 and parts[3] else ''}"

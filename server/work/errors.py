"""Refusals about engines: a ledger that cannot be read, an entry by somebody else."""

from shop.errors import Refusal


class BrokenLedger(Refusal):
    """A ledger or document that this program cannot read; nothing in it is lost, and every other engine works on."""

    status = 409
    code = "broken"

    def __init__(self, serial: str, what: str) -> None:
        super().__init__(f"{serial} cannot be shown: {what}. Nothing of it is lost; bring Gurvo up to date or restore a backup.")


class Meanwhile(Refusal):
    """An entry from an old screen: what it rests on was changed by somebody else since."""

    status = 409
    code = "meanwhile"


class WrongPerson(Refusal):
    """An entry typed by somebody else than the one signed in."""

    status = 409
    code = "person"

    def __init__(self, typed_by: str, signed_in: str) -> None:
        super().__init__(f"This was typed by {typed_by}, and {signed_in} is signed in: it waits until {typed_by} signs in again.", "by")

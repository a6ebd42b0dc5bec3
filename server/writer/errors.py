"""Refusals that are about drafts."""

__all__ = ["Meanwhile"]

from shop.errors import Refusal


class Meanwhile(Refusal):
    """Somebody else wrote about the same since this page last saw the draft."""

    status = 409
    code = "meanwhile"

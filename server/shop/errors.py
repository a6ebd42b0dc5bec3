"""Refusals that are about the shop and not about the craft: who may, what is taken, what is there already."""

__all__ = ["Conflict", "Forbidden", "PasswordNeeded", "Refusal", "SignInFailed", "TooBusy", "Unconfirmed"]


class Refusal(Exception):  # noqa: N818 - said as it happens
    """A refusal with its code, its field and one sentence."""

    status = 422
    code = "refused"

    def __init__(self, sentence: str, field: str = "") -> None:
        self.sentence = sentence
        self.field = field
        super().__init__(sentence)


class Forbidden(Refusal):
    """Signed in, but not the one who may."""

    status = 403
    code = "forbidden"


class Unconfirmed(Refusal):
    """Somebody is signed in, but has not shown just now that it is still he."""

    status = 403
    code = "confirm"

    def __init__(self) -> None:
        super().__init__("A signature asks for your PIN or password once more; type it and sign.", "password")


class PasswordNeeded(Refusal):
    """Somebody is signed in, by PIN or long ago, and wants what asks for his password."""

    status = 403
    code = "password"

    def __init__(self) -> None:
        super().__init__("This asks for your password once more: type it, and it goes on.", "password")


class TooBusy(Refusal):
    """Others are ahead, and some wait already."""

    status = 429
    code = "busy"

    def __init__(self, what: str) -> None:
        super().__init__(f"{what}; try again in a moment.")


class Conflict(Refusal):
    """It clashes with what is there already."""

    status = 409
    code = "conflict"


class SignInFailed(Refusal):
    """Wrong name or password, or too many tries."""

    status = 401
    code = "sign_in"

"""What a password must not be, beyond what Django's own validators say."""

from typing import Any

from django.core.exceptions import ValidationError


class NotBlankValidator:
    """No password of blanks, or hidden among them."""

    def validate(self, password: str, _user: Any = None) -> None:
        """Refuse blanks alone, and a word that blanks make long enough."""
        if len(password.strip()) < len(password) or not password.strip():
            raise ValidationError("A password neither begins nor ends with a blank.", code="blank")

    def get_help_text(self) -> str:
        """Say so."""
        return "A password neither begins nor ends with a blank."

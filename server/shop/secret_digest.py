"""What is kept of a secret that a device or a program alone has: made by chance and long, so a plain digest is enough."""

from hashlib import sha256


def digest_of_secret(secret: str) -> str:
    """Return its SHA-256 in hex."""
    return sha256(secret.encode()).hexdigest()

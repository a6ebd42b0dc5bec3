"""Passwords are looked at behind everything else, in one thread of low priority: no bench waits because somebody guesses."""

__all__ = ["QuietArgon2"]

import os
import sys
import threading
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress

from django.contrib.auth.hashers import Argon2PasswordHasher

NICE = 15


def _stand_back() -> None:
    """Let the others go first; what Argon2 starts beside this thread stands back with it. Only Linux has priorities of threads."""
    if sys.platform == "linux":
        with suppress(OSError):
            os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), NICE)


_BEHIND = ThreadPoolExecutor(max_workers=1, thread_name_prefix="passwords", initializer=_stand_back)


class QuietArgon2(Argon2PasswordHasher):
    """Django's own Argon2, aside."""

    def encode(self, password: str, salt: str) -> str:
        """Return what is kept of a password."""
        encoded: str = _BEHIND.submit(super().encode, password, salt).result()
        return encoded

    def verify(self, password: str, encoded: str) -> bool:
        """Say whether it is the one that is kept."""
        return _BEHIND.submit(super().verify, password, encoded).result()

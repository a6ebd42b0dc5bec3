"""For tests: quick password hashing, and a database file of its own so that server threads have connections of their own."""

import tempfile
from pathlib import Path

from config.settings.base import *
from config.settings.base import DATABASES

SECRET_KEY = "for tests only"  # noqa: S105 - guards nothing
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "testserver"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
TEST_RUNNER = "tests.runner.CountingRunner"
DATABASES["default"]["TEST"] = {"NAME": str(Path(tempfile.mkdtemp(prefix="gurvo-test-")) / "test.sqlite3")}
# written through at once: the databases of parallel runs are copies of the first one's file
INIT = "PRAGMA journal_mode=WAL; PRAGMA synchronous=OFF; PRAGMA wal_autocheckpoint=1;"
DATABASES["default"]["OPTIONS"] = {"timeout": 20, "transaction_mode": "IMMEDIATE", "init_command": INIT}
LOGGING = {"version": 1, "disable_existing_loggers": True, "loggers": {"axes": {"level": "CRITICAL"}, "django": {"level": "CRITICAL"}}}

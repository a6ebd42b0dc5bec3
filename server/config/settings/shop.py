"""A shop's own server, and the demo: real secret, no debug, this machine only unless told otherwise."""

import os

from config.settings.base import *

SECRET_KEY = os.environ["GURVO_SECRET_KEY"]
DEBUG = False
HOSTS = [host for host in os.environ.get("GURVO_HOSTS", "").split(",") if host]
ALLOWED_HOSTS = [*HOSTS, "127.0.0.1", "localhost", "[::1]"]

# behind a proxy that does TLS: the server in front takes its word (and no other's) for scheme, host and address
BEHIND_TLS = "GURVO_PROXY" in os.environ
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = BEHIND_TLS
CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in HOSTS] if BEHIND_TLS else []

"""A shop's own server, and the demo: real secret, no debug, this machine only unless told otherwise."""

import os

from config.settings.base import *

SECRET_KEY = os.environ["GURVO_SECRET_KEY"]
DEBUG = False
ALLOWED_HOSTS = [*os.environ.get("GURVO_HOSTS", "").split(","), "127.0.0.1", "localhost", "[::1]"]

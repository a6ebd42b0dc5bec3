"""The door for the server in front."""

import gc
import sys

import scipy.interpolate  # noqa: F401 - the first bench would wait for it; a command that computes nothing does without
from django.core.wsgi import get_wsgi_application
from django.urls import get_resolver

from config.rush import Rush

# an entry lets go of the interpreter at every step of its queries; beside one busy thread it would wait its whole turn each time
sys.setswitchinterval(0.0002)
application = Rush(get_wsgi_application())

from work.watch import Watch  # noqa: E402 - once Django is ready

list(get_resolver().url_patterns)  # all of the house is loaded before the first request
Watch().start()
# what stays for ever is not looked through for rubbish again: that falls on one request or another and costs it a fifth of a second
gc.collect()
gc.freeze()
# an entry makes and drops some ten thousand small things, none of them in a ring: seven hundred are too few to look for rubbish after
gc.set_threshold(50_000, 20, 20)

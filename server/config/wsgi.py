"""The door for the server in front."""

import sys

from django.core.wsgi import get_wsgi_application

# an entry lets go of the interpreter at every step of its queries; beside one busy thread it would wait its whole turn each time
sys.setswitchinterval(0.0002)
application = get_wsgi_application()

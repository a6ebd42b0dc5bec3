"""The door for the server in front."""

from django.core.wsgi import get_wsgi_application

application = get_wsgi_application()

"""Two doors: the API, and the web app for everything else."""

from django.urls import path, re_path

from config.api import api
from config.web import web_app

handler400, handler404, handler500 = "config.web.bad_request", "config.web.not_found", "config.web.server_error"
patterns, app, _ = api.urls
urlpatterns = [
    path("api/v1/", (patterns, app, "api-v1")),  # for programs: within a version names are only added
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/).*$", web_app),
]

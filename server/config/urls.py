"""Two doors: the API, and the web app for everything else."""

from django.urls import path, re_path

from config.api import api
from config.web import web_app

handler400, handler404, handler500 = "config.web.bad_request", "config.web.not_found", "config.web.server_error"
urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/).*$", web_app),
]

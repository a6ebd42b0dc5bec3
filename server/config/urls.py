"""Two doors: the API, and the web app for everything else."""

from django.urls import path, re_path

from config.api import api
from config.web import web_app

urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/).*$", web_app),
]

"""The API, and the built front end for every other address."""

from django.urls import path, re_path

from base.lan import TRUSTED
from project.api import api
from project.pages import front_end, trusted
from upkeep.health import healthz, readyz

handler400 = "project.pages.not_this_name"
handler500 = "base.failures.server_error"

urlpatterns = [
    path("api/", api.urls),
    path("healthz", healthz),
    path("readyz", readyz),
    path(TRUSTED, trusted),
    re_path(r"^(?!api/|static/|assets/).*$", front_end),
]

"""The API, and the built front end for every other address."""

from django.urls import path, re_path

from project.api import api
from project.pages import front_end

handler500 = "base.failures.server_error"

urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|static/|assets/).*$", front_end)]

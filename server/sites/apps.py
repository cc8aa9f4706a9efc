"""The app, as Django knows it."""

from django.apps import AppConfig


class SitesConfig(AppConfig):
    name = "sites"

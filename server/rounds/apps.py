"""The app, as Django knows it."""

from django.apps import AppConfig


class RoundsConfig(AppConfig):
    name = "rounds"

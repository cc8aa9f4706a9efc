"""The app, as Django knows it."""

from django.apps import AppConfig


class UpkeepConfig(AppConfig):
    name = "upkeep"

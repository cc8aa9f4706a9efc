"""The app, as Django knows it."""

from django.apps import AppConfig


class PluggingConfig(AppConfig):
    name = "plugging"

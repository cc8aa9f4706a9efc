"""The app, as Django knows it."""

from django.apps import AppConfig


class MetersConfig(AppConfig):
    name = "meters"

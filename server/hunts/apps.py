"""The app, as Django knows it."""

from django.apps import AppConfig


class HuntsConfig(AppConfig):
    name = "hunts"

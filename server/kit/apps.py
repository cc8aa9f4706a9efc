"""The app, as Django knows it."""

from django.apps import AppConfig


class KitConfig(AppConfig):
    name = "kit"

"""The app, as Django knows it."""

from django.apps import AppConfig


class BroughtConfig(AppConfig):
    name = "brought"

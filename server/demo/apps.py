"""The app, as Django knows it."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    name = "demo"

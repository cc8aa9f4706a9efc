"""The app, as Django knows it."""

from django.apps import AppConfig


class VisitsConfig(AppConfig):
    name = "visits"

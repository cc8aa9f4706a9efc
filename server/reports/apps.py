"""The app, as Django knows it."""

from django.apps import AppConfig


class ReportsConfig(AppConfig):
    name = "reports"

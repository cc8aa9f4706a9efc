"""The app, as Django knows it."""

from django.apps import AppConfig


class HistoryConfig(AppConfig):
    name = "history"

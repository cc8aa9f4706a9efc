"""The app, as Django knows it."""

from django.apps import AppConfig


class SheetsConfig(AppConfig):
    name = "sheets"

"""The app, as Django knows it."""

from django.apps import AppConfig


class SignoffsConfig(AppConfig):
    name = "signoffs"

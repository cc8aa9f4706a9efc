"""The app, as Django knows it."""

from django.apps import AppConfig


class PractisingConfig(AppConfig):
    name = "practising"

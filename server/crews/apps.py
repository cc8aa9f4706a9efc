"""The app, as Django knows it."""

from django.apps import AppConfig


class CrewsConfig(AppConfig):
    name = "crews"

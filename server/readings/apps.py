"""The app, as Django knows it."""

from django.apps import AppConfig


class ReadingsConfig(AppConfig):
    """`label`: what the tables were called first; a database written then is read as it is."""

    name = "readings"
    label = "work"

"""The app, as Django knows it."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "people"

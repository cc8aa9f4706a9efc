"""The app, as Django knows it."""

from django.apps import AppConfig


class ProofsConfig(AppConfig):
    name = "proofs"

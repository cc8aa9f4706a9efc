"""The app, as Django knows it."""

from django.apps import AppConfig
from django.db.models.signals import post_migrate, pre_migrate


class ReadingsConfig(AppConfig):
    """`label`: what the tables were called first; a database written then is read as it is."""

    name = "readings"
    label = "work"

    def ready(self) -> None:
        from readings.changes import count_changes, stop_counting

        pre_migrate.connect(stop_counting, sender=self)
        post_migrate.connect(count_changes, sender=self)

"""The app, as Django knows it."""

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class BaseConfig(AppConfig):
    name = "base"

    def ready(self) -> None:
        from base import checks  # noqa: F401
        from base.append_only import put_triggers

        post_migrate.connect(put_triggers)

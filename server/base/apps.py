"""The app, as Django knows it."""

from django.apps import AppConfig
from django.db.models.signals import post_migrate, pre_migrate


class BaseConfig(AppConfig):
    name = "base"

    def ready(self) -> None:
        from base import checks  # noqa: F401
        from base.append_only import put_triggers
        from base.unchanged import count_changes, stop_counting

        post_migrate.connect(put_triggers)
        pre_migrate.connect(stop_counting, sender=self)
        post_migrate.connect(count_changes, sender=self)

from django.apps import AppConfig


class RoundsConfig(AppConfig):
    name = "rounds"

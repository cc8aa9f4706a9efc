from django.apps import AppConfig


class PluggingConfig(AppConfig):
    name = "plugging"

from django.apps import AppConfig


class MetersConfig(AppConfig):
    name = "meters"

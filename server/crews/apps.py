from django.apps import AppConfig


class CrewsConfig(AppConfig):
    name = "crews"

"""The app, as Django knows it."""

from django.apps import AppConfig


class ExchangeConfig(AppConfig):
    name = "exchange"

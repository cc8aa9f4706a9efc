"""The app, as Django knows it."""

from django.apps import AppConfig


class PhotosConfig(AppConfig):
    name = "photos"

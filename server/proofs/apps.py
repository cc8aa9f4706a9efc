from django.apps import AppConfig


class ProofsConfig(AppConfig):
    name = "proofs"

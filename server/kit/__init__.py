"""Testers, leads, adapters and their checks."""

"""Crews: who works together, and signing in."""

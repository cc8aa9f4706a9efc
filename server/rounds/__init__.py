"""Rounds of outlets."""

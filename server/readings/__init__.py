"""Readings of points: the Bench, surveys in and out."""

"""Sheets of dead tests."""

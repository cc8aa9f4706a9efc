"""A module a command."""

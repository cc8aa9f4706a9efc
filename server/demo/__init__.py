"""The demo scenario."""

"""Practice: cases somebody goes through on the same screens, each in a sandbox of its own, away from the record."""

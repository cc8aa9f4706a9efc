"""A whole site or crew as one file, and back to the same record."""

"""Commands of the server itself."""

"""Settings, addresses and the API as one."""

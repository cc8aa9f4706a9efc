"""Photos, decoded and bounded when they arrive, and what each of them hangs on."""

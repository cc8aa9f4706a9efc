"""Finding a fault along a run, a chain or a board: where it can still be, and where to look next."""

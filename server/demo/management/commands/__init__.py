"""Load the demo; serve the meter that measures it."""

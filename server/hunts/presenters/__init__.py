"""Hunts as the front end shows them: what is common, in `view`; a module each for what is hunted along."""

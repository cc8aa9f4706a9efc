"""Guided hunts: what a good hand does in order, step by step, where each outcome names what comes after it."""

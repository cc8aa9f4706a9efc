"""Rows of somebody's spreadsheet: which column is which, what would come of each row, and bringing them in."""

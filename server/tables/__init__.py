"""Tables for spreadsheets: readings, circuits, dead tests and kit as CSV."""

"""What is printed: reports, schedules, labels and lock tags, laid out by Typst from what the record says."""

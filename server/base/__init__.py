"""What every app rests on: problems, the append-only record, shapes."""

"""Before plugging in: equipment and outlets."""

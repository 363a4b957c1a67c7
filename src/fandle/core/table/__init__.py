"""A table: its numbers, its pockets and rails, how fast it plays."""

"""What is kept: the club's tables and players, and named layouts. SQLite; many readers, one writer."""

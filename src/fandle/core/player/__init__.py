"""Who shoots: a player's scatter, drawn at random, and found from the log."""

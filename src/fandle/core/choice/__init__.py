"""Which line? The rules of the games, every line there is, how likely each is, and why."""

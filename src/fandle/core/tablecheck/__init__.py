"""How a table answers."""

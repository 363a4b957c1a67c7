"""The Practice room."""

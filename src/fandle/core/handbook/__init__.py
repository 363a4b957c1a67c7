"""The handbook: what a player should know of each system, and figures that show where it holds."""

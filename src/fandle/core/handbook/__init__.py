"""The handbook: what a player should know of each school, and figures that show where it holds."""

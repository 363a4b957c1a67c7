"""A stroke and what comes of it: the cue ball's way, the whole shot, read as paths."""

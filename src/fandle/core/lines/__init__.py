"""Lines over rails: the question, the mirror, the aim that is proved by playing it, or the reason why there is none."""

"""How a played direction can end; a kernel gives one of these × 1000, plus 10 × ball + leg."""

# met or potted as asked; met off one more rail; a ball, a jaw, too slow, another rail first,
# anything else; cue ball and object ball meet again
HIT, BACKSTOP, BLOCKED, JAW, SHORT, OFF_RAIL, PAST, KISS = range(8)

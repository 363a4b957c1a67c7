"""Balls by id, and as a player says them."""

CUE = "cue"


def spoken(ball_id: str) -> str:
    """A ball as a player says it: "the 7", "the cue ball", "the blue", "red 4"."""
    if ball_id == CUE:
        return "the cue ball"
    if ball_id.startswith("red") and ball_id != "red":
        return "red " + ball_id[3:]
    return f"the {ball_id}"

"""How marks are printed."""

from fandle.core.lines.marks import Marks


def mark(marks: Marks, frame: str) -> str:
    """The printed mark in a frame."""
    value = getattr(marks, frame)
    return "–" if value is None else f"{value:.2f}".replace("-", "−")


FRAME_WORDS = {
    "nose": "at the cushion edge",
    "sight": "on the diamonds",
    "centre": "where the ball turns",
}

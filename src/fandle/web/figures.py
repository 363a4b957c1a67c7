"""How marks are printed."""

from fandle.core.lines.marks import Marks


def mark(marks: Marks, frame: str) -> str:
    """The printed mark in a frame."""
    value = getattr(marks, frame)
    return "–" if value is None else f"{value:.2f}".replace("-", "−")


FRAME_WORDS = {
    "nose": "at the nose",
    "sight": "at the sights",
    "centre": "where the centre turns",
}

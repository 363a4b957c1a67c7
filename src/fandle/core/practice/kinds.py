"""Kinds of line, as the log's attempts are grouped: how many rails, which side, how hard; and the drills for each."""

from fandle.core.shot.side import running
from fandle.core.table.rails import Rail

PLAIN = 0.05  # radii: less side is none
FIRM_LENGTHS = 3.25
_NATURAL = ("natural-3", "natural-4", "natural-2")
_FOR: dict[str, tuple[str, ...]] = {
    "straight": ("freeze", "thin-home"),
    "bank": ("bank-side", "bank-corner"),
    "one rail, plain": ("kick-medium", *_NATURAL, "kick-soft"),
    "one rail, firm": ("kick-firm", "natural-5"),
    "one rail, running": ("kick-running",),
    "one rail, reverse": ("kick-reverse",),
    "two rails": ("escape-two", "return-2"),
    "three rails": ("corner-20", "corner-25", "corner-30", "return-3"),
    "more rails": ("return-4", "return-3"),
}


def kind_of(kind: str, rails: tuple[Rail, ...], side: float, direction: float, lengths: float) -> str:
    """The kind of a line. kind: as the log has it; side: radii; direction: rad; lengths: its speed."""
    if kind == "bank":
        return "bank"
    if not rails:
        return "straight"
    if len(rails) > 1:
        return {2: "two rails", 3: "three rails"}.get(len(rails), "more rails")
    if abs(side) >= PLAIN:
        return f"one rail, {running(side, rails[0], direction)}"
    return "one rail, firm" if lengths >= FIRM_LENGTHS else "one rail, plain"


def drills_for(kind: str) -> tuple[str, ...]:
    """The drills that train a kind of line, the best first."""
    return _FOR.get(kind, ())

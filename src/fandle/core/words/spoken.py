"""Numbers of a stroke as players say them: lengths and tips with fractions, running or reverse."""

import math

FRACTIONS = {0.25: "¼", 0.5: "½", 0.75: "¾"}


def mixed(value: float) -> str:
    """A number to the nearest quarter: 2.5 -> "2½", 0.5 -> "½", 3.0 -> "3"."""
    quarters = round(abs(value) * 4) / 4
    whole = math.floor(quarters)
    part = FRACTIONS.get(quarters - whole, "")
    return f"{whole or ''}{part}" or "0"


def plural_lengths(value: float) -> str:
    """ "2½ lengths", "1 length"."""
    text = mixed(value)
    return f"{text} length" if text in ("1", "¼", "½", "¾") else f"{text} lengths"


def tips_word(tips: float) -> str:
    """ "½ tip", "1¼ tips"; "centre" where it is nothing, a decimal where no quarter is near."""
    if abs(tips) < 0.02:
        return "centre"
    near = round(abs(tips) * 4) / 4
    text = mixed(tips) if abs(near - abs(tips)) < 0.02 else f"{abs(tips):.2f}"
    return f"{text} tip" if abs(tips) < 1.02 else f"{text} tips"


def side_name(side: float) -> str:
    """Left or right as the shooter sees it."""
    return "right" if side > 0 else "left"


def landing_word(off: float | None) -> str:
    """Signed diamonds as a player says them: "0.30 short", "on"; nothing where nothing is known."""
    if off is None:
        return ""
    if abs(off) < 0.005:
        return "on"
    return f"{abs(off):.2f} {'long' if off > 0 else 'short'}"

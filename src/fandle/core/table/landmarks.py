"""A mark as one remembers it at the table: by the nearest diamond, string, spot or jaw."""

from fandle.core.constants import DIAMONDS_LONG, DIAMONDS_SHORT
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

AT = 0.04  # diamonds: nearer than this the mark is at the landmark
ORDINALS = ("", "first", "second", "third", "fourth", "fifth", "sixth", "seventh")
QUARTERS = {1: "a quarter", 2: "half", 3: "three quarters"}


def landmarks(table: Table, rail: Rail) -> list[tuple[float, str]]:
    """(place along the rail in diamonds, name) of everything one can remember on it."""
    word, whole = table.marks.removesuffix("s"), DIAMONDS_LONG if rail.is_long else DIAMONDS_SHORT
    pockets = table.pockets
    found = [(float(k), f"{ORDINALS[k]} {word} from the {_start(rail)}") for k in range(1, whole)]
    if rail.is_long:
        if pockets is not None:
            gap = pockets.side_mouth / 2 / table.diamond_x
            side = f"side-{'far' if rail.at_end else 'near'}"
            found = [(at, name) for at, name in found if at != DIAMONDS_LONG / 2]
            found += [(4.0 - gap, f"head-side jaw of {side}"), (4.0 + gap, f"foot-side jaw of {side}")]
        if table.head_string is not None:
            found.append((table.head_string, "baulk line" if table.d_radius is not None else "head string"))
        on_line = {round(at, 3) for at, _ in found}
        found += [(x, f"{name} spot") for name, (x, _) in table.spots.items() if round(x, 3) not in on_line]
    else:
        found += [(y, f"{name} spot") for name, (_, y) in table.spots.items() if y != DIAMONDS_SHORT / 2]
    if pockets is not None:
        gap = pockets.corner_gap / (table.diamond_x if rail.is_long else table.diamond_y)
        ends = _ends(rail)
        found += [(gap, f"jaw of {ends[0]}"), (whole - gap, f"jaw of {ends[1]}")]
    return found


def seen_marks(table: Table, rail: Rail) -> list[tuple[float, str]]:
    """(place, name) of what one sees on a rail besides diamonds: the jaws of its pockets, the end of a string."""
    return [mark for mark in landmarks(table, rail) if any(word in mark[1] for word in ("jaw", "string", "baulk line"))]


def _start(rail: Rail) -> str:
    return "head end" if rail.is_long else "near rail"


def _ends(rail: Rail) -> tuple[str, str]:
    if rail.is_long:
        side = "far" if rail.at_end else "near"
        return f"head-{side}", f"foot-{side}"
    end = "foot" if rail.at_end else "head"
    return f"{end}-near", f"{end}-far"


def landmark(table: Table, rail: Rail, at: float) -> str:
    """A mark in words: "the third diamond from the head end", "a quarter past the head string"."""
    place, name = min(landmarks(table, rail), key=lambda mark: abs(mark[0] - at))
    away = at - place
    if abs(away) < AT:
        return f"the {name}"
    quarters = round(abs(away) * 4)
    exact = abs(abs(away) * 4 - quarters) < AT and quarters in QUARTERS
    how = QUARTERS[quarters] if exact else f"{abs(away):.2f}"
    return f"{how} {'past' if away > 0 else 'short of'} the {name}"

"""Where a player needs the rest: the picture of docs/decisions/reach.md. `python bench/reach_map.py`.

Of cue balls all over the five tables, in how many of 72 directions body and arms are too short.
"""

import math
from pathlib import Path

from fandle.core.choice.reach import shortfall
from fandle.core.player.body import ANYBODY, Body
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS

OUT = Path(__file__).parent.parent / "docs" / "decisions" / "reach.svg"
COLUMNS, ROWS, DIRECTIONS = 32, 16, 72
SCALE, GAP = 100.0, 36.0  # drawn pixels a metre, between tables
ALONG_DEG = (0.0, 180.0)
TITLES = ("any direction: share that needs the rest", "along the table: needs the rest")


def share(table: Table, x: float, y: float, degrees: tuple[float, ...], body: Body) -> float:
    """In which share of some directions a cue ball at x, y (m) is out of reach."""
    return sum(shortfall(table, (x, y), math.radians(at), body) > 0.0 for at in degrees) / len(degrees)


def cells(table: Table, left: float, top: float, degrees: tuple[float, ...]) -> list[str]:
    """A table's squares, the darker the more directions are out of reach."""
    wide, high = table.length / COLUMNS, table.width / ROWS
    drawn = []
    for i in range(COLUMNS):
        for j in range(ROWS):
            part = share(table, (i + 0.5) * wide, (j + 0.5) * high, degrees, ANYBODY)
            x, y = left + SCALE * i * wide, top + SCALE * (table.width - (j + 1) * high)
            drawn.append(
                f'<rect x="{x:.1f}" y="{y:.1f}" width="{SCALE * wide:.2f}" height="{SCALE * high:.2f}" '
                f'fill="#7a2e1d" fill-opacity="{part:.2f}"/>'
            )
    edge = f'width="{SCALE * table.length:.1f}" height="{SCALE * table.width:.1f}"'
    return [f'<rect x="{left}" y="{top}" {edge} fill="#e9e2cf" stroke="#333"/>', *drawn]


def main() -> None:
    """Draw all tables in two columns: any direction, and along the table."""
    every = tuple(360.0 * k / DIRECTIONS for k in range(DIRECTIONS))
    widest = SCALE * max(table.length for table in STANDARDS.values())
    top, drawn = 2 * GAP, []
    for name, table in STANDARDS.items():
        for column, degrees in enumerate((every, ALONG_DEG)):
            left = GAP + column * (widest + GAP)
            drawn += cells(table, left, top, degrees)
            drawn.append(f'<text x="{left}" y="{top - 6:.0f}">{name}</text>')
        top += SCALE * table.width + GAP
    heads = [
        f'<text x="{GAP + k * (widest + GAP)}" y="24" font-weight="bold">{said}</text>' for k, said in enumerate(TITLES)
    ]
    size = f'width="{3 * GAP + 2 * widest:.0f}" height="{top:.0f}"'
    style = 'font-family="sans-serif" font-size="13"'
    back = '<rect width="100%" height="100%" fill="#fff"/>'
    OUT.write_text(
        f'<svg xmlns="http://www.w3.org/2000/svg" {size} {style}>{back}{"".join([*heads, *drawn])}</svg>\n', "utf-8"
    )
    print(OUT)


if __name__ == "__main__":
    main()

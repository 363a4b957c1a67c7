"""The games a table is played with, and where each may stand, as the page offers them."""

from fandle.core.choice.rules import on_if
from fandle.core.layout.games import SNOOKER_COLOURS
from fandle.core.layout.model import Layout
from fandle.core.table.model import Table
from fandle.core.table.standards import usual_game

POOL = (
    ("nine-ball|||", "Nine-ball"),
    ("ten-ball|||", "Ten-ball"),
    ("eight-ball|||", "Eight-ball, open table"),
    ("eight-ball|low||", "Eight-ball, low balls"),
    ("eight-ball|high||", "Eight-ball, high balls"),
    ("straight|||", "Straight pool"),
)
CAROM = (
    ("three-cushion|||", "Three cushions"),
    ("one-cushion|||", "One cushion"),
    ("straight-rail|||", "Straight rail"),
)
SNOOKER = (
    ("snooker|||", "Snooker: reds, then the colours"),
    ("snooker||red|", "Snooker: a red is on"),
    ("snooker||colour|", "Snooker: any colour is on"),
    *((f"snooker||{name}|", f"Snooker: {name} is on") for name in SNOOKER_COLOURS),
    ("snooker|||free", "Snooker: free ball"),
)


def game_choices(table: Table) -> list[tuple[str, str]]:
    """(game|group|on|free, what it is called) of every choice."""
    usual = usual_game(table)
    if usual == "snooker":
        return list(SNOOKER)
    return list(CAROM) if usual == "three-cushion" else list(POOL)


def game_with(layout: Layout) -> tuple[str, str] | None:
    """(choice, what it is called) of the game in which the target would be on; None where it is on, or none is."""
    found = on_if(layout)
    if found is None:
        return None
    game, state = found
    wanted = f"{game}|{state.group or ''}|{state.on or ''}|"
    return next(((value, label) for value, label in game_choices(layout.table) if value == wanted), None)

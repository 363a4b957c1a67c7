"""Where the game stands, as far as it decides which balls are on."""

from dataclasses import dataclass
from typing import Literal

from fandle.core.errors import BadInputError
from fandle.core.layout.games import SNOOKER_COLOURS

Group = Literal["low", "high"]
GROUPS: tuple[Group, ...] = ("low", "high")
RED, COLOUR = "red", "colour"
ON = (RED, COLOUR, *SNOOKER_COLOURS)  # what may be on in snooker: any red, any colour, one colour


@dataclass(frozen=True)
class State:
    """group: of eight-ball, ours, None while the table is open. on: of snooker, None for what lies on the table.

    free_ball: of snooker, any ball may be nominated.
    """

    group: Group | None = None
    on: str | None = None
    free_ball: bool = False


OPEN = State()


def check_state(game: str, state: State) -> None:
    """Refuse what this game does not know. Raises BadInputError."""
    if state.group is not None and (game != "eight-ball" or state.group not in GROUPS):
        raise BadInputError(
            f"group {state.group!r} in {game}: only eight-ball has groups, low and high", "state.group", code="unknown"
        )
    if state.on is not None and (game != "snooker" or state.on not in ON):
        raise BadInputError(
            f"{state.on!r} on in {game}: say so in snooker only, {', '.join(ON)}", "state.on", code="unknown"
        )
    if state.free_ball and game != "snooker":
        raise BadInputError(f"a free ball in {game}: only snooker has one", "state.free_ball", code="unknown")


def state_of_text(text: str, state: State = OPEN) -> State:
    """A state with one thing changed, written group=low, on=red, free_ball=true or =false; "" after = for none."""
    name, equals, value = text.partition("=")
    words = {"true": True, "false": False, "yes": True, "no": False, "": False}
    if not equals or name not in ("group", "on", "free_ball") or (name == "free_ball" and value not in words):
        raise BadInputError(
            f"state {text!r} is not understood: write group=low, on=red or free_ball=true", "state", code="unknown"
        )
    if name == "free_ball":
        return State(state.group, state.on, words[value])
    if name == "on":
        return State(state.group, value or None, state.free_ball)
    group: Group | None = "low" if value == "low" else "high" if value == "high" else None
    if value and group is None:
        raise BadInputError(f"group {value!r} is not known: use low or high", "state.group", code="unknown")
    return State(group, state.on, state.free_ball)

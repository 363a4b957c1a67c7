"""A player's scatter as a file, `fandle-player/1`."""

from typing import Any, Literal

from pydantic import Field

from fandle.core.player.scatter import MarkScatter, Player
from fandle.formats.base import Number, read_json, validated
from fandle.formats.parts import Answer

PLAYER_FORMAT = "fandle-player/1"


class MarkFile(Answer):
    """Of a mark at the nose, diamonds, by how easily it is seen."""

    diamond: Number
    half: Number
    quarter: Number
    between: Number


class PlayerFile(Answer):
    """Standard deviations: direction in degrees, speed as a share, tip in mm, mark in diamonds; and their origin."""

    format: Literal["fandle-player/1"] = "fandle-player/1"
    direction_deg: Number
    speed_part: Number
    tip_mm: Number
    mark_diamonds: MarkFile
    origin: Literal["default", "typed", "log"] = Field(default="typed", alias="from")

    @classmethod
    def of(cls, player: Player) -> "PlayerFile":
        """From a player."""
        given: dict[str, Any] = {
            "format": PLAYER_FORMAT, "direction_deg": player.direction_deg, "speed_part": player.speed_part,
            "tip_mm": player.tip_mm, "mark_diamonds": MarkFile(**player.mark._asdict()), "from": player.origin,
        }  # fmt: skip
        return cls(**given)

    def player(self) -> Player:
        """The player."""
        marks = self.mark_diamonds
        return Player(
            self.direction_deg, self.speed_part, self.tip_mm,
            MarkScatter(marks.diamond, marks.half, marks.quarter, marks.between), self.origin,
        )  # fmt: skip

    def json_data(self) -> dict[str, Any]:
        """Its JSON."""
        return self.model_dump(mode="json", by_alias=True)


def read_player(text: str | bytes) -> Player:
    """A player from the text of a player's file."""
    return validated(PlayerFile, read_json(text), "player.").player()

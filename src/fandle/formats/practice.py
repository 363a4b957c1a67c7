"""A set of drills to hand out, and a drill that somebody made."""

import json
from typing import Annotated, Any, Literal

from pydantic import Field

from fandle.core.errors import BadInputError
from fandle.core.practice.drill import Drill
from fandle.core.practice.drills import BY_NAME, drill_named
from fandle.core.practice.own import MOST_SAY, MOST_TRIES, Counts, Struck, own_drill
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import parse_rails, rails_name
from fandle.formats.base import Number, Strict, read_json, validated
from fandle.formats.files import layout_json, layout_of
from fandle.formats.names import Name

DRILLS_FORMAT = "fandle-drills/1"


class OwnDrillFile(Strict):
    """A player's own drill: a layout (fandle-layout/1), the rails of its line, the stroke in table lengths and tips
    (+ right, + above centre), hit in ball diameters right of full; what counts. Its name follows from all that."""

    title: Name
    say: str = Field(default="", max_length=MOST_SAY)
    layout: dict[str, Any]
    rails: str = Field(max_length=60)
    bank: bool = False
    pocket: str | None = Field(default=None, max_length=20)
    lengths: Number = Field(gt=0.0, le=20.0)
    tips: Number = Field(default=0.0, ge=-4, le=4)
    height: Number = Field(default=0.0, ge=-4, le=4)
    hit: Number = Field(default=0.0, ge=-1.0, le=1.0)
    stop: bool = False
    wanted_hits: int = Field(default=7, ge=1, le=MOST_TRIES)
    out_of: int = Field(default=10, ge=1, le=MOST_TRIES)

    def drill(self) -> Drill:
        """The drill. Raises BadInputError for a layout or a line that is none."""
        layout = layout_of(self.layout)
        if self.pocket not in (None, *POCKET_NAMES):
            raise BadInputError(f"unknown pocket {self.pocket!r}: use {', '.join(POCKET_NAMES)}", "pocket")
        how = Struck(self.lengths, self.tips, self.height, self.hit)
        counts = Counts(self.stop, self.wanted_hits, self.out_of)
        line = parse_rails(self.rails)
        return own_drill(layout, line, how, self.title, counts, say=self.say, bank=self.bank, pocket=self.pocket)

    @classmethod
    def of(cls, drill: Drill) -> "OwnDrillFile":
        """From a player's own drill; its table travels whole unless it is a standard one."""
        layout = {} if drill.given is None else layout_json(drill.given)
        return cls(
            title=drill.title, say=drill.say, layout=layout, rails=rails_name(drill.rails),
            bank=drill.play == "bank", pocket=drill.pocket, lengths=drill.lengths, tips=drill.tips,
            height=drill.height, hit=drill.hit, stop=drill.stop, wanted_hits=drill.wanted_hits, out_of=drill.out_of,
        )  # fmt: skip


class DrillSetFile(Strict):
    """`fandle-drills/1`: drills by name, in the order to play them, with a word from who hands them out.

    own: those of them that somebody made; sums: false where each is to be measured with hands and cue.
    """

    format: Literal["fandle-drills/1"]
    name: Name
    note: str = Field(default="", max_length=400)
    drills: list[Annotated[str, Field(max_length=80)]] = Field(min_length=1, max_length=40)
    own: list[OwnDrillFile] = Field(default=[], max_length=40)
    sums: bool = True

    def made(self) -> dict[str, Drill]:
        """The drills somebody made, by name."""
        return {drill.name: drill for drill in (each.drill() for each in self.own)}


def read_set(text: str | bytes) -> DrillSetFile:
    """A set of drills, every one of which this version knows or the file holds."""
    found = validated(DrillSetFile, read_json(text))
    known = {**BY_NAME, **found.made()}
    for name in found.drills:
        drill_named(name, known)
    return found


def file_text(data: Strict) -> str:
    """A file as it is written."""
    return json.dumps(data.model_dump(mode="json"), indent=1, ensure_ascii=False) + "\n"

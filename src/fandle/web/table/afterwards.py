"""What is to become of the cue ball, as a page asks for it."""

from pydantic import BaseModel, ConfigDict, Field

from fandle.core.choice.position import next_of
from fandle.core.choice.wish import Then, Zone
from fandle.core.layout.model import Layout
from fandle.formats.base import Number
from fandle.web.table.models import ZoneData


class ZoneModel(BaseModel):
    """A circle on the cloth, diamonds; its radius in those along the table."""

    model_config = ConfigDict(extra="forbid")

    x: Number = Field(ge=0, le=8)
    y: Number = Field(ge=0, le=4)
    r: Number = Field(gt=0, le=8)

    def zone(self) -> Zone:
        """The circle."""
        return Zone(self.x, self.y, self.r)


class Afterwards(BaseModel):
    """What is to become of the cue ball.

    zones: where it is to stop; away: where it is not to. next: the ball to be potted next, BALL, BALL:POCKET or any;
    null where none is asked for.
    """

    zones: list[ZoneModel] = Field(default=[], max_length=8)
    away: list[ZoneModel] = Field(default=[], max_length=8)
    next: str | None = Field(default=None, max_length=40)

    def then(self, layout: Layout) -> Then:
        """The same, checked."""
        ahead = next_of(layout, self.next) if self.next and layout.table.pockets is not None else None
        return Then(tuple(z.zone() for z in self.zones), tuple(z.zone() for z in self.away), ahead)


def zone_data(zone: Zone) -> ZoneData:
    """A circle as a page is told it."""
    return {"x": zone.x, "y": zone.y, "r": zone.r}

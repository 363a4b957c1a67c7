"""Where balls stop: the ellipse that is told holds half of what another, larger sample does."""

import math
import random

import numpy as np
import pytest
from tests.amount import amount

from fandle.app.choose import wish_for
from fandle.app.situation import Situation
from fandle.core.choice.chance import Chance, chances
from fandle.core.choice.field import Field
from fandle.core.choice.rests import Rest, rest_of
from fandle.core.choice.search import Search
from fandle.core.choice.strokes import Tried
from fandle.core.player.draws import draws
from fandle.core.player.scatter import CLUB
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.model import Table

from .test_plan import random_layout

LINES = 4  # of a layout
MOVED_MM = 1.0  # half-axis: less is a ball that lies still


def inside(table: Table, rest: Rest, chance: Chance) -> float:
    """The share of the cue ball's stops on the bed inside an ellipse."""
    stops = chance.rests[:, 0]
    stays = stops[~np.isnan(stops[:, 0])]
    off = 1000 * (stays - (rest.x * table.diamond_x, rest.y * table.diamond_y))
    turn = math.radians(rest.turn_deg)
    along, across = off @ (math.cos(turn), math.sin(turn)), off @ (-math.sin(turn), math.cos(turn))
    return float(((along / rest.a) ** 2 + (across / rest.b) ** 2 <= 1.0).mean())


@pytest.mark.proof
@pytest.mark.parametrize("game", ["nine-ball", "snooker", "three-cushion"])
def test_the_ellipse_holds_half_of_what_another_sample_does(game: str) -> None:
    """Told from 300 draws, looked for among others: 47 to 53 % inside, as the mean over many lines."""
    rng, found = random.Random(game), list[float]()
    for seed in range(amount(5, 20)):
        layout, stroke = random_layout(rng, game, 5), Stroke(rng.uniform(1.5, 4.5))
        field = Field.of(layout)
        search = Search(field, wish_for(Situation(layout, stroke), "this", 300, seed), draws(300, seed))
        for line in finish(search.lines([Tried(stroke, None)], {}))[:LINES]:
            rest = rest_of(field, line.chance, 0)
            again = finish(chances(field, [line.aim], CLUB, draws(amount(600, 1500), 1000 + seed)))[0]
            if rest.gone < 0.5 and rest.b > MOVED_MM:
                found.append(inside(layout.table, rest, again))
    assert len(found) >= amount(8, 40)
    slack = amount(5, 3) / 100
    assert 0.5 - slack <= np.mean(found) <= 0.5 + slack

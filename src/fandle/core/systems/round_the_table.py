"""M19, long rail lines: four rails around the table with running side. No count is needed: it is played.

Used for position and for the last resort. The mark is remembered from table to table: the one whose line, played
with this stroke on a table of this size in standard condition, meets the target. Common practice, no published source.
"""

import math

from fandle.core.lines.question import ask
from fandle.core.physics.roots import root_near
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Draft, RailNumber, View
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_twin
from fandle.core.words.balls import spoken

METHOD = "M19"
TITLE = "Round the table"
ORDERS = ((Rail.FAR, Rail.FOOT, Rail.NEAR, Rail.HEAD), (Rail.FOOT, Rail.FAR, Rail.HEAD, Rail.NEAR))
SPEED, RUNNING, FOLLOW = 5.0, 0.35, 0.15


def count(view: View) -> Draft | str:
    """The played line's mark and its contacts."""
    side = RUNNING if view.rail is Rail.FAR else -RUNNING  # right off far towards foot, left off foot towards far
    stroke = Stroke(SPEED, side, FOLLOW)
    question = ask(view.layout, view.rails, view.target.id, 0.0)
    natural = question.geometric(view.layout.table.ball_radius)
    if natural is None:
        return "no such line meets it"
    direction = float(root_near(natural, 0.0, question.scene(standard_twin(view.layout.table), stroke)))
    if math.isnan(direction):
        return "played out, no such line meets it with this stroke"
    at = question.nose(direction)
    shot = approach(view.layout, stroke, direction, most_rails=len(view.rails) + 1, ignore_balls=True)
    met = [ev for ev in shot.events if ev.rail is not None and ev.in_deg is not None and ev.out_deg is not None]
    if tuple(ev.rail for ev in met[: len(view.rails)]) != view.rails:
        return "played out, the line runs into a pocket on its way"
    numbers = [
        RailNumber(
            rail,
            at if k == 0 else rail.along(ev.x, ev.y),
            f"{ev.in_deg:.0f}° {ev.out_deg:.0f}°",
            "zero" if k else "aim",
        )
        for k, (rail, ev) in enumerate(zip(view.rails, met, strict=False))
    ]
    steps = tuple(
        f"{view.name(rail)}: in {ev.in_deg:.0f}°, out {ev.out_deg:.0f}°"
        for rail, ev in zip(view.rails, met, strict=False)
    )
    say = (
        f"Four rails with running side, firm: {', '.join(view.name(rail) for rail in view.rails)}, then "
        f"{spoken(view.target.id)}. There is nothing to add or halve: mark and pace are remembered, as they are on a "
        "standard table of this size."
    )
    adjust = "A ball width at the first rail is a diamond at the last: for position, or when nothing else is left."
    return Draft(at, "nose", stroke, tuple(numbers), steps, say, adjust)

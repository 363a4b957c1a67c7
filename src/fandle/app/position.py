"""Position: what a little more of one thing would do to the line that is shot."""

from dataclasses import replace

from fandle.app.choose import wish_for
from fandle.app.lines import one_line
from fandle.app.situation import Situation
from fandle.core.choice.error import uncertain
from fandle.core.choice.field import Field
from fandle.core.choice.variations import Variation, changes, same_mark, tried_out
from fandle.core.lines.solution import Aim
from fandle.core.player.draws import draws
from fandle.core.steps import Steps

DRAWS = 100  # enough to see where the cue ball goes


def vary(asked: Situation) -> Steps[list[Variation]]:
    """The line asked for with one thing changed at a time, as it is first, in steps; [] where there is no line."""
    line = one_line(asked).answer
    if not isinstance(line, Aim):
        return []
    best, field = line.best, Field.of(asked.layout)
    every = list(changes(asked.table, asked.stroke, best))
    held = same_mark(field, asked.stroke, best)
    solved = []
    for change in [*every, *([] if held is None else [held])]:
        hit = 0.0 if best.contact is not None or best.pot is not None else change.hit
        solved.append((change, one_line(replace(asked, stroke=change.stroke, hit=hit)).answer))
        yield
    wish = wish_for(asked, "this", DRAWS, 0)
    found = yield from tried_out(field, solved, wish, draws(DRAWS, 0, uncertain(asked.table)))
    return found

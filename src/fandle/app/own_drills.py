"""A player's own drills: the line of any situation as a drill; and a drill's line measured with hands and cue."""

from fandle.app.answer import answer
from fandle.app.practise import drill
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.practice.drill import Drill
from fandle.core.practice.drilled import Drilled
from fandle.core.practice.own import Counts, own_drill, struck
from fandle.core.steps import Steps
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import systems_over
from fandle.core.systems.hands import HandStep
from fandle.core.systems.registry import count, hands_of


def drill_of(asked: Situation, title: str, say: str, counts: Counts) -> Steps[Drill]:
    """A situation's line as a drill, the best line where none is chosen, in steps. Raises BadInputError where that line
    does not do on this table what the drill would say."""
    if asked.rails is None:
        found = yield from answer(asked)
        asked = found.asked
    made = own_drill(
        asked.layout, asked.rails or (), struck(asked.layout, asked.stroke, asked.hit), title, counts, say=say,
        bank=asked.kind == "bank", pocket=asked.pocket,
    )  # fmt: skip
    yield
    on_it = drill(made, asked.table)
    if on_it.why_not:
        raise BadInputError(
            f"this line cannot be drilled here: {on_it.why_not}; choose another line on the Table first", "rails",
            code="no_line",
        )  # fmt: skip
    return made


def hands(found: Drilled) -> tuple[HandStep, ...]:
    """A drill's line measured with hands and cue, by the system that lands nearest of those that measure; () where none
    does: then the mark itself is all there is."""
    wanted, layout = found.drill, found.layout
    if layout is None or layout.target is None or wanted.play not in ("kick", "bank") or not wanted.rails:
        return ()
    counts = [count(name, layout, wanted.rails) for name in systems_over(wanted.rails)] if wanted.play == "kick" else []
    landed = [each for each in counts if isinstance(each, Count)]
    for each in sorted(landed, key=lambda each: abs(each.lands.off_diamonds)):
        steps = hands_of(each, layout)
        if steps:
            return steps
    return ()

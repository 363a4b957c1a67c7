"""Plans on random layouts of every game: none fails, shares are in order, what is told is what is played."""

import math
import random

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.told import Line
from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import GAMES, id_order
from fandle.core.layout.model import Layout
from fandle.core.layout.state import GROUPS, OPEN, State
from fandle.core.player.scatter import PLAYERS
from fandle.core.shot.cue import CUES
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.standards import STANDARDS
from fandle.formats.plan import PlanAnswer

TABLES = {"snooker": ("snooker-12ft",), "three-cushion": ("carom-10ft",)}
POOL = ("pool-9ft", "pool-8ft", "pool-7ft")
DRAWS = 30


def layout(rng: random.Random, game: str) -> Layout:
    """Up to nine balls in the open, on rails, frozen to one another, in the state of some frame."""
    table, balls = (
        STANDARDS[rng.choice(TABLES.get(game, POOL))],
        [Ball("cue", rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7))],
    )
    order = id_order(game)
    rng.shuffle(order)
    state = OPEN
    if game == "eight-ball":
        state = State(group=rng.choice((None, *GROUPS)))
    elif game == "snooker":
        state = State(on=rng.choice((None, "red", "colour", "blue")), free_ball=rng.random() < 0.1)
    for name in order if game == "three-cushion" else order[: rng.randint(1, 9)]:
        while True:
            x, y = rng.uniform(0.2, 7.8), rng.uniform(0.2, 3.8)
            if rng.random() < 0.15:
                y = table.ball_radius / table.diamond_y
            elif rng.random() < 0.1:
                beside, turn = rng.choice(balls), rng.uniform(0.0, 2 * math.pi)
                x = beside.x + 2 * table.ball_radius * math.cos(turn) / table.diamond_x
                y = beside.y + 2 * table.ball_radius * math.sin(turn) / table.diamond_y
            try:
                Layout(table, game, (*balls, Ball(name, x, y)), None, state)
            except BadInputError:
                continue
            balls.append(Ball(name, x, y))
            break
    return Layout(table, game, tuple(balls), None, state)


def fault_of(seed: int) -> tuple[int, str]:
    """(lines told, what is wrong or "") of one random plan."""
    rng = random.Random(seed)
    laid = layout(rng, GAMES[seed % len(GAMES)])
    goal = rng.choice(("hit", "pot", "safe")) if laid.table.pockets is not None else "hit"
    stroke = Stroke(
        rng.uniform(0.8, 6.0), rng.uniform(-0.3, 0.3), rng.uniform(-0.3, 0.3), cue=rng.choice(list(CUES.values()))
    )
    player = rng.choice(list(PLAYERS.values()))
    strokes = "usual" if rng.random() < 0.1 else "this"
    try:
        found = finish(plan(Situation(laid, stroke), wish_of(goal, player, strokes, None, DRAWS, seed, laid), 2))
        PlanAnswer.of(found).json_data()
    except FandleError as error:
        return 0, f"seed {seed}: {error}"
    wrong = [fault for line in found.lines if (fault := fault_in(laid, line))]
    return len(found.lines), f"seed {seed}: {wrong[0]}" if wrong else ""


def fault_in(laid: Layout, line: Line) -> str:
    """What does not hold of a line; "" where all does."""
    hit, legal, pot, in_off, safe = (line.chance.share(name).p for name in ("hit", "legal", "pot", "in_off", "safe"))
    if not (0.0 <= pot <= legal <= hit <= 1.0 and 0.0 <= in_off <= 1.0 and 0.0 <= safe <= legal):
        return f"shares out of order: {hit} {legal} {pot} {in_off} {safe}"
    if line.wanted.p > legal + 1e-9:
        return f"wanted {line.wanted.p} of {legal} legal"
    ahead = line.after.ahead
    if ahead is not None and not (0.0 <= ahead.p <= 1.0 and 0.0 <= ahead.along_deg <= 90.0):
        return f"next {ahead}"
    shot = play(laid, line.stroke, line.direction)
    if line.kind != "point" and line.through and shot.first_ball != line.through[0]:
        return f"{line.kind} over {line.rails} meets {shot.first_ball}, not {line.through[0]}"
    if line.kind not in ("bank", "point") and line.run.rails != line.rails:
        return f"{line.kind} is told over {line.rails} and goes over {line.run.rails}"
    return ""

"""Are chances fair and their ranges honest? Lines played with many seeds against 20,000 independent draws of each.

Told, for hit, legal and pot: in how many cases the truth lay in the 95 % range (92 to 98 % is honest), how many
independent draws the 300 are worth, and by how much the share was off, for seed 0 and over the others. Ten minutes.

    PYTHONPATH=.:bench python bench/fair_draws.py
"""

import random

import numpy as np
from honest_ranges import LIKELY, layout

from fandle.app.choose import wish_for
from fandle.app.situation import Situation
from fandle.core.choice.chance import Chance, chances
from fandle.core.choice.field import Field
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.search import Search
from fandle.core.choice.strokes import Tried
from fandle.core.player.draws import Draws, draws
from fandle.core.player.scatter import CLUB
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.formats.files import layout_of

LINES, SEEDS, DRAWS, TRUE, A_LAYOUT = 150, 24, 300, 20_000, 3
NAMES = ("hit", "legal", "pot")


def lines(rng: random.Random) -> list[tuple[Field, Ranked]]:
    """Lines at a random stroke on random layouts."""
    found: list[tuple[Field, Ranked]] = []
    while len(found) < LINES:
        stroke, laid = Stroke(rng.uniform(1.5, 5.0)), layout_of(layout(rng))
        field, goal = Field.of(laid), rng.choice(("hit", "pot"))
        search = Search(field, wish_for(Situation(laid, stroke, goal=goal), "this", DRAWS, 0), draws(DRAWS, 0))
        some = finish(search.lines([Tried(stroke, None)], {}))
        found += [(field, line) for line in rng.sample(some[:8], min(A_LAYOUT, len(some)))]
    return found


def played(field: Field, line: Ranked, drawn: Draws) -> Chance:
    """A line's chance with these draws."""
    return finish(chances(field, [line.aim], CLUB, drawn))[0]


def main() -> None:
    """Draw, compare, tell."""
    rng, plain = random.Random(7), np.random.default_rng(8)
    every = lines(rng)
    truth = []
    for field, line in every:
        errors = plain.standard_normal((TRUE, 5))
        direction, speed, across, up, mark = errors.T.copy()
        came = played(field, line, Draws(direction, speed, across, up, mark, np.empty((TRUE, 0))))
        truth.append({name: float(getattr(came.verdicts, name).mean()) for name in NAMES})
    told = [[played(field, line, draws(DRAWS, seed)) for field, line in every] for seed in range(SEEDS)]
    for name in NAMES:
        off: dict[int, list[float]] = {seed: [] for seed in range(SEEDS)}
        inside, worth = [], []
        for seed, some in enumerate(told):
            for came, true in zip(some, truth, strict=True):
                if LIKELY[0] <= true[name] <= LIKELY[1]:
                    share = came.share(name)
                    low, high = share.range
                    off[seed].append(share.p - true[name])
                    inside.append(low <= true[name] <= high)
                    worth.append(share.sure)
        means = [float(np.mean(off[seed])) for seed in range(1, SEEDS)]
        print(
            f"{name:<6} {len(off[0])} lines: {np.mean(inside):.1%} inside, worth {np.mean(worth):.0f} draws; "
            f"off {np.mean(off[0]):+.4f} by seed 0, {np.mean(means):+.4f} ± {np.std(means):.4f} by the others"
        )


if __name__ == "__main__":
    main()

"""The campaign's parts that look at answers alone: every verb, pots, plans, sense, and every system and technique."""

import random
import traceback
from pathlib import Path

from campaign import counts, plans, pots, scenes, sense, verbs
from campaign.rows import Row, tell

from fandle.core.errors import BadInputError
from fandle.core.handbook.page import page_of
from fandle.core.systems.catalogue import METHODS
from fandle.core.table.standards import STANDARDS

OWN_TABLES, STANDARD_SCENES = 2000, 500
POTS = 200
PLANS = 1200  # two hundred of every game
SENSE = 2000  # layouts of all games
COUNTS = 200  # of every system and technique
SLACK = 0.05  # by which a share may fall short of what the page tells


def _scenes(seed: int, count: int, *, own: bool) -> Row:
    rng, answers, sentences, refused, faults = random.Random(seed), 0, 0, 0, []
    n = 0
    while n < count:
        table = scenes.table(rng) if own else rng.choice(list(STANDARDS.values()))
        if isinstance(table, BadInputError):
            refused += 1
            continue
        n += 1
        scene = scenes.scene(rng, table)
        for verb in verbs.in_python(scene, rng):
            try:
                if verbs.checked(verb) == "answer":
                    answers += 1
                else:
                    sentences += 1
                    if verb[0] != "hold":
                        faults.append(f"{verb[0]} refuses a valid scene: {scene}")
            except Exception:  # noqa: BLE001  (whatever it is, it is a fault that is told)
                faults.append(f"{verb[0]}: {traceback.format_exc()[-600:]} {scene}")
    tell(faults)
    kind = f"{count} home-made tables ({refused} more refused by a sentence)" if own else f"{count} standard scenes"
    return Row(
        "python", f"{kind}, every verb", f"{answers} answers, {sentences} sentences, {len(faults)} faults", not faults
    )


def python(seed: int, scale: float, _: Path) -> list[Row]:
    """Every verb in Python on home-made and standard tables."""
    return [
        _scenes(seed, round(OWN_TABLES * scale), own=True),
        _scenes(seed + 1, round(STANDARD_SCENES * scale), own=False),
    ]


def potting(seed: int, scale: float, _: Path) -> list[Row]:
    """Pots, half of them of hanging balls, against brute force."""
    told = [pots.fault_of(pots.case(seed * POTS + k)) for k in range(round(POTS * scale))]
    faults = [fault for _, fault in told if fault]
    tell(faults)
    counted = ", ".join(f"{sum(what == each for what, _ in told)} {each}" for each in ("pot", "no pot", "no line"))
    return [Row("pots", f"{len(told)} layouts on four tables", f"{counted}, {len(faults)} faults", not faults)]


def planning(seed: int, scale: float, _: Path) -> list[Row]:
    """Plans of all games: no failure, shares in order, lines that are what they say."""
    told = [plans.fault_of(seed * PLANS + k) for k in range(round(PLANS * scale))]
    faults = [fault for _, fault in told if fault]
    tell(faults)
    lines = sum(count for count, _ in told)
    return [Row("plans", f"{len(told)} layouts of six games", f"{lines} lines, {len(faults)} faults", not faults)]


def sensible(seed: int, scale: float, _: Path) -> list[Row]:
    """What is told of layouts against what is played."""
    told = [sense.faults_of(seed * SENSE + k) for k in range(round(SENSE * scale))]
    faults = [fault for _, _, some in told for fault in some]
    tell(faults)
    lines, counts = sum(each[0] for each in told), sum(each[1] for each in told)
    return [
        Row(
            "sense",
            f"{len(told)} layouts of six games",
            f"{lines} lines, {counts} counts, {len(faults)} faults",
            not faults,
        )
    ]


def counted(seed: int, scale: float, _: Path) -> list[Row]:
    """Every system and technique on layouts of its own kind."""
    rows = []
    for found in counts.every(seed, max(round(COUNTS * scale), 10)):
        tell(found.faults)
        told = page_of(found.method).trusted.share if found.method in METHODS else 1.0
        held = not found.faults and found.within > 0 and found.share >= told - SLACK
        said = f"hits {found.share:.0%} (told {told:.0%}), median off {found.median:.2f}, {len(found.faults)} faults"
        rows.append(Row(f"counts {found.method}", f"{found.tried} layouts, {found.applied} apply", said, held))
    return rows

"""Words on a screen: rails as the drawing lies, American and British English, snooker's own words.

The words of each game are common practice, no published source; that yellow and green stand on the right and left of
the baulk line, seen from baulk, is in the rules of snooker (WPBSA, from memory).
"""

import random
import re

import pytest
from campaign import scenes
from tests.amount import amount

from fandle.app.situation import Kind, Situation
from fandle.core.choice.wish import GOALS
from fandle.core.steps import finish
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.core.words.screen import Screen
from fandle.web.speech import DRAWN, SAID, said
from fandle.web.table.view import answer

LYING, STANDING = Screen(), Screen(upright=True)
BRITISH, SNOOKER = Screen(english="uk"), Screen(snooker=True)


@pytest.mark.parametrize(
    ("screen", "text", "shown"),
    [
        (LYING, "Aim at the far rail", "Aim at the top rail"),
        (STANDING, "Aim at the far rail", "Aim at the left rail"),
        (LYING, "Far, foot, near", "Top, right, bottom"),
        (STANDING, "Foot, near", "Top, right"),
        (LYING, "over the head and near rails", "over the left and bottom rails"),
        (LYING, "red 3 is between the far and the foot rail", "red 3 is between the top and the right rail"),
        (LYING, "12 mm to the head, 30 mm to the foot", "12 mm to the left, 30 mm to the right"),
        (LYING, "from the head end", "from the left"),
        (STANDING, "from the head end", "from the bottom"),
        (SNOOKER, "from the head end", "from the baulk end"),
        (LYING, "The 7 drops into foot-far.", "The 7 drops into the top-right corner."),
        (STANDING, "The 7 drops into foot-far.", "The 7 drops into the top-left corner."),
        (LYING, "from the middle of the side-far pocket", "from the middle of the top side pocket"),
        (BRITISH, "from the middle of the side-far pocket", "from the middle of the top middle pocket"),
        (LYING, "the ball would meet the head-near jaw", "the ball would meet the jaw of the bottom-left corner"),
        (SNOOKER, "into head-near", "into the yellow pocket"),
        (SNOOKER, "into head-far", "into the green pocket"),
        (SNOOKER, "into foot-near", "into the lower black pocket"),
        (SNOOKER, "Foot rail", "Top cushion"),
        (SNOOKER, "Head rail", "Baulk cushion"),
        (Screen(upright=True, snooker=True), "Near rail", "Right side cushion"),
        (LYING, "running side, no side", "running English, no English"),
        (BRITISH, "running side, no side", "running side, no side"),
        (LYING, "Nothing potted.", "Nothing pocketed."),
        (BRITISH, "Nothing potted.", "Nothing potted."),
        (BRITISH, "Missed the rail", "Missed the cushion"),
        (BRITISH, "a rail-first hit", "a rail-first hit"),
        (LYING, "a cut of 30°, on its left side", "a cut of 30°, on its left side"),
        (LYING, "as far behind the rail, too far away; how far off, near it", "as far behind the rail, too far away; how far off, near it"),
    ],
)  # fmt: skip
def test_words(screen: Screen, text: str, shown: str) -> None:
    assert screen.say(text) == shown


@pytest.mark.parametrize(
    "screen", [Screen(u, e, s) for u in (False, True) for e in ("us", "uk") for s in (False, True)]
)
def test_every_rail_and_pocket_has_a_name_of_its_own(screen: Screen) -> None:
    assert len({screen.rail(rail.value) for rail in Rail}) == 4
    assert len({screen.pocket(name) for name in POCKET_NAMES}) == 6


def test_a_table_that_stands_is_the_lying_one_turned_to_the_left() -> None:
    """Head at the bottom: what was left is below, what was above is left."""
    turn = {"left": "bottom", "top": "left", "right": "top", "bottom": "right"}
    for rail in Rail:
        assert STANDING.rail(rail.value, noun=False) == turn[LYING.rail(rail.value, noun=False)]


@pytest.mark.proof
def test_no_trade_name_of_a_rail_or_pocket_reaches_a_screen() -> None:
    """All words of the Table room's answers on random layouts, kicks and banks, on five tables."""
    rng, left, names = (
        random.Random(11),
        set(),
        re.compile(r"\b(near|far|head|foot) rail|\b(head|side|foot)-(near|far)\b", re.I),
    )
    for k in range(amount(15, 40)):
        table = list(STANDARDS.values())[k % 5]
        scene = scenes.scene(rng, table, 6)
        kind: Kind = "bank" if table.pockets and k % 3 == 0 else "kick"
        found = finish(answer(Situation(scene.layout, scene.stroke, kind=kind, goal=rng.choice(GOALS))))
        left |= {text for text in words(said(found, Screen(upright=bool(k % 2)))) if names.search(text)}
    assert left == set()


def words(data: object, field: str = "") -> list[str]:
    """Every text that is meant for people."""
    if isinstance(data, str):
        return [data] if field in SAID else []
    if isinstance(data, dict):
        return [text for name, value in data.items() if name not in DRAWN for text in words(value, name)]
    return [text for each in data for text in words(each, field)] if isinstance(data, list | tuple) else []


def test_ids_are_left_as_they_are() -> None:
    """Rails and pockets that scripts read keep their names."""
    table = standard_table("pool-9ft")
    scene = scenes.scene(random.Random(2), table, 4)
    plain = finish(answer(Situation(scene.layout, scene.stroke, (Rail.FAR,))))
    shown = said(plain, STANDING)
    assert shown["address"] == plain["address"]
    assert [each["id"] for each in shown["pockets"]] == [each["id"] for each in plain["pockets"]]
    assert [line["rails"] for line in shown["lines"] or []] == [line["rails"] for line in plain["lines"] or []]

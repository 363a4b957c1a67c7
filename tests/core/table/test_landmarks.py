"""Landmarks: diamonds, jaws, strings and spots where they are on the table (WPA, WPBSA; from memory)."""

import pytest

from fandle.core.table.landmarks import landmark, landmarks
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL, SNOOKER, CAROM = standard_table("pool-9ft"), standard_table("snooker-12ft"), standard_table("carom-10ft")
SIDE = POOL.pockets.side_mouth / 2 / POOL.diamond_x if POOL.pockets else 0.0  # half a side pocket's mouth, diamonds


def places(table: object, rail: Rail) -> dict[str, float]:
    return {name: at for at, name in landmarks(table, rail)}  # type: ignore[arg-type]


@pytest.mark.parametrize(("rail", "side"), [(Rail.FAR, "side-far"), (Rail.NEAR, "side-near")])
def test_a_side_pocket_has_a_jaw_on_either_hand_and_no_diamond(rail: Rail, side: str) -> None:
    found = places(POOL, rail)
    assert found[f"head-side jaw of {side}"] == pytest.approx(4.0 - SIDE)
    assert found[f"foot-side jaw of {side}"] == pytest.approx(4.0 + SIDE)
    assert "fourth diamond from the head end" not in found
    assert found["third diamond from the head end"] == 3.0


@pytest.mark.parametrize("rail", Rail)
def test_corner_jaws_lie_as_far_from_either_end(rail: Rail) -> None:
    found = places(POOL, rail)
    whole = 8.0 if rail.is_long else 4.0
    jaws = sorted(at for name, at in found.items() if name.startswith("jaw of"))
    assert len(jaws) == 2
    assert jaws[0] == pytest.approx(whole - jaws[1])
    assert 0.2 < jaws[0] < 0.5


def test_strings_and_spots() -> None:
    assert places(POOL, Rail.FAR)["head string"] == 2.0
    assert places(SNOOKER, Rail.FAR)["baulk line"] == SNOOKER.head_string
    assert places(SNOOKER, Rail.FAR)["black spot"] == SNOOKER.spots["black"][0]
    assert "pink spot" not in places(SNOOKER, Rail.FAR)  # it lies on a mark
    assert places(SNOOKER, Rail.HEAD)["yellow spot"] == SNOOKER.spots["yellow"][1]
    assert "brown spot" not in places(SNOOKER, Rail.HEAD)  # it lies on the middle, where the mark is
    assert not any("jaw" in name for name in places(CAROM, Rail.FAR))


@pytest.mark.parametrize(
    ("at", "words"),
    [
        (3.0, "the third diamond from the head end"),
        (3.03, "the third diamond from the head end"),
        (3.25, "a quarter past the third diamond from the head end"),
        (2.5, "half past the second diamond from the head end"),
        (4.0 - SIDE, "the head-side jaw of side-far"),
        (4.0 + SIDE + 0.1, "0.10 past the foot-side jaw of side-far"),
        (4.0 - SIDE - 0.1, "0.10 short of the head-side jaw of side-far"),
    ],
)
def test_a_mark_in_words(at: float, words: str) -> None:
    assert landmark(POOL, Rail.FAR, at) == words

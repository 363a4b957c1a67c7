"""Maps are kept until something they depend on changes."""

import time
from dataclasses import replace

import numpy as np
import pytest

from fandle.app.trust import Progress, preferred, trust_map
from fandle.core.errors import BadInputError
from fandle.core.handbook.page import page_of
from fandle.core.layout.ball import Ball
from fandle.core.steps import finish
from fandle.core.table.condition import conditioned
from fandle.work.latest import Latest

PAGE = page_of("M10")


def test_a_map_is_kept_while_the_cue_ball_moves_and_made_anew_for_another_table() -> None:
    first = finish(trust_map("M10", PAGE.example, PAGE.rails))
    moved = replace(
        PAGE.example, balls=tuple(Ball("cue", 1.3, 2.9) if ball.id == "cue" else ball for ball in PAGE.example.balls)
    )
    assert finish(trust_map("m10", moved, PAGE.rails)) is first
    table = conditioned(PAGE.example.table, "damp", "soft")
    other = finish(trust_map("M10", replace(PAGE.example, table=table), PAGE.rails))
    assert other is not first
    assert not np.array_equal(other.off, first.off, equal_nan=True)


def test_the_one_asked_for_longest_ago_gives_way() -> None:
    kept: Latest[int] = Latest(2)
    kept.put(("a",), 1)
    kept.put(("b",), 2)
    assert kept.get(("a",)) == 1
    kept.put(("c",), 3)
    assert kept.get(("b",)) is None
    assert kept.get(("a",)) == 1


def test_pictures_tell_how_far_they_are_and_are_quick_the_second_time() -> None:
    told = [each.part for each in preferred(PAGE.example) if isinstance(each, Progress)]
    assert told == sorted(told)
    assert told[-1] == 1.0
    begun = time.perf_counter()
    pictures = finish(preferred(PAGE.example))
    assert time.perf_counter() - begun < 0.5  # some seconds the first time
    assert [each.rails for each in pictures] == [1, 2, 3]


def test_without_a_target_there_is_no_map() -> None:
    with pytest.raises(BadInputError, match="no target"):
        finish(trust_map("M10", replace(PAGE.example, target=None), PAGE.rails))

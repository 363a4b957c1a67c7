"""The chain: links that add up, each the difference of two aims, nought where its cause is missing."""

import math
from dataclasses import replace
from typing import Any

import pytest
from tests.conftest import make

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines import chain
from fandle.core.lines.chain import steps
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.question import Question
from fandle.core.lines.solution import LINKS, THICKNESS, Aim
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table, standard_twin


def aim_of(table: Table, stroke: Stroke, rails: tuple[Rail, ...] = (Rail.FAR,), hit: float = 0.0) -> Aim:
    found = solve_kick(make(table, (1.1, 0.55), (5.3, 0.5)), rails, stroke, hit=hit)
    assert isinstance(found, Aim)
    return found


@pytest.mark.parametrize("rails", [(Rail.FAR,), (Rail.FAR, Rail.FOOT), (Rail.FAR, Rail.FOOT, Rail.NEAR)])
def test_links_add_up_to_the_corrected_mark(pool: Table, rails: tuple[Rail, ...]) -> None:
    best = (aim := aim_of(replace(pool, cushion_friction=0.16), Stroke(4.2, 0.2, 0.1, 1.0, HOUSE), rails)).best
    assert [link.link for link in aim.chain] == list(LINKS)
    total = math.fsum(link.shift for link in aim.chain)
    assert total == pytest.approx(best.corrected.nose - best.mirror.nose, abs=1e-9)


def test_a_cause_that_is_not_there_moves_nothing(pool: Table) -> None:
    shifts = {link.link: link.shift for link in aim_of(pool, Stroke(3.0)).chain}
    for name in ("compression", "side", "follow", "table", "squirt and swerve"):
        assert shifts[name] == 0.0
    assert abs(shifts["ball size"]) > 0.01
    assert abs(shifts["cushion"]) > 0.01


@pytest.mark.parametrize(
    ("link", "stroke", "change"),
    [
        ("side", Stroke(3.0, side=0.2), {}),
        ("follow", Stroke(3.0, up=0.3), {}),
        ("table", Stroke(3.0), {"cushion_friction": 0.12}),
        ("compression", Stroke(3.0), {"cushion_compression": 0.002}),
        ("squirt and swerve", Stroke(3.0, side=0.3, cue=HOUSE), {}),
    ],
)
def test_each_cause_has_its_own_link(pool: Table, link: str, stroke: Stroke, change: dict[str, Any]) -> None:
    plain = {one.link: one.shift for one in aim_of(pool, Stroke(3.0)).chain}
    moved = {one.link: one.shift for one in aim_of(replace(pool, **change), stroke).chain}
    expected = {link, "side"} if link == "squirt and swerve" else {link}
    assert {name for name in LINKS if abs(moved[name] - plain[name]) > 1e-9} == expected


def test_the_aims_between_go_one_thing_further_each(pool: Table) -> None:
    worn = replace(pool, name="worn", cushion_friction=0.25, cushion_compression=0.001)
    asked = Stroke(3.0, 0.2, 0.1, 2.0, HOUSE)
    between = steps(worn, asked)
    assert between[0] == (replace(standard_twin(worn), cushion_compression=0.0), Stroke(3.0))
    assert between[1] == (standard_twin(worn), Stroke(3.0))
    assert [s.side for _, s in between] == [0.0, 0.0, 0.2, 0.2, 0.2, 0.2]
    assert [s.up for _, s in between] == [0.0, 0.0, 0.0, 0.1, 0.1, 0.1]
    assert between[-1] == (worn, asked)


def test_a_thinner_hit_than_asked_has_its_cost_told(pool: Table) -> None:
    """A ball beside the line leaves only a thin hit open: the last link says what that moves."""
    layout = make(pool, (1.1, 0.55), (5.3, 0.5), (4.1, 2.0))
    found = solve_kick(layout, (Rail.FAR,), Stroke(3.2))
    assert isinstance(found, Aim)
    assert found.best.fullness < 0.9
    assert found.chain[-1].link == THICKNESS
    total = math.fsum(link.shift for link in found.chain)
    assert total == pytest.approx(found.best.corrected.nose - found.best.mirror.nose, abs=1e-9)


def test_a_natural_line_that_runs_along_the_rail_has_no_link_of_its_own(monkeypatch: pytest.MonkeyPatch) -> None:
    """Found by the campaign, of balls frozen to the rail they are kicked over: its mark was infinite, and no answer came.
    The next link carries both, and the links still add up."""
    pool = standard_table("pool-9ft")
    layout = Layout(pool, "nine-ball", (Ball("cue", 2.0, 1.0), Ball("1", 5.0, 1.2)), "1")
    found = solve_kick(layout, (Rail.FAR,), Stroke(3.0))
    assert isinstance(found, Aim)
    along = 12.0  # a heading that stands for the one along the rail
    real = Question.nose
    monkeypatch.setattr(Question, "nose", lambda self, at: math.inf if at == along else real(self, at))
    question = Question(layout, "1", (Rail.FAR,), 0.0, Rail.FAR)
    mirror = question.geometric(0.0)
    assert mirror is not None
    monkeypatch.setattr(chain, "_partial", lambda *_: found.best.direction)
    links = chain._links(question, Stroke(3.0), found.best, mirror, along)
    assert [link.link for link in links] == list(LINKS)
    assert links[0].shift == 0.0
    assert sum(link.shift for link in links) == pytest.approx(found.best.corrected.nose - found.best.mirror.nose)

"""The five tables: sizes from the rules of the games (each "from memory"), and what must hold on all of them."""

import math
import random
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from campaign.audit import gaps, raw, rises, struck
from tests.core.crowd import random_places, random_stroke

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import direction_to, from_pocket, inches
from fandle.core.lines.solution import Aim
from fandle.core.physics.cluster import energy, find_contacts, resolve
from fandle.core.physics.collision import collide
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import own_cue
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.condition import CLOTHS, OWN, RUBBERS, condition_of, conditioned
from fandle.core.table.figures import FIGURES, shown, with_shown
from fandle.core.table.model import Table
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_of
from fandle.core.table.standards import STANDARDS, standard_table, usual_game

NAMES = list(STANDARDS)
POCKETED = [name for name in NAMES if STANDARDS[name].pockets is not None]
INCH = 0.0254

# length, width, ball across (mm), nose height over ball diameter
PUBLISHED = [
    ("pool-9ft", 2540.0, 1270.0, 57.15, 0.635),  # WPA equipment specifications (from memory)
    ("pool-8ft", 2336.8, 1168.4, 57.15, 0.635),  # WPA, the same
    ("pool-7ft", 1981.2, 990.6, 57.15, 0.635),  # the usual bar box, makers vary (from memory)
    ("snooker-12ft", 3569.0, 1778.0, 52.5, 0.70),  # WPBSA table dimensions (from memory)
    ("carom-10ft", 2840.0, 1420.0, 61.5, 37 / 61.5),  # UMB rules for equipment (from memory)
]


@pytest.mark.parametrize(("name", "length", "width", "ball", "nose"), PUBLISHED)
def test_published_sizes(name: str, length: float, width: float, ball: float, nose: float) -> None:
    table = standard_table(name)
    assert table.length * 1000 == pytest.approx(length, abs=0.05)
    assert table.width * 1000 == pytest.approx(width, abs=0.05)
    assert table.ball_radius * 2000 == pytest.approx(ball, abs=0.005)
    assert table.nose_height / (2 * table.ball_radius) == pytest.approx(nose, abs=0.001)


def test_the_marks_of_a_snooker_table() -> None:
    """Baulk line 737 mm, D radius 292 mm, black 324 mm from the top cushion: WPBSA (from memory)."""
    table = standard_table("snooker-12ft")
    assert (table.sight_setback, table.marks, usual_game(table)) == (None, "marks", "snooker")
    place = {name: (x * table.diamond_x, y * table.diamond_y) for name, (x, y) in table.spots.items()}
    assert place["brown"] == pytest.approx((0.737, 0.889))
    assert place["green"][1] - place["yellow"][1] == pytest.approx(0.584)  # yellow at the right, seen from baulk
    assert place["blue"] == pytest.approx((3.569 / 2, 0.889))
    assert place["pink"][0] == pytest.approx(3.569 * 3 / 4)  # half-way from blue to the top cushion
    assert 3.569 - place["black"][0] == pytest.approx(0.324)
    assert table.head_string is not None
    assert table.head_string * table.diamond_x == pytest.approx(0.737)


def test_marks_by_tape() -> None:
    snooker = standard_table("snooker-12ft")
    assert from_pocket(snooker, Rail.FAR, 4.5) == (pytest.approx(3.569 / 16), "middle of the side-far pocket")
    assert from_pocket(snooker, Rail.FOOT, 3.5) == (pytest.approx(1.778 / 8), "foot-far corner")
    assert from_pocket(standard_table("carom-10ft"), Rail.NEAR, 3.0) == (pytest.approx(1.065), "head-near corner")
    assert [inches(x * INCH) for x in (16.25, 0.125, 3.0, 0.01)] == ["16¼ in", "⅛ in", "3 in", "0 in"]


@pytest.mark.parametrize("name", NAMES)
def test_every_table_answers(name: str) -> None:
    """Kicks solved, played, symmetric; two rails of a corner turn a natural line round."""
    table = standard_table(name)
    target = {"snooker": "black", "three-cushion": "red"}.get(usual_game(table), "7")
    layout = Layout(table, usual_game(table), (Ball("cue", 1.5, 1.0), Ball(target, 5.5, 3.0)), target)
    stroke = Stroke(speed_of(table, 3.0), 0.15)
    solved = 0
    for rails in ((Rail.FAR,), (Rail.FOOT,), (Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR), (Rail.NEAR, Rail.FOOT)):
        aim = solve_kick(layout, rails, stroke)
        if not isinstance(aim, Aim):
            assert len(rails) == 2
            continue
        solved += 1
        assert aim.best.miss_mm < (1.0 if len(rails) == 1 else 2.0)
        assert play(layout, stroke, aim.best.direction).first_ball == target
        assert sum(link.shift for link in aim.chain) == pytest.approx(
            aim.best.corrected.nose - aim.best.mirror.nose, abs=1e-9
        )
    assert solved >= 3
    mirrored = replace(layout, balls=tuple(replace(b, y=4 - b.y) for b in layout.balls))
    here, there = (
        solve_kick(lay, (rail,), st)
        for lay, rail, st in (
            (layout, Rail.FAR, stroke),
            (mirrored, Rail.NEAR, replace(stroke, side=-stroke.side)),
        )
    )
    assert isinstance(here, Aim)
    assert isinstance(there, Aim)
    assert here.best.corrected.nose == pytest.approx(there.best.corrected.nose, abs=1e-9)


@pytest.mark.parametrize("name", NAMES)
def test_shots_end_and_speed_is_felt_in_lengths(name: str) -> None:
    table = standard_table(name)
    lag = [lengths_of(table, speed_of(table, n)) for n in (1.0, 2.0, 3.0)]
    assert lag == pytest.approx([1.0, 2.0, 3.0], abs=1e-3)
    rng = random.Random(name)
    game = usual_game(table)
    ids = (
        ["red", "white"]
        if game == "three-cushion"
        else ["red1", "black", "blue"]
        if game == "snooker"
        else ["1", "2", "3"]
    )
    r_x, r_y = table.ball_radius / table.diamond_x, table.ball_radius / table.diamond_y
    for _ in range(60):
        balls = tuple(
            Ball(name, k * 2 + rng.uniform(0.6, 1.4), rng.uniform(0.5, 3.5)) for k, name in enumerate(["cue", *ids])
        )
        shot = play(
            Layout(table, game, balls), Stroke(rng.uniform(0.3, 9.0), rng.uniform(-0.3, 0.3)), rng.uniform(0, 7)
        )
        assert [ev.t for ev in shot.events] == sorted(ev.t for ev in shot.events)
        for place in shot.rest.values():
            if place is not None and table.pockets is None:
                assert r_x - 1e-9 <= place[0] <= 8 - r_x + 1e-9
                assert r_y - 1e-9 <= place[1] <= 4 - r_y + 1e-9
        if table.pockets is None:
            assert not shot.potted


@pytest.mark.parametrize("give", [0.0, 0.003])
@pytest.mark.parametrize("name", NAMES)
def test_the_engine_keeps_its_promises_on_every_table(name: str, give: float) -> None:
    """Ends; no overlap, nobody off the bed (1e-9 m); energy never rises; the mirrored shot is the mirrored shot."""
    table = replace(standard_table(name), cushion_compression=give)
    rng = random.Random(len(name) + int(give * 1e4))
    flip = np.array([1, -1, 1, -1, 1])  # vx, vy, wx, wy, wz across the table: spins turn the other way
    for _ in range(60):
        places = random_places(rng, rng.randint(1, 3 if table.pockets is None else 22), rng.choice([0.0, 0.5]), table)
        start = np.array(struck(random_stroke(rng), rng.uniform(0, 7)))
        played = raw(places, tuple(start), table)
        assert played.code == 0
        assert rises(played, table) < 1e-7
        between, to_nose = gaps(played, table)
        assert between > -1e-9
        assert to_nose > -1e-9
        if len(places) == 1:
            other = np.array([[places[0, 0], table.width - places[0, 1]]])
            twin = raw(other, tuple(start * flip * [1, 1, -1, -1, -1]), table)
            if len(twin.events) < 12:  # longer runs grow the last digit
                assert twin.state[0, 0] == pytest.approx(played.state[0, 0], abs=1e-6)
                assert table.width - twin.state[0, 1] == pytest.approx(played.state[0, 1], abs=1e-6)


def roll_at(table: Table, pocket: str, aside: float, lengths: float) -> list[str]:
    """Roll the cue ball square at a pocket, its line passing `aside` m beside the middle; the events' kinds."""
    mouth = next(m for m in mouths(table) if m.name == pocket)
    (mx, my), (ux, uy) = mouth.middle, mouth.axis
    x, y = mx - ux * 0.5 - uy * aside, my - uy * 0.5 + ux * aside
    layout = Layout(table, usual_game(table), (Ball("cue", x / table.diamond_x, y / table.diamond_y),))
    speed = speed_of(table, lengths)
    shot = approach(layout, Stroke(speed, 0.0, 0.4), math.atan2(uy, ux))
    return [ev.kind for ev in shot.events]


@pytest.mark.parametrize("lengths", [1.0, 3.5])
@pytest.mark.parametrize("pocket", ["foot-far", "head-near", "side-far", "side-near"])
@pytest.mark.parametrize("name", POCKETED)
def test_pockets_take_a_ball_in_the_middle_and_refuse_it_at_the_jaw(name: str, pocket: str, lengths: float) -> None:
    table = standard_table(name)
    assert roll_at(table, pocket, 0.0, lengths) == ["pocket"]
    assert table.pockets is not None
    half = (table.pockets.side_mouth if "side" in pocket else table.pockets.corner_mouth) / 2
    for way in (-1, 1):
        inside = half - table.ball_radius
        assert roll_at(table, pocket, way * 0.5 * inside, lengths)[-1] == "pocket"
        assert roll_at(table, pocket, way * (half - 0.2 * table.ball_radius), lengths)[0] in ("jaw", "rail")


def test_a_ball_written_into_a_rounded_jaw_is_refused() -> None:
    snooker = standard_table("snooker-12ft")
    Layout(snooker, "snooker", (Ball("cue", 0.145, 0.0605),))  # hanging over the corner
    with pytest.raises(BadInputError, match="jaw of the head-near pocket"):
        Layout(snooker, "snooker", (Ball("cue", 0.139, 0.0425),))


def test_snooker_jaws_are_rounder_and_tighter() -> None:
    """A fact of the trade: a ball that runs into a pool corner along the rail is refused at snooker."""
    share = {n: standard_table(n).pockets for n in ("pool-9ft", "snooker-12ft")}
    pool, snooker = share["pool-9ft"], share["snooker-12ft"]
    assert pool is not None
    assert snooker is not None
    assert pool.corner_mouth / 0.05715 > snooker.corner_mouth / 0.0525
    assert snooker.corner_point_radius > 10 * pool.corner_point_radius


@pytest.mark.parametrize("restitution", [0.85, 0.88])
@pytest.mark.parametrize(("cue", "third"), [(5, 4), (4, 4), (4, 6), (3, 4), (5, 6)])
def test_carom_products(cue: int, third: int, restitution: float) -> None:
    """Short-long-short on the carom table: physics.md point 3, common practice, within about ¼ diamond.

    Cue number 5 − x/2 on near, sighted at foot y = product/10, third rail (head) y = 4 − third/2;
    3.5 m/s, 0.28 R running (0.25 to 0.35 each hold for some of them).
    """
    table = replace(standard_table("carom-10ft"), cushion_restitution=restitution)
    layout = Layout(table, "three-cushion", (Ball("cue", max((5.0 - cue) * 2, 0.12), 0.12),))
    direction = direction_to(table, Rail.FOOT, layout.metres(layout.cue), cue * third / 10, "sight")
    shot = approach(layout, Stroke(3.5, -0.28), direction, most_rails=4)
    rails = [ev for ev in shot.events if ev.rail is not None]
    assert [ev.rail for ev in rails[:3]] == [Rail.FOOT, Rail.FAR, Rail.HEAD]
    assert rails[2].y == pytest.approx(4 - third / 2, abs=0.32)


def test_a_heavier_cue_ball_drives_through() -> None:
    """Head on: v' = v·(m − e·M)/(m + M) for the cue ball, v·(1 + e)·m/(m + M) for the other (elementary mechanics)."""
    table = replace(standard_table("pool-7ft"), name="bar", cue_ball_mass=0.170 * 1.15, ball_restitution=0.95)
    m, big, e = 1.15, 1.0, 0.95
    layout = Layout(table, "eight-ball", (Ball("cue", 3.0, 2.0), Ball("1", 3.4, 2.0)), "1")
    shot = play(layout, Stroke(4.0), 0.0)
    hit = next(ev for ev in shot.events if ev.kind == "ball")
    after_cue = next(q for q in shot.paths["cue"] if q.t >= hit.t)
    after_one = shot.paths["1"][0]
    speed = [2 * math.dist(q.control, q.start) * table.diamond_x / q.lasts for q in (after_cue, after_one)]
    assert speed[0] == pytest.approx(hit.speed * (m - e * big) / (m + big), rel=1e-3)
    assert speed[1] == pytest.approx(hit.speed * (1 + e) * m / (m + big), rel=1e-3)
    even = play(replace(layout, table=standard_table("pool-7ft")), Stroke(4.0), 0.0)
    reach = [s.rest["cue"] for s in (shot, even)]
    assert reach[0] is not None
    assert reach[1] is not None
    assert reach[0][0] > reach[1][0]  # it follows on further


@pytest.mark.parametrize("factor", [0.85, 1.0, 1.12, 1.25])
def test_momentum_and_energy_with_a_heavier_cue_ball(factor: float) -> None:
    table = replace(standard_table("pool-9ft"), name="x", cue_ball_mass=0.170 * factor)
    p, r, rng = table.params(), table.ball_radius, random.Random(5)
    for _ in range(300):
        a, b = np.zeros(19), np.zeros(19)
        angle = rng.uniform(0, 6.28)
        b[:2] = 2 * r * math.cos(angle), 2 * r * math.sin(angle)
        a[2:7] = [rng.uniform(-3, 3) for _ in range(5)]
        if a[2] * b[0] + a[3] * b[1] <= 0:
            a[2:4] *= -1
        both = np.array([a, b])
        before, push = energy(both, np.array([0, 1]), 2, p), factor * a[2:4] + b[2:4]
        collide(both[0], both[1], 0.95, 1 / factor, p)
        assert factor * both[0, 2:4] + both[1, 2:4] == pytest.approx(push, abs=1e-12)
        assert energy(both, np.array([0, 1]), 2, p) <= before + 1e-12
    s = np.zeros((4, 19))
    s[:, 0] = [0, 2 * r, 4 * r, 6 * r]
    s[0, 2] = 2.0
    members = np.arange(4)
    before = energy(s, members, 4, p)
    resolve(s, members, 4, find_contacts(s, members, 4, p), 0.95, p)
    assert factor * s[0, 2] + s[1:, 2].sum() == pytest.approx(2.0 * factor, abs=1e-12)
    assert energy(s, members, 4, p) <= before


def test_conditions_by_words() -> None:
    """trade: new cloth 0.14, 0.15, 0.008; damp 0.25, 0.25, 0.014 (common practice, no published source)."""
    pool = standard_table("pool-9ft")
    new, damp = conditioned(pool, "new", "standard"), conditioned(pool, "damp", "standard")
    assert (new.cushion_friction, new.cloth_sliding, new.cloth_rolling) == (0.14, 0.15, 0.008)
    assert (damp.cushion_friction, damp.cloth_sliding, damp.cloth_rolling) == (0.25, 0.25, 0.014)
    for name in NAMES:
        table = standard_table(name)
        assert condition_of(table) == ("standard", "standard")
        for cloth in CLOTHS:
            for rubber in RUBBERS:
                made = conditioned(table, cloth, rubber)
                assert condition_of(made) == (cloth, rubber) or (cloth, rubber) == ("standard", "standard")
                assert made.length == table.length
    own = replace(pool, cloth_rolling=0.011)
    assert condition_of(own) == (OWN, "standard")
    assert conditioned(own, OWN, "soft").cloth_rolling == 0.011
    with pytest.raises(BadInputError, match="unknown cloth 'velvet': use one of"):
        conditioned(pool, "velvet", "standard")
    with pytest.raises(BadInputError, match="unknown rubber"):
        conditioned(pool, "new", "stone")


def test_words_do_what_they_say() -> None:
    """New cloth runs three-rail running tracks long, damp short (trade, corrections)."""
    pool = standard_table("pool-9ft")

    def third(table: Table) -> float:
        layout = Layout(table, "nine-ball", (Ball("cue", 0.2, 0.2),))
        direction = direction_to(table, Rail.FAR, layout.metres(layout.cue), 6.0, "sight")
        shot = approach(layout, Stroke(4.0, 0.4, 0.2), direction, most_rails=3)
        rails = [ev for ev in shot.events if ev.rail is not None]
        return rails[2].x

    standard = third(pool)
    assert third(conditioned(pool, "new", "standard")) < standard  # longer: further towards the head
    assert third(conditioned(pool, "damp", "standard")) > standard
    assert lengths_of(conditioned(pool, "standard", "dead"), 3.0) < lengths_of(pool, 3.0)
    assert lengths_of(conditioned(pool, "standard", "lively"), 3.0) > lengths_of(pool, 3.0)


@pytest.mark.parametrize("name", NAMES)
def test_figures_as_shown_go_there_and_back(name: str) -> None:
    table = standard_table(name)
    assert with_shown(table, shown(table)) is table
    changed = with_shown(table, {"cushion_compression": 2.5, "ball_radius": 60.0, "cloth_sliding": 0.21})
    assert (changed.cushion_compression, changed.ball_radius, changed.cloth_sliding) == (0.0025, 0.03, 0.21)
    assert changed.width == table.width
    for figure in FIGURES:
        value = figure.of(table)
        low, high = figure.limits
        assert value is None or low <= value <= high
        assert figure.how.says.endswith(".")
    with pytest.raises(BadInputError, match=r"rubber, give: 9 is outside 0 to 6 mm per m/s"):
        with_shown(table, {"cushion_compression": 9.0})
    with pytest.raises(BadInputError, match="this table has no number 'colour'"):
        with_shown(table, {"colour": 1.0})
    if table.pockets is None:
        with pytest.raises(BadInputError, match="no number 'pockets"):
            with_shown(table, {"pockets.side_mouth": 130.0})


@pytest.mark.parametrize(
    ("change", "sentence"),
    [
        ({"corner_mouth": 0.05}, "no ball of 57.15 mm goes through"),
        ({"corner_cut_deg": 60.0}, "corner_cut_deg 60 is outside 95 to 165"),
        (
            {"corner_mouth": 0.25, "corner_point_radius": 0.15, "corner_cut_deg": 95.0, "side_mouth": 0.25},
            "no straight cushion",
        ),
    ],
)
def test_pockets_that_cannot_be(change: dict[str, float], sentence: str) -> None:
    table = standard_table("pool-7ft" if "straight" in sentence else "pool-9ft")
    assert table.pockets is not None
    small: dict[str, Any] = {"length": 1.2, "width": 0.6} if "straight" in sentence else {}
    with pytest.raises(BadInputError, match=sentence):
        replace(table, pockets=replace(table.pockets, **change), **small)


def test_cue_balls_and_cues_that_cannot_be() -> None:
    with pytest.raises(BadInputError, match="times their mass"):
        replace(standard_table("pool-9ft"), cue_ball_mass=0.3)
    assert own_cue("Ash", 16.0, 0.0095).tip == 0.0095
    for name, ratio, tip, sentence in (
        ("house", 20.0, 0.013, "comes with the program"),
        (" ", 20.0, 0.013, "needs a name"),
        ("x", 1.0, 0.013, "give 5 to 200"),
        ("x", 20.0, 0.13, "give 8 to 15"),
    ):
        with pytest.raises(BadInputError, match=sentence):
            own_cue(name, ratio, tip)

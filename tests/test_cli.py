"""The command line as scripts use it: JSON on stdout, exit codes, one sentence for bad input."""

import json
import math
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from tests.conftest import CONTRACT_LAYOUT, fandle

from fandle.cli import main
from fandle.core.systems.catalogue import METHODS
from fandle.core.table.model import Table
from fandle.core.techniques.registry import TECHNIQUES
from fandle.formats.tables import table_json


class Ran:
    """What one call left behind."""

    def __init__(self, code: int, out: str, err: str) -> None:
        self.code, self.out, self.err = code, out, err

    def json(self) -> Any:
        return json.loads(self.out)


@pytest.fixture
def call(capsys: pytest.CaptureFixture[str]) -> Any:
    """Call the command line in this process."""

    def run(*args: str) -> Ran:
        with pytest.raises(SystemExit) as ended:
            main(list(args))
        captured = capsys.readouterr()
        return Ran(int(ended.value.code or 0), captured.out, captured.err)

    return run


def test_aim_answers_as_the_contract_says(call: Any, layout_file: Path) -> None:
    answer = call("aim", str(layout_file), "--rails", "far", "--speed", "3", "--side", "0.17", "--json").json()
    assert answer["solved"] is True
    for frame in ("mirror", "natural", "corrected"):
        assert set(answer[frame]) == {"nose", "sight", "centre"}
    assert set(answer["window_mm"]) == {"less", "more"}
    assert set(answer["cushions"][0]) == {"rail", "at", "in_deg", "out_deg"}
    assert set(answer["chain"][0]) == {"link", "shift"}
    assert answer["others"] == []
    assert sum(x["shift"] for x in answer["chain"]) == pytest.approx(
        answer["corrected"]["nose"] - answer["mirror"]["nose"]
    )


def test_refusals_exit_one_with_the_json(call: Any, layout_file: Path) -> None:
    ran = call("aim", str(layout_file), "--rails", "foot", "--json")
    assert ran.code == 1
    assert ran.json()["reason_code"] == "blocked"
    assert call("aim", str(layout_file), "--rails", "foot").out.startswith("no: ")
    ran = call("count", str(layout_file), "--method", "M3", "--rails", "head", "--json")
    assert ran.code == 1
    assert ran.json()["applies"] is False


def test_simulate_answers_as_the_contract_says(call: Any, layout_file: Path) -> None:
    answer = call("simulate", str(layout_file), "--aim", "far:3@nose", "--speed", "3", "--json").json()
    assert [event["kind"] for event in answer["events"][:2]] == ["rail", "ball"]
    assert {event["ball"] for event in answer["events"] if event["kind"] == "stop"} == {"cue", "7"}
    first = answer["events"][0]
    assert {"t", "kind", "ball", "rail", "x", "y", "speed", "speed_after"} <= set(first)
    assert first["y"] == pytest.approx(4 - 0.09)
    assert answer["rest"]["2"] == {"x": 3.2, "y": 0.5}
    assert set(answer["rest"]) == {"cue", "7", "2"}
    by_degrees = call(
        "simulate",
        str(layout_file),
        "--direction",
        str(math.degrees(math.atan2(3.45, 1.9))),
        "--speed",
        "3",
        "--json",
    )
    assert by_degrees.json()["events"][0]["x"] == pytest.approx(first["x"])


def test_strokes_one_a_line(call: Any, layout_file: Path, tmp_path: Path) -> None:
    path = tmp_path / "strokes.jsonl"
    path.write_text('{"aim": "far:3@nose", "speed": 3}\n\n{"direction": 90, "speed": 2, "side": 0.2}\n')
    lines = call("simulate", str(layout_file), "--strokes", str(path), "--json").out.splitlines()
    assert len(lines) == 2
    one = call("simulate", str(layout_file), "--aim", "far:3@nose", "--speed", "3", "--json").json()
    assert json.loads(lines[0]) == one
    path.write_text('{"aim": "far:3@nose"}\n{"aim": "far:3@nose", "speed": -1}\n')
    ran = call("simulate", str(layout_file), "--strokes", str(path), "--json")
    assert (ran.code, ran.out) == (2, "")
    assert "line 2" in ran.err


def test_counts(call: Any, layout_file: Path) -> None:
    one = call("count", str(layout_file), "--method", "m3", "--rails", "far", "--json").json()
    assert one["steps"] == ["4.2 ÷ 2 = 2.1"]
    assert one["lands"]["side"] in ("short", "long", "on")
    every = call("count", str(layout_file), "--all", "--json").json()
    assert {c["method"] for c in every} == {*METHODS, *TECHNIQUES}
    assert "lands" in call("count", str(layout_file), "--all").out


def test_a_test_shot_shifts_the_tables_own_numbers(call: Any, tmp_path: Path) -> None:
    track = tmp_path / "track.json"
    balls = [{"id": "cue", "x": 1.2, "y": 0.5}, {"id": "7", "x": 5.4, "y": 0.09}]
    track.write_text(
        json.dumps(
            {"format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "target": "7", "balls": balls}
        )
    )
    over = ("count", str(track), "--method", "M14", "--rails", "far,foot,near", "--json")
    plain, longer = call(*over).json()["on_table"], call(*over, "--carry", "0.25").json()["on_table"]
    assert "carried" not in plain
    assert longer["carried"] == 0.25
    assert abs(longer["own"] - plain["own"]) == pytest.approx(2.5)  # ten numbers a diamond


def test_tables(call: Any, pool: Table) -> None:
    assert call("table", "pool-9ft", "--json").json() == json.loads(json.dumps(table_json(pool)))
    names = ["pool-9ft", "pool-8ft", "pool-7ft", "snooker-12ft", "carom-10ft"]
    assert call("table", "--json").json() == names
    assert "cushion_friction" in call("table", "pool-9ft").out
    assert call("table").out.split() == names


def test_a_table_made_in_words_travels_and_answers_the_same(call: Any, tmp_path: Path) -> None:
    """Made, written, read again, put into a layout: the same answer to the last digit."""
    made = call("table", "pool-7ft", "--cloth", "worn", "--rubber", "soft", "--called", "Front bar", "--json").json()
    assert (made["name"], made["standard"], made["cushion_compression"]) == ("Front bar", "pool-7ft", 0.0025)
    path = tmp_path / "bar.table.json"
    path.write_text(json.dumps(made))
    assert call("table", str(path), "--json").json() == made
    assert call("table", str(path), "--cloth", "damp", "--json").json()["cloth_sliding"] == 0.25
    layout = tmp_path / "x.fandle.json"
    layout.write_text(json.dumps({**CONTRACT_LAYOUT, "table": made}))
    answers = [call("aim", str(layout), "--rails", "far", "--speed", "4", "--json").json() for _ in range(2)]
    assert answers[0] == answers[1]
    assert next(link for link in answers[0]["chain"] if link["link"] == "compression")["shift"] > 0.03
    bad = call("table", "pool-7ft", "--cloth", "velvet")
    assert (bad.code, "unknown cloth 'velvet'" in bad.err) == (2, True)
    assert call("table", str(tmp_path / "none.json")).code == 2


def test_standard_input_and_a_home_made_table(pool: Table) -> None:
    """A worn table travels in its layout and moves the aim; it is read from standard input."""
    worn = {**CONTRACT_LAYOUT, "table": {**table_json(pool), "name": "worn", "cushion_friction": 0.3}}
    done = fandle("aim", "-", "--rails", "far", "--json", stdin=json.dumps(worn))
    links = {link["link"]: link["shift"] for link in json.loads(done.stdout)["chain"]}
    assert done.returncode == 0
    assert abs(links["table"]) > 0.01


def test_a_three_rail_kick_holds_when_it_is_played_again(call: Any, tmp_path: Path) -> None:
    path = tmp_path / "open.fandle.json"
    balls = [{"id": "cue", "x": 0.6, "y": 0.4}, {"id": "7", "x": 6.0, "y": 0.9}, {"id": "2", "x": 3.2, "y": 0.9}]
    path.write_text(json.dumps({**CONTRACT_LAYOUT, "balls": balls}))
    stroke = ["--speed", "4.4", "--side", "0.2"]
    aim = call("aim", str(path), "--rails", "far,foot,near", *stroke, "--json").json()
    assert aim["solved"]
    assert [c["rail"] for c in aim["cushions"]] == ["far", "foot", "near"]
    assert sum(link["shift"] for link in aim["chain"]) == pytest.approx(
        aim["corrected"]["nose"] - aim["mirror"]["nose"]
    )
    done = fandle("simulate", str(path), "--direction", repr(aim["direction"]), *stroke, "--json")
    events = [ev for ev in json.loads(done.stdout)["events"] if ev["ball"] == "cue"]
    assert [ev.get("rail") for ev in events[:3]] == ["far", "foot", "near"]
    assert (events[3]["kind"], events[3]["other"]) == ("ball", "7")


def test_a_bank_answers_as_the_contract_says_and_goes_in(call: Any, tmp_path: Path) -> None:
    path = tmp_path / "bank.fandle.json"
    balls = [{"id": "cue", "x": 3.0, "y": 2.5}, {"id": "7", "x": 5.0, "y": 1.2}, {"id": "2", "x": 1.0, "y": 3.0}]
    path.write_text(json.dumps({**CONTRACT_LAYOUT, "balls": balls}))
    args = ["aim", str(path), "--rails", "near", "--kind", "bank", "--speed", "3"]
    aim = call(*args, "--json").json()
    assert aim["solved"]
    assert aim["pocket"] == "foot-far"
    assert aim["miss_mm"] < 1
    assert set(aim["object_contact"]) == {"cut_deg", "ghost"}
    assert set(aim["object_contact"]["ghost"]) == {"x", "y"}
    shot = json.loads(
        fandle("simulate", str(path), "--direction", repr(aim["direction"]), "--speed", "3", "--json").stdout
    )
    seven = [ev for ev in shot["events"] if ev["ball"] == "7"]
    assert [ev["kind"] for ev in seven] == ["rail", "pocket"]
    assert (seven[0]["rail"], seven[1]["pocket"]) == ("near", "foot-far")
    assert shot["rest"]["7"] is None
    assert "into foot-far" in call(*args).out
    refused = call(*args, "--pocket", "head-near", "--json")
    assert refused.code == 1
    assert refused.json()["reason_code"] in ("no_such_line", "jaw", "short_of_speed")


def test_a_kick_and_a_straight_shot_that_pot_drop_the_ball_when_simulated(call: Any, tmp_path: Path) -> None:
    path = tmp_path / "pot.fandle.json"
    balls = [{"id": "cue", "x": 2, "y": 1}, {"id": "7", "x": 6.2, "y": 2.9}, {"id": "4", "x": 7.93, "y": 0.06}]
    layout = {"format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "balls": balls, "target": "7"}
    path.write_text(json.dumps(layout), "utf-8")
    for asked in (("--rails", "near"), ("--kind", "straight", "--rails", "none"), ("--rails", "far", "--target", "4")):
        args = ["aim", str(path), *asked, "--pocket", "any", "--speed", "3"]
        answer = call(*args, "--json").json()
        pot, target = answer["pot"], answer["target"]
        direction = f"--direction={answer['direction']!r}"
        shot = call("simulate", str(path), direction, "--speed", "3", "--json").json()
        assert shot["rest"][target] is None
        assert (shot["rest"]["cue"] is None) == pot["in_off"]
        assert pot["through"][0] == target
        assert abs(answer["hit"]) < 1
        assert f"in {pot['pocket']}: " in call(*args).out
    assert "parts" in answer  # the 4 hangs
    none = call("aim", str(path), "--kind", "straight", "--pocket", "head-near", "--json")
    assert (none.code, none.json()["reason_code"]) == (1, "no_pot")


def test_the_mark_is_held(call: Any, layout_file: Path) -> None:
    args = ["aim", str(layout_file), "--rails", "far", "--speed", "3", "--hold", "far:2.75@nose"]
    held = call(*args, "--json").json()
    assert held["solved"]
    assert held["change"] == "side"
    again = call(
        "aim", str(layout_file), "--rails", "far", "--speed", "3", f"--side={held['value']!r}", "--json"
    ).json()
    assert again["corrected"]["nose"] == pytest.approx(2.75, abs=1e-4)
    assert "hold the mark and play side" in call(*args).out
    far_off = call("aim", str(layout_file), "--rails", "far", "--hold", "far:0.5", "--change", "up", "--json")
    assert far_off.code == 1
    assert far_off.json()["solved"] is False


@pytest.mark.parametrize(
    ("args", "words"),
    [
        (["aim", "LAYOUT"], "--rails"),
        (["aim", "LAYOUT", "--rails", "up"], "unknown rail 'up'"),
        (["aim", "LAYOUT", "--rails", "far,foot,near,head,far"], "5 rails: give at most 4"),
        (["aim", "LAYOUT", "--rails", "far,far"], "twice running"),
        (["aim", "LAYOUT", "--rails", "far", "--kind", "curve"], "unknown kind 'curve'"),
        (["aim", "LAYOUT", "--rails", "far", "--pocket", "side-far", "--hit", "0.2"], "a pot has its own thickness"),
        (["aim", "LAYOUT", "--rails", "far", "--kind", "bank", "--pocket", "hole"], "unknown pocket 'hole'"),
        (["aim", "LAYOUT", "--rails", "far", "--kind", "bank", "--hit", "0.2"], "leave --hit out"),
        (["aim", "LAYOUT", "--rails", "far", "--kind", "bank", "--hold", "far:3"], "leave --hold or the pocket out"),
        (["aim", "LAYOUT", "--rails", "far", "--kind", "straight"], "a straight shot goes over no rail"),
        (["aim", "LAYOUT", "--rails", "far", "--hold", "far:3", "--change", "cue"], "side, up, speed"),
        (["count", "LAYOUT", "--method", "M3", "--kind", "massé"], "use kick, bank, straight"),
        (["count", "LAYOUT", "--method", "M14", "--carry", "3"], "more than a table's own correction"),
        (["count", "LAYOUT", "--method", "M3", "--first", "2"], "a combination pots: say where"),
        (["count", "LAYOUT", "--kind", "bank", "--all", "--first", "2", "--pocket", "any"], "with counts of kicks"),
        (["count", "LAYOUT", "--method", "M20", "--hit", "0.5"], "a technique has its own thickness"),
        (["count", "LAYOUT", "--method", "M3", "--kind", "bank", "--pocket", "hole"], "unknown pocket"),
        (["simulate", "LAYOUT", "--direction", "0", "--elevation", "45", "--speed", "5"], "leaps"),
        (["aim", "LAYOUT", "--rails", "far", "--speed", "13"], "faster than any break"),
        (["aim", "LAYOUT", "--rails", "far", "--side", "0.4", "--up", "0.4"], "miscue"),
        (["aim", "LAYOUT", "--rails", "far", "--cue", "broom"], "unknown cue"),
        (["aim", "nowhere.json", "--rails", "far"], "cannot read 'nowhere.json'"),
        (["simulate", "LAYOUT"], "--aim far:3@nose"),
        (["simulate", "LAYOUT", "--aim", "far:x"], "not understood"),
        (["simulate", "LAYOUT", "--aim", "far:3@moon"], "unknown frame"),
        (["simulate", "LAYOUT", "--aim", "far:3", "--direction", "4"], "one of"),
        (["simulate", "LAYOUT", "--strokes", "nowhere"], "cannot read"),
        (["count", "LAYOUT"], "choose one"),
        (["count", "LAYOUT", "--method", "M99"], "unknown method"),
        (["table", "moon"], "unknown table"),
        (["dance"], "No such command"),
    ],
)  # fmt: skip
def test_bad_input_is_one_sentence_and_exit_two(call: Any, layout_file: Path, args: list[str], words: str) -> None:
    ran = call(*[str(layout_file) if a == "LAYOUT" else a for a in args])
    assert ran.code == 2
    assert ran.out == ""
    assert words in ran.err
    assert ran.err.startswith("fandle: ")
    assert ran.err.count("\n") == 1


@settings(
    max_examples=60,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
@given(text=st.text(max_size=60) | st.binary(max_size=40).map(lambda b: b.decode("latin-1")), speed=st.floats())
def test_any_file_and_any_speed_give_an_answer_or_a_sentence(
    call: Any, tmp_path: Path, text: str, speed: float
) -> None:
    path = tmp_path / "x.json"
    path.write_text(text, encoding="utf-8", errors="surrogatepass")
    assert call("aim", str(path), "--rails", "far").code == 2
    path.write_text(json.dumps(CONTRACT_LAYOUT))
    ran = call("aim", str(path), "--rails", "far", f"--speed={speed!r}")
    assert ran.code in (0, 1, 2)
    assert "Traceback" not in ran.err


@settings(
    max_examples=80, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow]
)
@given(
    name=st.sampled_from(["direction", "speed", "side", "up", "elevation", "hit"]),
    value=st.floats() | st.sampled_from(["", "x", "1e999", "-", "½"]),
)
def test_any_number_gives_an_answer_or_a_sentence(call: Any, tmp_path: Path, name: str, value: Any) -> None:
    path = tmp_path / "x.json"
    path.write_text(json.dumps(CONTRACT_LAYOUT))
    verb = ["aim", str(path), "--rails", "far"] if name == "hit" else ["simulate", str(path)]
    if name not in ("hit", "direction"):
        verb += ["--aim", "far:3"]
    ran = call(*verb, f"--{name}={value}")
    assert ran.code in (0, 1, 2)
    assert (ran.err.count("\n") == 1) == (ran.code == 2)


@pytest.mark.parametrize("verb", ["simulate", "aim", "count", "table", "serve"])
def test_every_verb_has_help_with_an_example(call: Any, verb: str) -> None:
    ran = call(verb, "--help")
    assert ran.code == 0
    assert f"fandle {verb}" in ran.out
    assert "Example" in ran.out
    assert "--json" in ran.out


@pytest.mark.parametrize("rails", ["straight", "near", "head", "far,near"])
def test_a_frozen_cue_ball_is_answered(tmp_path: Path, rails: str) -> None:
    path = tmp_path / "frozen.fandle.json"
    balls = [{"id": "cue", "x": 3, "y": 2}, {"id": "1", "x": 3.1196, "y": 2.1345}]
    path.write_text(json.dumps({**CONTRACT_LAYOUT, "balls": balls, "target": "1"}))
    done = fandle("aim", str(path), "--rails", rails, "--json")
    assert done.returncode in (0, 1), done.stderr
    answer = json.loads(done.stdout)
    assert answer["solved"] == (done.returncode == 0)
    if rails == "straight":
        assert answer["push"] is True
        assert "this is a push" in fandle("aim", str(path), "--rails", rails).stdout


def test_a_window_at_a_rail_ends_with_it(tmp_path: Path) -> None:
    path = tmp_path / "on-the-rail.fandle.json"
    balls = [{"id": "cue", "x": 3.3674, "y": 0.09}, {"id": "1", "x": 3.1676, "y": 0.1678}]
    path.write_text(json.dumps({**CONTRACT_LAYOUT, "balls": balls, "target": "1"}))
    done = fandle("aim", str(path), "--rails", "near", "--speed", "1", "--side=-0.3", "--json")
    answer = json.loads(done.stdout)
    scale = 317.5  # mm a diamond
    assert 0 <= answer["window_mm"]["less"] <= answer["corrected"]["nose"] * scale + 1e-6
    assert 0 <= answer["window_mm"]["more"] <= (8 - answer["corrected"]["nose"]) * scale + 1e-6


@pytest.mark.parametrize(
    ("arguments", "text", "sentence"),
    [
        (["simulate", "FILE", "--aim", "far:44@nose"], None, "give at most 2 diamonds beyond its ends"),
        (["aim", "FILE", "--rails", "far", "--hold", "far:-3@nose"], None, "give at most 2 diamonds beyond its ends"),
        (["aim", "FILE", "--rails", "far"], '{"x": 1' + "0" * 400 + "}", "the number is too large"),
        (["aim", "FILE", "--rails", "far"], '{"x": 1' + "0" * 5000 + "}", "more than 1000 digits"),
        (["aim", "FILE", "--rails", "far"], '{"x": 1.1, "other": "\\ud800"}', "half a character"),
        (["table", "pool-9ft", "--called", "\udcff"], None, "half a character"),
    ],
)
def test_what_no_float_and_no_file_takes_is_one_sentence(
    layout_file: Path, arguments: list[str], text: str | None, sentence: str
) -> None:
    if text is not None:
        whole = layout_file.read_text()
        layout_file.write_text(whole.replace('{"id": "cue", "x": 1.1', text.rstrip("}") + ', "id": "cue"', 1))
    done = fandle(*(str(layout_file) if word == "FILE" else word for word in arguments))
    assert done.returncode == 2
    assert done.stderr.startswith("fandle: ")
    assert sentence in done.stderr
    assert done.stderr.count("\n") == 1
    assert done.stdout == ""


def test_whatever_aim_prints_at_the_sights_is_accepted(layout_file: Path) -> None:
    aim = json.loads(fandle("aim", str(layout_file), "--rails", "far", "--json").stdout)
    for frame in ("nose", "sight", "centre"):
        done = fandle("simulate", str(layout_file), "--aim", f"far:{aim['corrected'][frame]}@{frame}", "--json")
        events = json.loads(done.stdout)["events"]
        assert [(event["kind"], event.get("other")) for event in events[:2]] == [("rail", None), ("ball", "7")]


def test_what_is_kept_is_exported_backed_up_and_not_restored_from_nothing(tmp_path: Path) -> None:
    env = {"FANDLE_HOME": str(tmp_path / "50 % #1?")}
    assert json.loads(fandle("export", "-", env=env).stdout) == {"format": "fandle-log/1", "attempts": []}
    assert fandle("backup", str(tmp_path / "copy"), "--json", env=env).returncode == 0
    again = fandle("backup", str(tmp_path / "copy"), env=env)
    assert (again.returncode, "exists already" in again.stderr) == (2, True)
    assert fandle("restore", str(tmp_path / "copy"), env=env).returncode == 0
    for verb in ("restore", "import"):
        missing = fandle(verb, str(tmp_path / "nothing"), env=env)
        assert (missing.returncode, missing.stdout, missing.stderr.count("\n")) == (2, "", 1)
    nobody = fandle("export", "-", env={"FANDLE_HOME": "~nosuchuser"})
    assert (nobody.returncode, "a user nobody knows" in nobody.stderr) == (2, True)


def test_a_plan_on_the_command_line(call: Any, tmp_path: Path) -> None:
    """JSON with everything a line needs; a player's file; states; a goal with zones; nothing possible is exit 1."""
    path, player = tmp_path / "p.fandle.json", tmp_path / "me"
    layout = {**CONTRACT_LAYOUT, "game": "straight"}
    path.write_text(json.dumps(layout))
    fast = ("plan", str(path), "--strokes", "this", "--draws", "40", "--json")
    found = call(*fast).json()
    assert set(found["on"]) == {"7", "2"}
    assert found["lines"][0]["target"] == "7"
    player.write_text(json.dumps({**found["player"], "direction_deg": 0.05, "from": "typed"}))
    steady = call(*fast, "--player", str(player)).json()
    assert (steady["player"]["direction_deg"], steady["player"]["from"]) == (0.05, "typed")
    path.write_text(json.dumps({**layout, "game": "eight-ball"}))
    assert call(*fast, "--state", "group=low").json()["on"] == ["7", "2"]
    assert call(*fast, "--state", "group=high").code == 1  # none of that group is left, and no 8
    path.write_text(json.dumps(layout))
    zoned = call(*fast, "--zone", "6,2,1").json()
    assert zoned["lines"] != found["lines"]
    chained = call(*fast, "--goal", "pot", "--next", "2").json()
    assert any((line["leave"]["next"] or {}).get("ball") == "2" for line in chained["lines"])
    assert all(line["wanted"]["p"] <= line["chance"]["pot"]["p"] for line in chained["lines"])
    said = call(*fast[:-1])
    assert "%" in said.out.splitlines()[1]


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (("--goal", "win"), "unknown goal"),
        (("--draws", "0"), "give 1 to"),
        (("--seed", "-1"), "give 0 or more"),
        (("--player", "nobody"), "use new, club, strong"),
        (("--state", "group=low"), "only eight-ball has groups"),
        (("--zone", "6,2"), "write x,y,r"),
        (("--next", "15"), "not on the table"),
        (("--pocket", "foot-near"), "a pocket belongs to a pot"),
        (("--strokes", "every"), "use this or usual"),
    ],
)
def test_a_plan_refuses_with_one_sentence(call: Any, layout_file: Path, more: tuple[str, ...], says: str) -> None:
    ran = call("plan", str(layout_file), *more)
    assert ran.code == 2
    assert says in ran.err
    assert len(ran.err.strip().splitlines()) == 1


def test_a_table_check_on_the_command_line(call: Any, tmp_path: Path) -> None:
    """The reference shots are listed; a file of landings is fitted; the fitted table is one like any other."""
    listed = call("check", "--list", "--table", "pool-8ft", "--json").json()
    assert {"id", "say", "layout", "stroke", "watch"} <= set(listed[0])
    assert listed[0]["layout"]["table"] == "pool-8ft"
    shots = [
        {"shot": "plain", "landed": [{"rail": "far", "at": 2.95}, {"rail": "near", "at": at}], "rest": None}
        for at in (5.05, 5.1)
    ]
    own = {
        "shot": {"layout": CONTRACT_LAYOUT, "stroke": {"speed": 3.0}, "direction": 60.0},
        "landed": [{"rail": "far", "at": 2.9}],
    }
    path, out = tmp_path / "evening.json", tmp_path / "fitted.json"
    path.write_text(json.dumps({"format": "fandle-check/1", "table": "pool-9ft", "shots": [*shots, own]}))
    found = call("check", "pool-9ft", "--shots", str(path), "--json", "--out", str(out)).json()
    assert found["verdict"]["who"] == "table"
    assert found["plays"][0]["off_diamonds"] < -0.1
    assert all(0.0 <= number["learned"] <= 1.0 for number in found["parameters"])
    assert [shot["shot"] for shot in found["shots"]] == ["plain", "plain", "own"]
    fitted = call("table", str(out), "--json").json()
    assert fitted["fitted"]["names"] == [number["name"] for number in found["parameters"]]
    layout = tmp_path / "l.fandle.json"
    layout.write_text(json.dumps({**CONTRACT_LAYOUT, "table": fitted}))
    links = {
        link["link"]: link["shift"] for link in call("aim", str(layout), "--rails", "far", "--json").json()["chain"]
    }
    assert abs(links["table"]) > 0.02
    assert "It plays like" in call("check", "pool-9ft", "--shots", str(path)).out


def test_a_diagnosis_on_the_command_line(call: Any, layout_file: Path) -> None:
    asked = ("diagnose", str(layout_file), "--rails", "far", "--aim", "far:3@nose")
    found = call(*asked, "--landed", "1.2 short", "--touched", "far:2.9", "--stopped", "2,3", "--json").json()
    assert sum(cause["share"] for cause in found["causes"]) == pytest.approx(1.0)
    assert {cause["cause"] for cause in found["causes"]} == {"mark", "speed", "side", "height", "table"}
    assert found["next"][0]["change"] == "mark"
    assert call(*asked, "--landed", "on", "--json").json()["next"][0]["change"] == "none"
    assert "next: " in call(*asked, "--landed", "0.8 long").out
    for more, said in (
        (("--landed", "bad"), "write 0.5 short"),
        (("--landed", "on", "--met", "top"), "use left, full or right"),
        (("--landed", "on", "--touched", "far"), "write rail:diamonds"),
        (("--landed", "on", "--stopped", "9,9"), "write x,y in diamonds"),
    ):
        ran = call(*asked, *more)
        assert (ran.code, said in ran.err) == (2, True)

"""The practice room over HTTP: the plan with its reasons, drills and tries, the quiz, what changed."""

import json
from datetime import UTC, datetime, timedelta
from typing import Any, cast
from uuid import uuid4

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from fandle.core.practice.cards import SUM, TOPICS, Deck
from fandle.core.practice.drills import DRILLS
from fandle.core.practice.quiz import question
from fandle.core.systems.catalogue import TITLES
from fandle.core.systems.halving import METHOD as HALVING
from fandle.core.table.standards import STANDARDS
from fandle.store.practice import Answered, Try, counts, last_played, note_answer, note_tries, take_back, tries
from fandle.web import address
from fandle.web.practice.changes import progress_model

TABLE = "pool-9ft"


def asked(client: TestClient, url: str, **body: Any) -> Any:
    reply = client.post(url, json={"table": TABLE, **body})
    assert reply.status_code == 200, reply.text
    return reply.json()


def state(client: TestClient) -> Any:
    return cast(FastAPI, client.app).state.database


def test_the_page_has_every_drill_and_a_bad_table_is_told(client: TestClient) -> None:
    text = client.get(address.PRACTICE_ROOM).text
    assert "What should I work on tonight?" in text
    for drill in DRILLS:
        assert drill.name in text
    assert "This link cannot be opened" in client.get(f"{address.PRACTICE_ROOM}?table=nowhere").text


@pytest.mark.parametrize(("minutes", "parts"), [(20, 3), (40, 5), (60, 7)])
def test_the_plan_tells_its_reasons(client: TestClient, minutes: int, parts: int) -> None:
    plan = asked(client, address.TONIGHT, minutes=minutes)
    assert len(plan["parts"]) == parts
    assert sum(part["minutes"] for part in plan["parts"]) <= minutes
    assert all(part["say"] and part["swaps"] for part in plan["parts"])
    assert plan["parts"][0]["why"] in ("bias", "scatter")  # the demo club's log has its misses
    assert any(part["pause"] for part in plan["parts"]) == (minutes > 20)
    wrong = client.post(address.TONIGHT, json={"table": TABLE, "minutes": 33})
    assert (wrong.status_code, wrong.json()["field"]) == (422, "minutes")


def test_a_drill_is_set_up_and_its_tries_are_counted(client: TestClient) -> None:
    shown = asked(client, address.DRILL, drill="return-3")
    assert [mark["rail"] for mark in shown["marks"]] == ["far", "head", "near"]
    assert shown["circle"]["r"] == pytest.approx(159, abs=1)
    assert shown["balls"][0]["where"].startswith("the cue ball: 1270 mm from the")
    assert shown["record"]["attempts"] == 0
    names = [str(uuid4()) for _ in range(4)]
    for name, made in zip(names, (True, True, False, True), strict=True):
        record = asked(client, address.TRIES, uid=name, drill="return-3", made=made)
    again = asked(client, address.TRIES, uid=names[0], drill="return-3", made=False)
    assert again == record
    assert (record["attempts"], record["hits"], record["streak"], record["best"]) == (4, 3, 1, 2)
    assert record["last"] == [True, True, False, True]
    assert "you: 3 of 4 here" in record["say"]
    back = client.delete(f"{address.TRIES}/{names[3]}")
    assert back.json()["attempts"] == 3
    assert client.delete(f"{address.TRIES}/nothing").status_code == 404
    for name in names[:3]:
        client.delete(f"{address.TRIES}/{name}")
    assert client.post(address.DRILL, json={"table": TABLE, "drill": "luck"}).json()["code"] == "unknown"


def test_a_drill_that_a_table_does_not_allow_says_why(client: TestClient) -> None:
    shown = client.post(address.DRILL, json={"table": "carom-10ft", "drill": "bank-side"}).json()
    assert shown["why_not"] == "this table has no pockets"
    assert shown["path"] == ""


def test_the_goal_is_reached_by_seven_of_the_last_ten(client: TestClient) -> None:
    names = [str(uuid4()) for _ in range(10)]
    for k, name in enumerate(names):
        record = asked(client, address.TRIES, uid=name, drill="natural-1", made=k >= 3)
        assert record["reached"] == (k == 9)
    for name in names:
        take_back(state(client), name)


def test_a_round_counts_its_banks_and_begins_anew(client: TestClient) -> None:
    shown = asked(client, address.DRILL, drill="bank-fifteen")
    assert len(shown["then"]) == 14
    assert [len(each["balls"]) for each in (shown, *shown["then"])] == list(range(16, 1, -1))
    assert all(each["runs"] and each["path"] and "into" in each["stroke"] for each in (shown, *shown["then"]))
    assert shown["record"]["round"] == {"of": 15, "played": 0, "made": 0, "best": 0}
    names = [str(uuid4()) for _ in range(17)]
    for k, name in enumerate(names):
        record = asked(client, address.TRIES, uid=name, drill="bank-fifteen", made=k % 2 == 0)
        assert record["reached"] == (k >= 14)  # eight of the first fifteen
    assert record["round"] == {"of": 15, "played": 2, "made": 1, "best": 8}
    for name in names:
        take_back(state(client), name)


def test_a_question_tells_nothing_of_its_answer_and_is_judged_as_it_is_played(client: TestClient) -> None:
    first = asked(client, address.ASK, topic="one rail")
    assert set(first) == {
        "topic", "what", "seed", "difficulty", "text", "balls", "rail", "options", "says", "seconds", "level",
    }  # fmt: skip
    right = question(STANDARDS[TABLE], first["seed"], first["difficulty"], 1)
    body = {"topic": "one rail", "seed": first["seed"], "difficulty": first["difficulty"], "seconds": 4.0}
    told = asked(client, address.REPLY, uid=str(uuid4()), given=round(right.at, 3), **body)
    assert told["right"] is True
    assert told["at"] == pytest.approx(right.at)
    assert "It would have hit" in told["say"]
    harder = asked(client, address.ASK, topic="one rail")["difficulty"]
    assert harder > first["difficulty"]
    others = [(right.at + off) % right.rails[0].diamonds for off in (3.0, 2.0, 1.5)]  # one in fifty hits all the same
    judged = (asked(client, address.REPLY, uid=str(uuid4()), given=other, **body) for other in others)
    wrong = next(each for each in judged if "It would have missed" in each["say"])
    assert wrong["right"] is False
    assert asked(client, address.ASK, topic="one rail")["difficulty"] < harder
    refused = client.post(address.REPLY, json={"table": TABLE, "uid": str(uuid4()), "given": "left", **body})
    assert refused.status_code == 422


def test_a_sum_is_asked_of_the_favourite_system_and_its_steps_are_told(client: TestClient) -> None:
    first = asked(client, address.ASK, topic="sum")
    assert (first["rail"], first["options"]) == ("", [])
    body = {"topic": "sum", "seed": first["seed"], "difficulty": first["difficulty"], "seconds": 9.0}
    told = asked(client, address.REPLY, uid=str(uuid4()), given=-50.0, **body)
    assert told["right"] is False
    number = float(told["say"].split("Shoot ")[1].split(":")[0])
    assert "=" in told["say"]
    assert asked(client, address.REPLY, uid=str(uuid4()), given=number, **body)["right"] is True


@pytest.mark.parametrize("topic", ["rail", "side", "change"])
def test_a_choice_has_two_answers_one_of_them_right(client: TestClient, topic: str) -> None:
    first = asked(client, address.ASK, topic=topic)
    assert len(first["options"]) == 2
    body = {"topic": topic, "seed": first["seed"], "difficulty": first["difficulty"], "seconds": 3.0}
    told = [
        asked(client, address.REPLY, uid=str(uuid4()), given=option, **body)["right"] for option in first["options"]
    ]
    assert sorted(told) == [False, True]


def test_what_changed_is_told_only_where_the_ranges_say_so(client: TestClient) -> None:
    now = datetime(2026, 11, 26, 20, 0, tzinfo=UTC)

    def some(drill: str, before: str, after: str) -> list[Try]:
        days = [(30, before), (2, after)]
        return [
            Try(f"{drill}-{ago}-{k}", (now - timedelta(days=ago, minutes=k)).isoformat(), drill, "any", hit == "x")
            for ago, row in days
            for k, hit in enumerate(row)
        ]

    made = some("freeze", "x" + "." * 19, "x" * 18 + "..") + some("thin-home", "xx..x..x.x", "x.x.xx..x.")
    answers = [Answered("a", (now - timedelta(days=1)).isoformat(), "side", True, None, 3.0)]
    told = progress_model(sorted(made, key=lambda t: t.made_at), answers, [], now)
    rows = {row["key"]: row for row in told["rows"]}
    assert rows["freeze"]["verdict"] == "better"
    assert rows["thin-home"]["verdict"] == "not yet clear"
    assert rows["side"]["verdict"] == "no data"
    assert [(week[1], week[2]) for week in rows["freeze"]["weeks"]] == [(20, 1), (20, 18)]
    whole = client.get(f"{address.PROGRESS}?days=30").json()
    assert whole["days"] == 30
    logged = next(row for row in whole["rows"] if row["title"] == "Log: one rail, plain")
    assert logged["attempts"] > 50  # the demo club's practice
    assert "scattered ±" in logged["say"]
    assert client.get(f"{address.PROGRESS}?days=0").status_code == 422


def test_tries_are_kept_by_player(client: TestClient) -> None:
    database = state(client)
    new = [
        Try(str(uuid4()), "2026-11-01T19:00:00+00:00", "freeze", "any", True, who) for who in (None, "Guest of honour")
    ]
    assert note_tries(database, [*new, new[0]]) == 2
    assert counts(database)["freeze"]["Guest of honour"] == (1, int(new[1].made))
    assert [t.uid for t in tries(database) if t.drill == "freeze"] == [new[0].uid]
    assert last_played(database)["freeze"] == "2026-11-01T19:00:00+00:00"
    note_answer(database, Answered("one-answer", "2026-11-01T19:00:00+00:00", "side", True, None, 2.0))
    note_answer(database, Answered("one-answer", "2026-11-01T19:00:00+00:00", "side", False, None, 2.0))
    for each in new:
        take_back(database, each.uid)


def test_a_set_is_handed_out_and_opened_as_a_plan(client: TestClient) -> None:
    file = client.get(f"{address.DRILL_SET}?drills=return-1,kick-firm&name=Monday&note=slowly")
    assert file.json() == {
        "format": "fandle-drills/1", "name": "Monday", "note": "slowly", "drills": ["return-1", "kick-firm"],
        "own": [], "sums": True,
    }  # fmt: skip
    opened = client.post(address.READ_SET, content=file.text, headers={"Content-Type": "text/plain"}).json()
    assert [part["key"] for part in opened["parts"]] == ["return-1", "kick-firm"]
    assert opened["note"] == "slowly"
    for text, words in (
        ("{", "not JSON"),
        (file.text.replace("kick-firm", "kick-luck"), "unknown drill 'kick-luck'"),
        (file.text.replace("drills/1", "drills/9"), "format"),
    ):
        refused = client.post(address.READ_SET, content=text, headers={"Content-Type": "text/plain"})
        assert refused.status_code == 422
        assert words in refused.json()["error"]
    assert client.get(f"{address.DRILL_SET}?drills=").status_code == 422


def test_results_go_out_come_back_and_stand_side_by_side(client: TestClient) -> None:
    mine = str(uuid4())
    asked(client, address.TRIES, uid=mine, drill="rail-first", made=True)
    out = client.get(address.RESULTS).json()
    assert out["format"] == "fandle-practice/1"
    assert mine in [row["uid"] for row in out["tries"]]
    pupil: dict[str, Any] = {
        "format": "fandle-practice/1", "player": "The pupil", "answers": [],
        "tries": [
            {"uid": f"pupil-{k}", "made_at": "2026-11-20T19:00:00+00:00", "drill": "rail-first", "table": "any",
             "made": k > 0} for k in range(3)
        ],
    }  # fmt: skip
    text = {"Content-Type": "text/plain"}
    first = client.post(address.READ_RESULTS, content=json.dumps(pupil), headers=text).json()
    again = client.post(address.READ_RESULTS, content=json.dumps(pupil), headers=text).json()
    assert (first, again["new"]) == ({"player": "The pupil", "new": 3}, 0)
    side = client.get(address.SIDE_BY_SIDE).json()
    row = next(row for row in side["rows"] if row["title"] == "Rail first, close")
    assert row["made"][side["players"].index("The pupil")] == "2 of 3"
    bad = {**pupil, "tries": [{**pupil["tries"][0], "made_at": "yesterday"}]}
    refused = client.post(address.READ_RESULTS, content=json.dumps(bad), headers=text)
    assert (refused.status_code, "is no time" in refused.json()["error"]) == (422, True)
    for name in (mine, *(f"pupil-{k}" for k in range(3))):
        take_back(state(client), name)


QUERY = "table=pool-9ft&game=nine-ball&balls=cue:1.2,1.1;7:5.4,0.9&target=7&speed=3&rails=far"


def test_a_drill_of_ones_own_is_made_played_handed_out_and_deleted(client: TestClient) -> None:
    body = {"query": QUERY, "title": "League night", "say": "the one I missed", "wanted_hits": 3, "out_of": 5}
    made = client.post(address.OWN_DRILLS, json=body).json()
    assert (made["family"], made["new"], made["on"]) == ("My drills", True, TABLE)
    assert client.post(address.OWN_DRILLS, json=body).json() == {**made, "new": False}
    assert made["key"] in client.get(address.PRACTICE_ROOM).text
    shown = asked(client, address.DRILL, drill=made["key"])
    assert (shown["say"], shown["goal"]) == ("the one I missed", "3 of the last 5")
    assert [mark["rail"] for mark in shown["marks"]] == ["far"]
    mine = str(uuid4())
    assert asked(client, address.TRIES, uid=mine, drill=made["key"], made=True)["attempts"] == 1
    handed = client.get(f"{address.DRILL_SET}?drills={made['key']},freeze&sums=false")
    assert [each["title"] for each in handed.json()["own"]] == ["League night"]
    assert client.delete(f"{address.OWN_DRILLS}/{made['key']}").status_code == 200
    assert client.delete(f"{address.OWN_DRILLS}/{made['key']}").status_code == 404
    assert made["key"] not in client.get(address.PRACTICE_ROOM).text
    progress = client.get(address.PROGRESS).json()
    assert next(row for row in progress["rows"] if row["key"] == made["key"])["title"] == "League night"
    out = client.get(address.RESULTS).json()
    assert [each["title"] for each in out["own"]] == ["League night"]
    opened = client.post(address.READ_SET, content=handed.text, headers={"Content-Type": "text/plain"}).json()
    assert (opened["parts"][0]["title"], opened["sums"]) == ("League night", False)
    assert made["key"] in client.get(address.PRACTICE_ROOM).text  # the set brought it back
    client.delete(f"{address.OWN_DRILLS}/{made['key']}")
    client.delete(f"{address.TRIES}/{mine}")


@pytest.mark.parametrize(
    ("change", "field", "words"),
    [
        ({"title": ""}, "title", "title"),
        ({"wanted_hits": 9, "out_of": 5}, "wanted_hits", "is no goal"),
        ({"query": "balls=cue:99,1"}, "balls", "99"),
        (
            {"query": QUERY.replace("rails=far", "rails=straight").replace("7:5.4,0.9", "7:5.4,0.9;2:3.3,1")},
            "rails",
            "choose another line",
        ),
    ],
)
def test_a_drill_that_cannot_be_made_says_why_and_keeps_nothing(
    client: TestClient, change: dict[str, Any], field: str, words: str
) -> None:
    before = client.get(address.PRACTICE_ROOM).text.count("My drills")
    reply = client.post(address.OWN_DRILLS, json={"query": QUERY, "title": "None", **change})
    assert reply.status_code == 422
    assert field in (reply.json()["field"] or "")
    assert words in reply.json()["error"]
    assert client.get(address.PRACTICE_ROOM).text.count("My drills") == before


def test_without_sums_a_kick_is_measured_and_no_sum_is_asked(client: TestClient) -> None:
    plain, measured = (asked(client, address.DRILL, drill="natural-3", sums=sums) for sums in (True, False))
    assert plain["hands"] == []
    assert len(measured["hands"]) > 1
    assert measured["remember"].startswith("top cushion" if "cushion" in measured["remember"] else "top rail")
    deck = Deck({})
    now = datetime(2026, 11, 27, tzinfo=UTC)
    for topic in TOPICS:
        deck = deck.answered(topic, 3, now)
    later = now + timedelta(days=400)
    due = {deck.due(later, sums=False)}
    for _ in range(20):
        deck = deck.answered(deck.due(later, sums=False), 3, later)
        due.add(deck.due(later, sums=False))
    assert SUM not in due
    assert len(due) > 3


@pytest.mark.parametrize(
    ("by", "title"), [("speed", "Log: medium"), ("table", "Log: "), ("system", f"Log: {TITLES[HALVING]}")]
)
def test_the_log_is_told_by_speed_table_and_system_with_a_goal(client: TestClient, by: str, title: str) -> None:
    told = client.get(f"{address.PROGRESS}?by={by}&goal=0.3").json()
    rows = [row for row in told["rows"] if row["title"].startswith("Log: ")]
    whole = [row for row in client.get(address.PROGRESS).json()["rows"] if row["title"].startswith("Log: ")]
    assert sum(row["attempts"] for row in rows) == sum(row["attempts"] for row in whole)
    assert any(row["title"].startswith(title) for row in rows)
    assert any("Goal ± 0.3" in row["say"] for row in rows)
    assert client.get(f"{address.PROGRESS}?by=moon").status_code == 422

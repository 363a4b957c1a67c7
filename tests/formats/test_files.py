"""Files: what is read comes back, what is wrong is said in a sentence, schemas describe them."""

import json
import re
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from tests.conftest import CONTRACT_LAYOUT

from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.parameters import TABLE
from fandle.formats.files import LayoutFile, layout_json, layout_of, read_layout, read_stroke
from fandle.formats.schemas import SCHEMAS, schema_text
from fandle.formats.tables import TableFile, table_json

ROOT = Path(__file__).parent.parent.parent
CONTRACT_NAMES = [
    "length",
    "width",
    "ball_radius",
    "ball_mass",
    "nose_height",
    "sight_setback",
    "cushion_restitution",
    "cushion_friction",
    "cushion_compression",
    "cloth_sliding",
    "cloth_rolling",
    "spin_decay",
    "ball_restitution",
]


def test_a_layout_comes_back() -> None:
    assert layout_json(read_layout(json.dumps(CONTRACT_LAYOUT))) == CONTRACT_LAYOUT


def test_a_table_object_travels_in_a_layout(pool: Table) -> None:
    table = {**table_json(pool), "name": "worn", "cushion_friction": 0.25}
    layout = layout_of({**CONTRACT_LAYOUT, "table": table})
    assert layout.table.cushion_friction == 0.25
    assert layout_json(layout)["table"] == table
    assert layout_of({**CONTRACT_LAYOUT, "table": table_json(pool)}).table == pool


def test_a_table_prints_every_number_the_contract_names(pool: Table) -> None:
    data = table_json(pool)
    assert set(CONTRACT_NAMES) <= set(data)
    assert set(data) == set(TableFile.model_fields) - {"gravity", "fitted"}
    assert set(TABLE) <= set(data)


WRONG: list[tuple[dict[str, Any], str]] = [
    ({"format": "fandle-layout/2"}, "this version reads"),
    ({"table": "pool-10ft"}, "unknown table"),
    ({"game": "marbles"}, "unknown game"),
    ({"balls": []}, "no cue ball"),
    ({"balls": [{"id": "cue", "x": True, "y": 1}]}, "balls.0.x: True is not a number"),
    ({"balls": [{"id": "cue", "x": "1", "y": 1}]}, "is not a number"),
    ({"balls": [{"id": "cue", "x": 1}]}, "balls.0.y is missing"),
    ({"balls": [{"id": "cue", "x": 1, "y": 1, "z": 1}]}, "balls.0.z is not known"),
    ({"target": "9"}, "no ball '9'"),
    ({"colour": "green"}, "colour is not known"),
    ({"balls": 5}, "balls"),
    ({"table": {"name": "x"}}, "is missing"),
]


@pytest.mark.parametrize(("change", "words"), WRONG)
def test_wrong_files_are_refused_in_a_sentence(change: dict[str, Any], words: str) -> None:
    with pytest.raises(BadInputError, match=re.escape(words)) as caught:
        layout_of({**CONTRACT_LAYOUT, **change})
    assert "\n" not in str(caught.value)


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("cushion_restitution", 1.2),
        ("length", 0.01),
        ("width", 9),
        ("nose_height", 0.057),
        ("cushion_compression", 0.02),
        ("gravity", 3.7),
        ("width", 0.5),
    ],
)
def test_tables_out_of_range_are_refused(pool: Table, field: str, value: float) -> None:
    with pytest.raises(BadInputError, match=field):
        layout_of({**CONTRACT_LAYOUT, "table": {**table_json(pool), field: value}})


def test_files_that_are_not_layouts() -> None:
    for text, words in (
        ("[1", "not JSON"),
        ("[]", "a layout is a JSON object"),
        (b"\xff\xfe", "not JSON"),
        ("3", "object"),
    ):
        with pytest.raises(BadInputError, match=words):
            read_layout(text)


leaves = st.none() | st.booleans() | st.floats() | st.text(max_size=8)
json_values = st.recursive(
    leaves,
    lambda v: st.lists(v, max_size=3) | st.dictionaries(st.text(max_size=6), v, max_size=3),
    max_leaves=6,
)


@settings(deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(data=st.dictionaries(st.sampled_from(["table", "game", "balls", "target", "format"]), json_values))
def test_any_json_is_a_layout_or_a_sentence(data: dict[str, Any]) -> None:
    fault = ""
    try:
        layout_of({**CONTRACT_LAYOUT, **data})
    except BadInputError as error:
        fault = str(error)
    assert "\n" not in fault


def test_strokes(pool: Table) -> None:
    file, stroke = read_stroke('{"aim": "far:3@nose", "speed": 3, "side": 0.1}', pool)
    assert (file.aim, stroke.speed, stroke.side) == ("far:3@nose", 3, 0.1)
    with pytest.raises(BadInputError, match="spede is not known"):
        read_stroke('{"spede": 3}', pool)


def test_published_schemas_are_current_and_describe_the_files(pool: Table) -> None:
    for name in SCHEMAS:
        path = ROOT / "docs/schemas" / f"{name}.schema.json"
        assert path.read_text("utf-8") == schema_text(name), f"run: python -m fandle.formats.schemas ({name})"
    layout_schema = json.loads((ROOT / "docs/schemas/layout.schema.json").read_text("utf-8"))
    jsonschema.validate(CONTRACT_LAYOUT, layout_schema)
    jsonschema.validate({**CONTRACT_LAYOUT, "table": table_json(pool)}, layout_schema)
    with pytest.raises(jsonschema.ValidationError, match="balls"):
        jsonschema.validate({k: v for k, v in CONTRACT_LAYOUT.items() if k != "balls"}, layout_schema)
    assert LayoutFile.model_json_schema()["title"]

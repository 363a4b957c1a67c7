"""The registry: one entry is all that a number of a table needs."""

import json
import os
import shutil
import subprocess
import sys
from dataclasses import MISSING
from pathlib import Path

import pytest

from fandle.core.physics.slots import FIRST_SLOT, SLOTS
from fandle.core.table.kernel_numbers import COMPUTED, kernel_numbers, values
from fandle.core.table.parameters import CONDITION, POCKETS, TABLE
from fandle.core.table.standards import STANDARDS

SOURCE = Path(__file__).parents[3] / "src"
ENTRY = """    humidity: float = number(
        "%", 0.0, 100.0, "made up", Shown("Cloth", "Damp in the air", "Only here for a test.", "%", 1, 0),
        default=50.0, slot="humidity", prior_sd=20.0,
    )


"""
ASKED = """
import json
from fandle.core.physics.slots import FIRST_SLOT
from fandle.core.table.figures import shown, with_shown
from fandle.core.table.kernel_numbers import kernel_numbers, values
from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import TableFile, table_json, table_of_json
table = STANDARDS["pool-9ft"]
wet = with_shown(table, {"humidity": 80})
try:
    table_of_json({**table_json(table), "humidity": 200})
    refused = ""
except Exception as fault:
    refused = str(fault)
print(json.dumps({
    "file": table_json(table)["humidity"], "form": shown(table)["humidity"],
    "kernel": kernel_numbers(wet)[FIRST_SLOT + list(values(wet)).index("humidity")],
    "schema": "humidity" in TableFile.model_json_schema()["properties"], "refused": refused,
}))
"""


def test_a_new_entry_is_in_the_file_the_form_and_the_kernels(tmp_path: Path) -> None:
    copy = tmp_path / "src"
    shutil.copytree(SOURCE, copy, ignore=shutil.ignore_patterns("__pycache__", "static"))
    registry = copy / "fandle/core/table/parameters.py"
    before, after = registry.read_text().split("@dataclass(frozen=True)\nclass PocketNumbers")
    registry.write_text(before.rstrip() + "\n" + ENTRY + "@dataclass(frozen=True)\nclass PocketNumbers" + after)
    done = subprocess.run(
        [sys.executable, "-c", ASKED], env={**os.environ, "PYTHONPATH": str(copy)}, text=True, capture_output=True,
        check=True, timeout=300,
    )  # fmt: skip
    found = json.loads(done.stdout)
    assert found.pop("refused") == "table 'pool-9ft': humidity 200 is outside 0 to 100 %; check the number and its unit"
    assert found == {"file": 50.0, "form": 50.0, "kernel": 80.0, "schema": True}


def test_every_slot_of_the_kernels_is_filled_once() -> None:
    from_registry = [known.slot for known in TABLE.values() if known.slot is not None]
    assert sorted([*from_registry, *COMPUTED]) == sorted(SLOTS)
    for table in STANDARDS.values():
        assert list(values(table)) == list(SLOTS)
        assert kernel_numbers(table).size == FIRST_SLOT + len(SLOTS)
        assert not kernel_numbers(table).flags.writeable


@pytest.mark.parametrize("name", [*TABLE, *POCKETS])
def test_an_entry_is_complete(name: str) -> None:
    known = TABLE.get(name) or POCKETS[name]
    assert known.low < known.high
    assert known.origin
    if known.shown is not None:
        assert known.shown.says.endswith(".")
        assert len(known.shown.says) > 15
    if known.default is not MISSING and known.default is not None:
        assert known.low <= known.default <= known.high
    words = {**known.cloth, **known.rubber}
    assert not words or words["standard"] == (0.0 if known.absolute else 1.0)


def test_what_counts_as_condition() -> None:
    """The chain's link "table" is these; compression is a link of its own, sizes are the make."""
    assert set(CONDITION) == {
        "cushion_restitution", "cushion_friction", "cloth_sliding", "cloth_rolling", "spin_decay",
        "ball_restitution", "ball_friction_floor", "ball_friction_rise", "ball_friction_fall",
    }  # fmt: skip


# what a number may be, SI: files that were written keep being read, so a limit is not moved by accident
LIMITS = {
    "length": (0.5, 6.0), "width": (0.25, 3.0), "sight_setback": (0.0, 0.3), "rail_width": (0.02, 0.5),
    "head_string": (0.0, 8.0), "d_radius": (0.05, 0.8), "ball_radius": (0.01, 0.05), "ball_mass": (0.02, 0.5),
    "cue_ball_mass": (0.02, 0.5), "ball_restitution": (0.5, 1.0), "ball_friction_floor": (0.0, 0.5),
    "ball_friction_rise": (0.0, 0.5), "ball_friction_fall": (0.0, 10.0), "ball_stiffness": (1e7, 1e10),
    "nose_height": (0.01, 0.08), "cushion_restitution": (0.3, 1.0), "cushion_friction": (0.0, 0.4),
    "cushion_compression": (0.0, 0.006), "cushion_grip": (0.0, 0.4), "cushion_loss": (0.0, 1.0),
    "cloth_sliding": (0.01, 0.4), "cloth_rolling": (0.001, 0.05), "spin_decay": (0.0, 60.0),
    "corner_mouth": (0.04, 0.25), "side_mouth": (0.04, 0.25), "corner_cut_deg": (95.0, 165.0),
    "side_cut_deg": (90.0, 165.0), "corner_shelf": (0.0, 0.06), "side_shelf": (0.0, 0.03),
    "corner_point_radius": (0.0, 0.15), "side_point_radius": (0.0, 0.15),
}  # fmt: skip


def test_limits_stay_what_files_were_written_by() -> None:
    assert {name: (known.low, known.high) for name, known in {**TABLE, **POCKETS}.items()} == LIMITS


# how a number is shown: times this much, with so many decimals
SHOWN = {
    "length": (1000, 1), "width": (1000, 1), "sight_setback": (1000, 1), "ball_radius": (2000, 2),
    "ball_mass": (1000, 1), "cue_ball_mass": (1000, 1), "ball_restitution": (1.0, 3), "nose_height": (1000, 2),
    "cushion_restitution": (1.0, 3), "cushion_friction": (1.0, 3), "cushion_compression": (1000, 2),
    "cushion_grip": (1.0, 3), "cushion_loss": (1.0, 3), "cloth_sliding": (1.0, 3), "cloth_rolling": (1.0, 4),
    "spin_decay": (1, 1), "corner_mouth": (1000, 1), "side_mouth": (1000, 1), "corner_cut_deg": (1, 1),
    "side_cut_deg": (1, 1), "corner_shelf": (1000, 1), "side_shelf": (1000, 1), "corner_point_radius": (1000, 1),
    "side_point_radius": (1000, 1),
}  # fmt: skip


def test_units_on_the_form_stay_what_players_read() -> None:
    every = {**TABLE, **POCKETS}.items()
    assert {name: (known.shown.scale, known.shown.places) for name, known in every if known.shown} == SHOWN

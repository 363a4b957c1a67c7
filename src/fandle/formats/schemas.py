"""The published JSON Schemas of every file read and answer written.

Run `python -m fandle.formats.schemas` to write them into docs/schemas.
"""

import json
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from fandle.formats import (
    answers,
    check,
    cues,
    drill,
    files,
    log,
    plan,
    player,
    practice,
    results,
    shots,
    tables,
    technique,
)

SCHEMAS: dict[str, Any] = {
    "layout": files.LayoutFile,
    "table": tables.TableFile,
    "stroke": files.StrokeFile,
    "log": log.LogFile,
    "simulate": shots.ShotAnswer,
    "aim": answers.AimAnswer | answers.RefusedAnswer,
    "instead": answers.InsteadAnswer | answers.RefusedAnswer,
    "squirt": cues.SquirtAnswer,
    "plan": plan.PlanAnswer,
    "player": player.PlayerFile,
    "check-file": check.CheckFile,
    "check": check.CheckAnswer | check.ReferenceAnswer,
    "diagnose": check.DiagnosisAnswer,
    "drill": drill.DrillAnswer,
    "technique": technique.TechniqueAnswer,
    "drills-file": practice.DrillSetFile,
    "practice-file": results.ResultsFile,
    "count": answers.CountAnswer | technique.TechniqueAnswer | answers.NoCountAnswer,
}


def schema_text(name: str) -> str:
    """One schema as it is published."""
    schema = TypeAdapter(SCHEMAS[name]).json_schema()
    head = {"$schema": "https://json-schema.org/draft/2020-12/schema", "$id": f"fandle-{name}/1"}
    return json.dumps({**head, **schema}, indent=1, ensure_ascii=False, sort_keys=True) + "\n"


if __name__ == "__main__":
    folder = Path("docs/schemas")
    folder.mkdir(parents=True, exist_ok=True)
    for each in SCHEMAS:
        (folder / f"{each}.schema.json").write_text(schema_text(each), "utf-8")

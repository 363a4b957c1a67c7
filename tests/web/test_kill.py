"""SIGKILL at 12 random moments while notes are being saved: every acknowledged note is there, none twice, none half."""

from pathlib import Path

from campaign.kills import kill_often

KILLS = 12


def test_killing_the_server_loses_nothing_that_was_acknowledged(tmp_path: Path) -> None:
    found = kill_often(tmp_path, KILLS, seed=50)
    assert found.faults == ()
    assert found.notes >= KILLS
    assert found.comments >= KILLS
    assert found.layouts > 0

"""The whole campaign, seeded; ends with a table of what was tried and what held.

    python -m campaign [--seed 1] [--part NAME …] [--scale 1.0]

Parts: python, commands, storm, drags, starve, kills, disk, processes, backup, log, pots, plans, sense, counts,
hostile files, hostile wire, large club, import kills. At scale 1 it takes an hour and a quarter on two cores. Exit 1
where anything failed.
"""

import argparse
import random
import tempfile
import time
import traceback
from pathlib import Path

from campaign import answers, data, hostile_files, hostile_wire, import_kills, large_club, scenes, verbs
from campaign.drags import drag, starved
from campaign.kills import kill_often
from campaign.rows import Row, Run, tell
from campaign.server import serving
from campaign.storm import storm

from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS

COMMAND_SCENES = 60
STOPS = 50  # of an import, of results, of a restore; and as many on a full disk
MIGRATION_STOPS = 6  # of the way from each earlier version
MOST_PLAYERS = 10_000
REQUESTS, KILLS, DRAG_S = 10_000, 200, 60.0
P99_MS, STARVED_MS, GROWN = 500.0, 100.0, 0.05
LOG_S, LOG_BYTES, LOG_KB = 0.3, 300_000, 50_000


def commands(seed: int, scale: float, home: Path) -> list[Row]:
    """Every verb on the command line."""
    rng, tried, faults = random.Random(seed), 0, []
    for n in range(round(COMMAND_SCENES * scale)):
        table = scenes.table(rng) if n % 2 else rng.choice(list(STANDARDS.values()))
        if not isinstance(table, Table):
            continue
        scene = scenes.scene(rng, table, 8)
        for verb in verbs.on_the_command_line(scene, rng, home):
            tried += 1
            try:
                verbs.checked(verb)
            except Exception:  # noqa: BLE001  (whatever it is, it is a fault that is told)
                faults.append(f"{verb[0]}: {traceback.format_exc()[-600:]} {scene}")
    tell(faults)
    return [Row("commands", f"{tried} commands", f"{len(faults)} faults", not faults)]


def requests(seed: int, scale: float, home: Path) -> list[Row]:
    """Requests to every route."""
    with serving(home) as served:
        tally = storm(served, seed, round(REQUESTS * scale))
    tell(tally.faults)
    found = ", ".join(f"{count} × {status}" for status, count in sorted(tally.replies.items()))
    return [Row("storm", f"{tally.replies.total()} requests to {len(tally.routes)} routes", found, not tally.faults)]


def drags(seed: int, scale: float, home: Path) -> list[Row]:
    """Sixteen clients dragging."""
    with serving(home) as served:
        found = drag(served, DRAG_S * scale, seed)
    tell(list(found.faults))
    held = not found.faults and found.p99_ms <= P99_MS and abs(found.grown) <= GROWN
    told = f"median {found.median_ms:.0f} ms, p99 {found.p99_ms:.0f} ms, memory {found.grown:+.1%}"
    told += f", {len(found.faults)} faults"
    return [Row("drags", f"16 clients, {found.answers} answers in {DRAG_S * scale:.0f} s", told, held)]


def starve(_: int, __: float, home: Path) -> list[Row]:
    """Lists of four-rail banks, and who else is served meanwhile."""
    with serving(home) as served:
        slowest, ends = starved(served)
    lists = ", ".join(f"{count} × {status}" for status, count in sorted(ends.items()))
    told = f"health, page, file in {slowest:.0f} ms at worst; plans {lists}"
    held = slowest <= STARVED_MS and set(ends) <= {200, 422, 503}
    return [Row("starve", "45 plans at once", told, held)]


def kills(seed: int, scale: float, home: Path) -> list[Row]:
    """SIGKILL while things are saved."""
    found = kill_often(home, round(KILLS * scale), seed)
    tell(list(found.faults))
    told = (
        f"{found.notes} notes, {found.comments} words, {found.layouts} layouts acknowledged, {len(found.faults)} faults"
    )
    return [Row("kills", f"{found.kills} kills", told, not found.faults)]


def disk(_: int, __: float, home: Path) -> list[Row]:
    """A full disk."""
    return [_kept("disk", "a disk that becomes full", data.full_disk(home))]


def processes(seed: int, _: float, home: Path) -> list[Row]:
    """Several processes on one folder."""
    return [
        _kept("processes", "a server, three imports, an export, a backup at once", data.several_processes(home, seed))
    ]


def backups(_: int, __: float, home: Path) -> list[Row]:
    """A copy while a server writes."""
    return [_kept("backup", "a copy while a server writes", data.backed_up_while_written(home))]


def long_log(_: int, scale: float, home: Path) -> list[Row]:
    """The Log room on a long log."""
    count = round(data.ATTEMPTS * scale)
    data.fill(home, count)
    with serving(home, demo=False) as served:
        found = data.long_log(served)
    held = found.seconds <= LOG_S and found.size <= LOG_BYTES and found.grown_kb <= LOG_KB and found.export_kb <= LOG_KB
    told = (
        f"page {found.seconds:.2f} s, {found.size / 1000:.0f} kB, {found.grown_kb / 1000:+.0f} MB; "
        f"exports {found.export_s:.0f} s, {found.export_kb / 1000:+.0f} MB"
    )
    return [Row("log", f"{count} attempts in {data.SET_UPS} set-ups", told, held)]


def hostile_file(_: int, __: float, home: Path) -> list[Row]:
    """Files that make a reader grow, at a server that may not."""
    with serving(home) as served:
        found = hostile_files.attacked(served)
    tell(list(found.faults))
    told = f"{found.worst_kb / 1000:.0f} MB at most, for {found.worst}; {len(found.faults)} faults"
    return [Row("hostile files", f"{found.files} files and links", told, not found.faults)]


def wire(_: int, __: float, home: Path) -> list[Row]:
    """Heads, bodies and TLS that never end, and too many connections."""
    found = hostile_wire.attack_over(home)
    tell(found.faults)
    told = f"others waited {1000 * found.slowest_s:.0f} ms at worst, {len(found.faults)} faults"
    return [Row("hostile wire", f"{found.tried} attacks over HTTP and HTTPS", told, not found.faults)]


def large(_: int, scale: float, home: Path) -> list[Row]:
    """A club with thousands of everything; then one with thousands of players."""
    rows = []
    for name, players in (("a large club", large_club.PLAYERS), ("ten thousand players", MOST_PLAYERS)):
        folder = home / name.replace(" ", "-")
        folder.mkdir()
        large_club.fill(folder, min(scale, 1.0), players)
        with serving(folder, demo=False) as served:
            found = large_club.looked_at(served)
        tell(list(found.faults))
        told = f"slowest page {found.page} {found.page_s:.2f} s, a note {1000 * found.note_s:.0f} ms, a try "
        told += f"{1000 * found.try_s:.0f} ms, first page {found.first_bytes / 1000:.0f} kB, steadiness from the log "
        told += f"{found.steady_s:.1f} s while others wait {1000 * found.others_s:.0f} ms; {len(found.faults)} faults"
        rows.append(Row("large club", name, told, not found.faults))
    return rows


def halves(seed: int, scale: float, home: Path) -> list[Row]:
    """Imports, results, restores and migrations stopped anywhere."""
    times, rows = max(round(STOPS * scale), 2), []
    for tried, found in (
        ("imports and results, killed and on a full disk", import_kills.stopped_often(home, times, seed)),
        ("restores, killed", import_kills.restored_often(home, times, seed)),
        ("migrations, killed", import_kills.migrated_often(home, max(round(MIGRATION_STOPS * scale), 1), seed)),
    ):
        tell(list(found.faults))
        told = f"{found.done} done all the same, {len(found.faults)} faults"
        rows.append(Row("import kills", f"{found.stopped} {tried}", told, not found.faults))
    return rows


def _kept(part: str, tried: str, kept: data.Kept) -> Row:
    tell(list(kept.faults))
    return Row(part, tried, f"{kept.acknowledged} acknowledged, {len(kept.faults)} faults", not kept.faults)


PARTS: dict[str, Run] = {
    "python": answers.python, "commands": commands, "storm": requests, "drags": drags, "starve": starve,
    "kills": kills, "disk": disk, "processes": processes, "backup": backups, "log": long_log,
    "pots": answers.potting, "plans": answers.planning, "sense": answers.sensible, "counts": answers.counted,
    "hostile files": hostile_file, "hostile wire": wire, "large club": large, "import kills": halves,
}  # fmt: skip


def main() -> int:
    """Run the parts asked for and print the table."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--scale", type=float, default=1.0)
    parser.add_argument("--part", action="append", choices=PARTS)
    asked = parser.parse_args()
    rows: list[Row] = []
    for name in asked.part or PARTS:
        start = time.monotonic()
        with tempfile.TemporaryDirectory() as folder:
            found = PARTS[name](asked.seed, asked.scale, Path(folder))
        rows += found
        print(f"{name}: {time.monotonic() - start:.0f} s", flush=True)
    print(f"\nseed {asked.seed}, scale {asked.scale:g}")
    for row in rows:
        print(f"{'held  ' if row.held else 'FAILED'}  {row.part:<13} {row.tried}: {row.found}")
    return 0 if all(row.held for row in rows) else 1


if __name__ == "__main__":
    raise SystemExit(main())

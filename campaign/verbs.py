"""Every verb through Python, the command line and HTTP, on one scene: only answers or sentences may come."""

import contextlib
import io
import json
import logging
import math
import random
from collections.abc import Callable, Iterator
from dataclasses import replace
from pathlib import Path

from campaign.audit import finite, lies_on_bed, metres, raw, rises, struck
from campaign.scenes import Scene

from fandle.app.situation import Situation
from fandle.cli import main
from fandle.core.errors import BadInputError, EngineError
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.candidates import Line, bank_line_steps, candidate_steps
from fandle.core.lines.held import CHANGES, Instead, solve_instead
from fandle.core.lines.kick import solve_kick
from fandle.core.shot.play import Shot, play
from fandle.core.steps import Steps, finish
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.registry import count_steps, counted
from fandle.core.table.rails import Rail, rails_name
from fandle.formats.answers import aim_answer, count_answer, instead_answer
from fandle.formats.files import layout_json
from fandle.formats.shots import ShotAnswer
from fandle.web.table.view import answer

ENERGY = 1e-9  # of the stroke's: what rounding may add
Verb = tuple[str, Callable[[], object]]


class FailedError(AssertionError):
    """Something happened that never should."""


class _Logged(logging.Handler):
    """A fault that was caught and logged is still a fault."""

    def __init__(self) -> None:
        super().__init__(logging.ERROR)
        self.records: list[logging.LogRecord] = []

    def emit(self, record: logging.LogRecord) -> None:
        """Remember it."""
        self.records.append(record)


@contextlib.contextmanager
def nothing_logged() -> Iterator[None]:
    """Fail where an error was logged inside."""
    handler, logger = _Logged(), logging.getLogger("fandle")
    logger.addHandler(handler)
    try:
        yield
    finally:
        logger.removeHandler(handler)
    if handler.records:
        raise FailedError(handler.format(handler.records[0]))


def in_python(scene: Scene, rng: random.Random) -> Iterator[Verb]:
    """(name, call) of every verb as a notebook would use it."""
    layout, stroke, rails, hit = scene.layout, scene.stroke, scene.rails, scene.hit
    yield "simulate", lambda: played(scene)
    yield "aim", lambda: finite(aim_answer(solve_kick(layout, rails, stroke, hit=hit)).json_data())
    yield "lines", lambda: _told(candidate_steps(layout, stroke, hit=hit))
    yield "count", lambda: finite([count_answer(found).json_data() for found in finish(count_steps(layout))])
    if rails:
        change = rng.choice(CHANGES)

        def hold() -> None:
            found = solve_instead(layout, rails, scene.direction, stroke, change, hit=hit)
            finite(instead_answer(found).json_data() if isinstance(found, Instead) else aim_answer(found).json_data())

        yield "hold", hold
    if layout.table.pockets is not None:
        method = rng.choice(list(METHODS))
        yield "bank", lambda: _told(bank_line_steps(layout, stroke, (1,)))
        yield (
            "bank over rails",
            lambda: finite(aim_answer(solve_bank(layout, rails or (Rail.FAR,), stroke)).json_data()),
        )
        yield "bank counted", lambda: finite(count_answer(counted(method, layout, kind="bank")).json_data())
    level = replace(stroke, elevation=0.0)
    yield "page", lambda: json.dumps(finish(answer(Situation(layout, level, rails or None, hit=hit))), allow_nan=False)


def _told(lines: Steps[list[Line]]) -> None:
    finite([aim_answer(line.answer).json_data() for line in finish(lines)])


def played(scene: Scene) -> Shot:
    """The shot of a scene, audited: finite, on the bed, no energy gained."""
    layout, table = scene.layout, scene.layout.table
    shot = play(layout, scene.stroke, scene.direction)
    finite(ShotAnswer.of(shot).json_data())
    for ball, place in shot.rest.items():
        if place is not None and not lies_on_bed(table, place[0] * table.diamond_x, place[1] * table.diamond_y):
            raise FailedError(f"{ball} rests off the bed at {place}")
    if layout.table.cue_mass == layout.table.ball_mass:  # the audit takes balls to be alike
        cue_first = replace(layout, balls=(layout.cue, *layout.object_balls()))
        gained = rises(raw(metres(cue_first), struck(scene.stroke, scene.direction), table), table)
        if gained > ENERGY:
            raise FailedError(f"energy rises by {gained:.2g} of the stroke's")
    return shot


def checked(verb: Verb) -> str:
    """Call a verb: "answer", or "sentence" where it says why not. Anything else is raised."""
    with nothing_logged():
        try:
            verb[1]()
        except (BadInputError, EngineError) as told:
            _sentence(str(told))
            return "sentence"
    return "answer"


def _sentence(text: str) -> None:
    if not text or "\n" in text or "Traceback" in text:
        raise FailedError(f"no sentence: {text!r}")


def on_the_command_line(scene: Scene, rng: random.Random, folder: Path) -> Iterator[Verb]:
    """(name, call) of every verb as the command line has it, on a layout file in `folder`."""
    file = folder / "scene.fandle.json"
    file.write_text(json.dumps(layout_json(scene.layout)))
    s = scene.stroke
    stroke = [f"--speed={s.speed!r}", f"--side={s.side!r}", f"--up={s.up!r}"]
    leaning = [*stroke, f"--elevation={s.elevation!r}", "--cue", s.cue.name]
    rails = ["--rails", rails_name(scene.rails)]
    mark = f"{rng.choice(list(Rail))}:{rng.uniform(-3, 11):.3f}@{rng.choice(('nose', 'sight', 'centre'))}"
    calls = [
        ["simulate", str(file), f"--direction={math.degrees(scene.direction)!r}", *leaning],
        ["simulate", str(file), "--aim", mark, *stroke],
        ["aim", str(file), *rails, f"--hit={scene.hit!r}", *leaning],
        ["aim", str(file), *rails, "--kind", "bank", *stroke],
        ["aim", str(file), *rails, "--hold", mark, "--change", rng.choice(CHANGES), *stroke],
        ["count", str(file), "--all"],
        ["count", str(file), "--method", rng.choice(list(METHODS)), *rng.choice(([], rails))],
        ["table", scene.layout.table.standard, "--cloth", rng.choice(("new", "worn", "damp"))],
    ]
    for call in calls:
        for as_json in (["--json"], []):
            yield call[0], lambda call=call, as_json=as_json: ran([*call, *as_json])  # type: ignore[misc]


def ran(arguments: list[str]) -> None:
    """Run a command: exit 0, 1 or 2, one sentence on stderr with 2, JSON on stdout with --json otherwise."""
    out, err = io.StringIO(), io.StringIO()
    code: object = None
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        try:
            main(arguments)
        except SystemExit as ended:
            code = ended.code
    if code not in (0, 1, 2):
        raise FailedError(f"{arguments}: exit {code}, {err.getvalue()}")
    if code == 2:
        if not err.getvalue().startswith("fandle: ") or out.getvalue():
            raise FailedError(f"{arguments}: {err.getvalue()!r}")
        raise BadInputError(err.getvalue().strip())
    if "--json" in arguments:
        finite(json.loads(out.getvalue(), parse_constant=_not_json))


def _not_json(name: str) -> None:
    raise FailedError(f"{name} on stdout")

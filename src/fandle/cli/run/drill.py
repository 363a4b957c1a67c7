"""The verb that sets up a drill."""

from collections.abc import Iterator

import typer

from fandle.app.drill_list import LISTED, drill_called, own_newest
from fandle.app.practise import drill as drill_on
from fandle.app.practise import drills
from fandle.cli.run.club import club
from fandle.cli.run.files import NO_ANSWER, bytes_of, print_json, table_at
from fandle.core.errors import BadInputError
from fandle.core.practice.drilled import Drilled
from fandle.core.practice.drills import BY_NAME
from fandle.core.table.model import Table
from fandle.formats.drill import DrillAnswer, DrillShot
from fandle.formats.practice import read_set

SET_FILE = ".json"


def drill(name: str | None, *, listed: bool, table: str, as_json: bool) -> None:
    """What should I work on? A drill set up on a table: where the balls lie, the stroke, its contacts, its end."""
    made = table_at(table)
    if listed:
        with club() as kept:
            own = own_newest(kept, LISTED)
        _tell(drills(made, own), made, as_json=as_json)
        return
    if name is None:
        raise BadInputError("say which drill: fandle drill return-3, or --list for all of them", "name", code="missing")
    if name.endswith(SET_FILE):
        _tell([*_of_file(name, made)], made, as_json=as_json)
        return
    with club() as kept:
        wanted = drill_called(kept, name)
    answer = DrillAnswer.of(drill_on(wanted, made), made.name)
    print_json(answer) if as_json else typer.echo(_words(answer))
    if answer.why_not:
        raise typer.Exit(NO_ANSWER)


def _of_file(name: str, table: Table) -> Iterator[Drilled]:
    found = read_set(bytes_of(name))
    known = {**BY_NAME, **found.made()}
    return (drill_on(known[each], table) for each in found.drills)


def _tell(found: list[Drilled], table: Table, *, as_json: bool) -> None:
    told = [DrillAnswer.of(each, table.name) for each in found]
    print_json(told) if as_json else typer.echo("\n".join(f"{each.name:<16} {each.title}" for each in told))


def _words(answer: DrillAnswer) -> str:
    if answer.why_not or answer.layout is None or answer.stroke is None:
        return f"{answer.title}: not on this table: {answer.why_not}."
    lines = [f"{answer.title}: {answer.say}"]
    shots: list[DrillAnswer | DrillShot] = [answer, *answer.then]
    for k, shot in enumerate(shots, 1):
        lines += [f"shot {k} of {len(shots)}"] if answer.then else []
        lines += _shot_words(shot)
    return "\n".join([*lines, f"counts: {answer.wanted}; {answer.goal}"])


def _shot_words(shot: DrillAnswer | DrillShot) -> list[str]:
    """How the balls lie, the stroke, what is met, where it ends."""
    if shot.layout is None or shot.stroke is None:
        return []
    balls = ", ".join(f"{ball['id']} {ball['x']:.2f}, {ball['y']:.2f}" for ball in shot.layout["balls"])
    lines = [f"set up: {balls}", f"stroke: {shot.stroke.speed:.2f} m/s along {shot.stroke.direction:.2f}°"]
    if shot.route:
        lines.append("contacts: " + ", ".join(f"{contact.rail} {contact.at:.2f}" for contact in shot.route))
    if shot.into is not None:
        lines.append(f"pots: {shot.layout['target']} into {shot.into}")
    if shot.ends is not None:
        lines.append(f"stops: {shot.ends.x:.2f}, {shot.ends.y:.2f}, within {shot.ends.radius_mm:.0f} mm")
    return lines

"""Where on this table a system can be trusted, and which to prefer where: maps told while they are worked out."""

import math
from dataclasses import replace
from typing import Any, TypeVar

import numpy as np
from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, ConfigDict
from starlette.concurrency import run_in_threadpool

from fandle.app.trust import Progress, preferred, trust_map
from fandle.core.errors import BadInputError
from fandle.core.handbook.page import page_of
from fandle.core.handbook.trust import NONE, Grid, Part, Preferred, TrustMap
from fandle.core.layout.model import Layout
from fandle.core.systems.catalogue import TITLES, known
from fandle.core.table.model import Table
from fandle.core.table.standards import standard_twin
from fandle.store import club
from fandle.store.database import Database
from fandle.store.stored_club import readable_table
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.handbook.page import Asked, Example, asked_of
from fandle.web.tasks import streamed

router = APIRouter(responses=FAULTS)
T = TypeVar("T")
OVER = {1: "Over one rail", 2: "Over two rails", 3: "Over three rails"}
PICTURES = 3  # answers in one, each with the time of a question
LEAST_CELLS = 5  # of a piece of the picture that is named


class MapQuestion(BaseModel):
    """A map: of which system on which example; before: on the table as it was before its check."""

    model_config = ConfigDict(extra="forbid")

    example: Example
    method: str
    before: bool = False


class PreferQuestion(BaseModel):
    """The picture of which system to prefer where, for an example's layout."""

    model_config = ConfigDict(extra="forbid")

    example: Example


@router.post(address.MAP, responses=FAULTS, response_class=StreamingResponse)
async def post_map(question: MapQuestion, request: Request) -> StreamingResponse:
    """A system's map: lines of JSON with columns of cells as they are known, the last one with what it comes to.

    The first line has the grid, `xs` and `ys` in diamonds. A cell is [diamonds off, ball diameters beside the target],
    null where the system does not count or no ball can lie. Closing the connection stops the work.
    """
    method = known(question.method)
    asked, checked = await run_in_threadpool(_mapped, method, question, request)
    return streamed(request, trust_map(method, asked.layout, asked.rails, asked.cue), _Told(checked=checked).of)


def _mapped(method: str, question: MapQuestion, request: Request) -> tuple[Asked, bool]:
    """(what is asked, on the table as it is, or as it was before its check; was the table checked?)."""
    asked = asked_of(page_of(method), question.example, request)
    layout = asked.layout
    checked = layout.table.fitted is not None
    if question.before and not checked:
        raise BadInputError("this table was not checked: there is no map from before", "before")
    if question.before:
        layout = replace(layout, table=before_check(request.app.state.database, layout.table))
    layout.require_target()
    return asked._replace(layout=layout), checked


def before_check(database: Database, table: Table) -> Table:
    """The numbers a checked table had before, where the club still has them; else a standard table of its size."""
    for version in club.versions(database, table.name):
        older = readable_table(version.data)
        if older is not None and older.fitted is None:
            return older
    return standard_twin(table)


class _Told:
    """A map's lines: the grid with the first one, then the columns, and at last the shares."""

    def __init__(self, *, checked: bool) -> None:
        self.checked, self.grid_told = checked, False

    def of(self, found: Part | TrustMap) -> dict[str, Any]:
        """One line."""
        if isinstance(found, TrustMap):
            return {"progress": 1.0, "counted": found.counted, "hits": found.hits, "checked": self.checked}
        columns = len(found.found.grid.xs)
        line: dict[str, Any] = {
            "progress": found.beyond / columns, "from": found.first,
            "cells": [_column(found.found, i) for i in range(found.first, found.beyond)],
        }  # fmt: skip
        if not self.grid_told:
            grid = found.found.grid
            line |= {"xs": grid.xs.round(4).tolist(), "ys": grid.ys.round(4).tolist()}
            self.grid_told = True
        return line


def _column(found: TrustMap, i: int) -> list[list[float] | None]:
    pairs = zip(found.off[i].tolist(), found.off_balls[i].tolist(), strict=True)
    return [None if math.isnan(off) else [round(off, 4), round(balls, 4)] for off, balls in pairs]


@router.post(address.PREFER, responses=FAULTS, response_class=StreamingResponse)
async def post_prefer(question: PreferQuestion, request: Request) -> StreamingResponse:
    """Which system lands nearest from where, over one, two and three rails: progress, at last the pictures."""
    asked = await run_in_threadpool(asked_of, page_of("M1"), question.example, request)
    layout = asked.layout
    layout.require_target()

    def told(found: Progress | list[Preferred]) -> dict[str, Any]:
        if isinstance(found, Progress):
            return {"progress": found.part}
        return {"progress": 1.0, "pictures": [_picture(layout, each) for each in found]}

    return streamed(request, preferred(layout, asked.cue), told, PICTURES)


def _picture(layout: Layout, found: Preferred) -> dict[str, Any]:
    """One picture: its pieces as paths (mm as drawn), the largest ones first, each with a place for its name."""
    free = max(int(np.size(found.best)), 1)
    pieces = []
    for number, method in enumerate(found.methods):
        mine = found.best == number
        if mine.any():
            pieces.append(
                {
                    "method": method, "title": TITLES[method], "href": f"{address.HANDBOOK}/{method}",
                    "share": float(mine.sum() / free), "path": _outline(layout.table, found.grid, mine),
                    "names": _names(layout.table, found.grid, mine),
                }
            )  # fmt: skip
    pieces.sort(key=lambda piece: -float(str(piece["share"])))
    return {
        "rails": found.rails, "title": OVER[found.rails], "pieces": pieces,
        "none": float((found.best == NONE).sum() / free),
    }  # fmt: skip


def _outline(table: Table, grid: Grid, mine: np.ndarray[Any, np.dtype[np.bool_]]) -> str:
    """The cells of one system as a path, neighbouring cells of a column in one piece."""
    half_x, half_y = (grid.xs[1] - grid.xs[0]) / 2, (grid.ys[1] - grid.ys[0]) / 2
    parts = []
    for i, column in enumerate(mine):
        edges = np.flatnonzero(np.diff(np.concatenate(([0], column.astype(np.int8), [0]))))
        for low, beyond in zip(edges[::2], edges[1::2], strict=True):
            left, right = ((grid.xs[i] + sign * half_x) * table.diamond_x * 1000 for sign in (-1, 1))
            top = table.width * 1000 - (grid.ys[beyond - 1] + half_y) * table.diamond_y * 1000
            bottom = table.width * 1000 - (grid.ys[low] - half_y) * table.diamond_y * 1000
            parts.append(f"M{left:.0f} {top:.0f}H{right:.0f}V{bottom:.0f}H{left:.0f}Z")
    return "".join(parts)


def _names(table: Table, grid: Grid, mine: np.ndarray[Any, np.dtype[np.bool_]]) -> list[tuple[float, float]]:
    """A place (mm) in the middle of the largest piece, furthest from its edge; none where all are small."""
    from scipy import ndimage  # a fifth of a second: only who looks at a picture waits for it

    labels, _ = ndimage.label(mine)
    sizes = np.bincount(labels.ravel())[1:]
    if sizes.max(initial=0) < LEAST_CELLS:
        return []
    inside = ndimage.distance_transform_cdt(np.pad(labels == sizes.argmax() + 1, 1))[1:-1, 1:-1]
    i, j = np.unravel_index(inside.argmax(), inside.shape)
    x, y = float(grid.xs[i]) * table.diamond_x * 1000, table.width * 1000 - float(grid.ys[j]) * table.diamond_y * 1000
    return [(round(x), round(y))]

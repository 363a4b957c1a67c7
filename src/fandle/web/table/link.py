"""Links that carry their table with them, so that a friend needs no file.

`own=` holds the table file, compressed (zlib) and written in base64 for addresses. Reading one keeps nothing: whoever
looks at it may put the table into the club, by a key of the page.
"""

import base64
import binascii
import json
import zlib
from collections.abc import Mapping
from urllib.parse import parse_qsl, urlencode

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from fandle.app.library import Known, Library
from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import read_table, table_json
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.table.api import Scene, scene_layout
from fandle.web.table.replies import HrefModel

router = APIRouter()
OWN = "own"
LARGEST_TABLE = 60_000  # bytes of a table file in a link


class Linked(BaseModel):
    """A layout, and the address it is shown at."""

    model_config = ConfigDict(extra="forbid")

    layout: Scene
    query: str = Field(default="", max_length=8000)


def packed(table: Table) -> str:
    """A table as a link carries it."""
    data = json.dumps(table_json(table), separators=(",", ":")).encode()
    return base64.urlsafe_b64encode(zlib.compress(data, 9)).decode().rstrip("=")


def unpacked(text: str) -> Table:
    """The table a link carries; raises BadInputError where it is damaged."""
    try:
        raw = base64.urlsafe_b64decode(text + "=" * (-len(text) % 4))
        reader = zlib.decompressobj()
        data = reader.decompress(raw, LARGEST_TABLE)
        if not reader.eof:
            raise ValueError("cut off, or too large")
    except (ValueError, binascii.Error, zlib.error):
        raise BadInputError(
            "the table in this link is damaged: copy the link again", OWN, code="not_understood"
        ) from None
    return read_table(data)


def known_with(library: Library, query: Mapping[str, str]) -> Known:
    """What the names in a link stand for: its own table comes before the club's. It is kept nowhere."""
    if not query.get(OWN):
        return library.known
    table = library.visit(unpacked(query[OWN]))
    return Known(lambda name: table if name == query.get("table") else library.known.table(name), library.known.cue)


@router.post(address.LINK, responses=FAULTS)
def post_link(linked: Linked, request: Request) -> HrefModel:
    """The address of a layout with its table in it; a standard table needs no carrying."""
    table = scene_layout(linked.layout, request).table
    parts = [(name, value) for name, value in parse_qsl(linked.query) if name != OWN]
    if STANDARDS.get(table.name) != table:
        parts.append((OWN, packed(table)))
    return {"href": f"{address.TABLE_ROOM}?{urlencode(parts, safe=':,;.-')}"}

"""A file that cannot go on says so in a way that whoever reads it notices."""

import io
from collections.abc import Iterator

import pytest
from tests.demo import demo_practice

from fandle.core.errors import BadInputError
from fandle.formats.log import csv_parts, json_parts, read_log
from fandle.web import files


@pytest.mark.parametrize("kind", [json_parts, csv_parts])
def test_an_export_that_breaks_off_is_no_log_any_more(kind: object) -> None:
    """The error goes on to the server, which ends the connection in the middle: a browser shows a failed download."""

    def breaks() -> Iterator[object]:
        yield from demo_practice()[:3]
        raise RuntimeError("a record that nothing reads")

    sent: list[str] = []
    parts = files._together(kind(breaks()))  # type: ignore[operator]
    with pytest.raises(RuntimeError, match="nothing reads"):
        sent.extend(parts)
    text = "".join(sent)
    assert text.endswith(files.BROKEN_OFF)
    assert "demo-" in text
    with pytest.raises(BadInputError, match=r"not (a whole )?JSON"):
        list(read_log(io.BytesIO(text.encode())))

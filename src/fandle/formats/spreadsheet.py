"""Cells of a CSV file: text that a spreadsheet would run as a formula is made harmless, and read back as it was.

A cell that begins with = + - @, a tab or a carriage return is written behind an apostrophe, as spreadsheets mark text;
so is one that begins with an apostrophe itself, so that reading can take exactly one off. Numbers stay numbers.
"""

from typing import Any

STARTS = ("=", "+", "-", "@", "\t", "\r", "'")


def to_cell(value: Any) -> Any:
    """A value as it is written; empty where there is none."""
    if value is None:
        return ""
    return f"'{value}" if isinstance(value, str) and value.startswith(STARTS) else value


def from_cell(text: str) -> str:
    """Text as it was before it was written."""
    return text[1:] if text.startswith("'") and text[1:].startswith(STARTS) else text

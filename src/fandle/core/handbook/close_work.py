"""A page a technique (M20 to M26): words from `techniques/*.toml`, a layout to try it on. Common practice."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from fandle.core.handbook.page import laid
from fandle.core.layout.model import Layout
from fandle.core.table.standards import standard_table
from fandle.core.techniques.registry import TECHNIQUE_PAGES, TECHNIQUE_TITLES, TECHNIQUES
from fandle.core.words.glossary import WORDS

HERE = Path(__file__).parent / "techniques"


@dataclass(frozen=True)
class TechniquePage:
    """A technique's page. line: in one sentence."""

    method: str
    title: str
    line: str
    who: str
    rule: str
    works: str
    fails: str
    dispute: str
    caution: str
    example: Layout


@cache
def technique_page(method: str) -> TechniquePage:
    """A technique's page; KeyError for one nobody knows."""
    data = tomllib.loads((HERE / f"{TECHNIQUE_PAGES[method]}.toml").read_text(encoding="utf-8"))
    example = data.pop("example")
    return TechniquePage(
        method=method, title=TECHNIQUE_TITLES[method], line=WORDS[method],
        example=laid(standard_table(example["table"]), example), **data,
    )  # fmt: skip


def technique_pages() -> list[TechniquePage]:
    """Every technique's page, in the order of their numbers."""
    return [technique_page(method) for method in TECHNIQUES]

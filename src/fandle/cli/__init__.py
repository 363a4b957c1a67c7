"""The same verbs without a browser. Exit 0 done; 2 bad input; 1 no answer exists."""

import sys
from typing import NoReturn

import typer

from fandle.cli import shots, tables, upkeep  # noqa: F401  (their verbs, as help lists them)
from fandle.cli.app import app
from fandle.core.errors import FandleError

BAD_INPUT = 2


def _fail(message: str, code: int = BAD_INPUT) -> NoReturn:
    typer.echo(f"fandle: {message}", err=True)
    raise SystemExit(code)


def main(args: list[str] | None = None) -> NoReturn:
    """Entry point: the one place where errors become exit codes."""
    given = sys.argv[1:] if args is None else args
    try:
        code = app(args=given or ["--help"], standalone_mode=False)
    except typer.TyperException as error:
        told = error.format_message() if hasattr(error, "format_message") else str(error)
        _fail(told.replace("\n", " ") + " (see fandle --help)")
    except (FandleError, OSError) as error:
        _fail(str(error))
    except (KeyboardInterrupt, typer.Abort):
        _fail("stopped", 130)
    raise SystemExit(code or (0 if given else BAD_INPUT))

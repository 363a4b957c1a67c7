"""The same verbs without a browser. Exit 0 done; 2 bad input; 1 no answer exists."""

from typing import NoReturn

import typer
from typer._click.exceptions import ClickException, NoArgsIsHelpError  # typer exports no base class

from fandle.cli import data  # noqa: F401  (its verbs)
from fandle.cli.verbs import app
from fandle.core.errors import FandleError

BAD_INPUT = 2


def _fail(message: str, code: int = BAD_INPUT) -> NoReturn:
    typer.echo(f"fandle: {message}", err=True)
    raise SystemExit(code)


def main(args: list[str] | None = None) -> NoReturn:
    """Entry point: the one place where errors become exit codes."""
    try:
        code = app(args=args, standalone_mode=False)
    except NoArgsIsHelpError as error:
        error.show()
        raise SystemExit(BAD_INPUT) from None
    except ClickException as error:
        _fail(error.format_message().replace("\n", " ") + " (see fandle --help)")
    except (FandleError, OSError) as error:
        _fail(str(error))
    except (KeyboardInterrupt, typer.Abort):
        _fail("stopped", 130)
    raise SystemExit(code or 0)

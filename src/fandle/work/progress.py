"""How far long work is, on a terminal."""

import sys

ABOUT = "compiling the engine, about half a minute, once"


def bar(done: float) -> None:
    """A line on the terminal that fills."""
    width = 40
    full = round(width * done)
    end = "\n" if done >= 1.0 else ""
    sys.stderr.write(f"\r[{'#' * full}{'.' * (width - full)}] {done:4.0%}{end}")
    sys.stderr.flush()


def percent(done: float) -> None:
    """The same for a terminal that is none, in lines."""
    sys.stderr.write(f"{done:.0%}\n")
    sys.stderr.flush()

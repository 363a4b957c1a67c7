"""Compiling the engine before anybody waits for it. Run `python -m fandle.work.warm`, as `make setup` does."""

import sys
import threading
from collections.abc import Callable
from importlib import import_module

from fandle.core.physics import kernel_folder
from fandle.core.physics import warm as kernels
from fandle.core.table.standards import DEFAULT, standard_table
from fandle.work.progress import ABOUT, bar, percent

LATE = ("scipy.special", "scipy.optimize", "scipy.ndimage")  # a command loads them when it needs them


class Warming:
    """The state of the kernels: how far they are (0 to 1), and whether they can be used yet."""

    def __init__(self, *, compiled: bool = False) -> None:
        self.done = 1.0 if compiled else 0.0  # compiled before: loading them takes a second
        self._ready = threading.Event()
        if compiled:
            self._ready.set()

    @property
    def ready(self) -> bool:
        """Is every kernel loaded?"""
        return self._ready.is_set()

    def run(self, say: Callable[[float], None] = lambda _: None, then: Callable[[], object] | None = None) -> None:
        """Compile, or load, all of them; `say` hears the share that is done.

        What is loaded under a first question stops all others meanwhile, so that the libraries are loaded, too.
        """
        for name in LATE:
            import_module(name)
        for self.done in kernels.warm(standard_table(DEFAULT).params()):
            say(self.done)
        if then is not None:
            then()
        self._ready.set()

    def start(self, say: Callable[[float], None], then: Callable[[], object] | None = None) -> None:
        """The same in a thread of its own where it takes long, at once where it does not; `then` before it is ready."""
        if kernel_folder.ready():
            self.run(then=then)
        else:
            threading.Thread(target=self.run, args=(say, then), name="warm", daemon=True).start()


class Elsewhere:
    """Kernels that another process compiles while this one runs them as plain Python."""

    ready = False

    @property
    def done(self) -> float:
        """How far that one is, 0 to 1."""
        return kernel_folder.progress()

    def start(self, say: Callable[[float], None], then: Callable[[], object] | None = None) -> None:
        """Nothing is compiled here."""


def main() -> None:
    """Say what is done, and show how far it is."""
    if kernel_folder.ready():
        Warming().run()
        return
    sys.stderr.write(f"{ABOUT}\n")
    show = bar if sys.stderr.isatty() else percent
    for done in kernels.compile_apart(standard_table(DEFAULT).params()):
        kernel_folder.tell(done)
        show(done)


if __name__ == "__main__":
    main()

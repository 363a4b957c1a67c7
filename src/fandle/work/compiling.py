"""Having the engine compiled by a process of its own. Loads no compiler."""

import os
import subprocess
import sys

from fandle.core.physics import kernel_folder


def compile_meanwhile(*, quiet: bool = False) -> None:
    """Have the kernels compiled, with a bar on the terminal. Where that fails they are compiled as they are called."""
    subprocess.run(
        [sys.executable, "-m", "fandle.work.warm"], check=False, stderr=subprocess.DEVNULL if quiet else None
    )


def compiled() -> None:
    """The same where they are not there yet: nobody waits for half a minute without a word."""
    if not kernel_folder.ready() and "NUMBA_DISABLE_JIT" not in os.environ:
        compile_meanwhile()

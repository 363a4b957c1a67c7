"""Servers that start at once: this process imports and warms everything, then forks one per line of input.

Input: a port. Output: the child's process id. The child serves the data folder in FANDLE_HOME until killed.
"""

import gc
import os
import sys
from pathlib import Path

import uvicorn

from fandle.web.app import create_app
from fandle.web.settings import Settings
from fandle.work.warm import Warming


def main() -> None:
    """Fork a server for every port that is asked for."""
    Warming().run()
    gc.freeze()
    for line in sys.stdin:
        child = os.fork()
        if child == 0:
            app = create_app(Settings(Path(os.environ["FANDLE_HOME"])))
            uvicorn.run(app, host="127.0.0.1", port=int(line), log_level="error", lifespan="off")
            os._exit(0)
        print(child, flush=True)


if __name__ == "__main__":
    main()

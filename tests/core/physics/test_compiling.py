"""Kernels that kernels call are compiled without machine code of their own, and wholly once Python calls them."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from fandle.core.physics import jit

# the kernels behind one ball on the bed, from an empty folder: how often each was compiled
COUNTED = """
import json, sys
from collections import Counter
from functools import cache
from pathlib import Path
import numpy as np
from numba.core import event
from fandle.core.physics import jit
jit.cache_folder = cache(lambda: Path(sys.argv[1]))
from fandle.core.physics.warm import _trunk
from fandle.core.table.standards import standard_table
compiled = Counter()
class Watch(event.Listener):
    def on_start(self, told):
        function = told.data["dispatcher"].py_func
        compiled[f"{function.__module__}.{function.__name__}"] += function.__module__.startswith("fandle.")
    def on_end(self, told): pass
event.register("numba:compile", Watch())
for _, call in _trunk(standard_table("pool-9ft").params())[:3]: call()
print(json.dumps({name.removeprefix("fandle.core.physics."): n for name, n in compiled.items() if n}))
"""


@pytest.fixture
def anew(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """An empty folder for compiled kernels."""
    monkeypatch.setattr(jit, "cache_folder", lambda: tmp_path)
    return tmp_path


def kept(folder: Path, name: str) -> int:
    return len(list(folder.rglob(f"*.{name}-*.nbc")))


def test_an_inner_kernel_is_whole_once_python_calls_it(anew: Path) -> None:
    @jit.kernel
    def one_more(x: float) -> float:
        return x + 1.0

    @jit.kernel
    def twice_one_more(x: float) -> float:
        return 2.0 * one_more(x)

    assert twice_one_more(1.0) == 4.0
    assert (kept(anew, "twice_one_more"), kept(anew, "one_more")) == (1, 0)
    assert one_more(1.0) == 2.0
    assert kept(anew, "one_more") == 1
    assert twice_one_more(2.0) == 6.0


def test_a_whole_kernel_serves_those_that_call_it_later(anew: Path) -> None:
    @jit.kernel
    def half(x: float) -> float:
        return 0.5 * x

    @jit.kernel
    def quarter(x: float) -> float:
        return half(half(x))

    assert half(2.0) == 1.0
    assert quarter(2.0) == 0.5
    assert (kept(anew, "half"), kept(anew, "quarter")) == (1, 1)


def test_every_kernel_is_compiled_once(tmp_path: Path) -> None:
    """Left to itself numba compiles one for every constant it is called with, which doubles the time of it all."""
    done = subprocess.run(
        [sys.executable, "-c", COUNTED, str(tmp_path)], capture_output=True, text=True, check=True, timeout=300
    )
    found = json.loads(done.stdout)
    assert len(found) > 40
    by_constant = {"impulse.step_by", "impulse._scale"}
    assert {name: n for name, n in found.items() if n > 1 and name not in by_constant} == {}

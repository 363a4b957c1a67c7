"""A part of a long claim is tried in every run, the whole of it in `make proofs`.

A test that takes its numbers from `amount` is marked `proof`, so that `make proofs`, which sets FANDLE_PROOFS, runs it
again with the whole ones.
"""

import os

WHOLE = os.environ.get("FANDLE_PROOFS") == "1"


def amount(short: int, whole: int) -> int:
    """How many cases, or a bound that depends on how many: `whole` in the proofs, `short` in every other run."""
    return whole if WHOLE else short

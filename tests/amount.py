"""How much of a long claim is tried: a part in every run, all of it in `make proofs`.

Who marks a test with `proof` and asks `amount` for its numbers has it run twice: short with the others, and whole by
`make proofs`, which sets FANDLE_PROOFS.
"""

import os

WHOLE = os.environ.get("FANDLE_PROOFS") == "1"


def amount(short: int, whole: int) -> int:
    """So many cases: `whole` in the proofs, `short` elsewhere."""
    return whole if WHOLE else short

"""How often every system's own aim hits where its page says that it can be trusted: the shares on the pages.

    PYTHONPATH=. python bench/shares.py [M14 …]

A thousand layouts each, over all five tables, with a house cue; a page tells the share rounded down to a twentieth.
"""

import math
import sys

from campaign.counts import measured

from fandle.core.handbook.page import page_of
from fandle.core.systems.catalogue import METHODS

WANTED, SEED = 1000, 0


def main() -> None:
    """Measure and compare with what is told."""
    for method in sys.argv[1:] or METHODS:
        found = measured(method, SEED, WANTED)
        told, exact = page_of(method).trusted.share, math.floor(20 * found.share) / 20
        print(
            f"{method:4} tried {found.tried:6} counted {found.applied:6} within {found.within:5} "
            f"hits {found.share:.3f} median off {found.median:.2f}  told {told:.2f}, to be told {exact:.2f}",
            flush=True,
        )


if __name__ == "__main__":
    main()

"""How far the cushion's few steps are from many: the experiment behind docs/decisions/impulse-steps.md."""

import math
import random
import statistics

from fandle.core.physics import cushion

TABLE = (0.27, 0.85, 0.20, 0.20)
CASES = 1500
BEYOND_M = 2.0
DIAMOND_M = 0.3175


def cases() -> list[tuple[float, float, float, float, float]]:
    """Random balls on their way into the cushion."""
    rng = random.Random(2)
    found = []
    for _ in range(CASES):
        v, angle = rng.uniform(0.5, 5), rng.uniform(0.15, 1.5)
        vt, vn = v * math.cos(angle), v * math.sin(angle)
        a, b = rng.choice([1, rng.uniform(-1, 2)]), rng.choice([1, rng.uniform(-1, 2)])
        found.append((vt, vn, -a * vn, b * vt, rng.choice([0, rng.uniform(-1.2, 1.2)]) * v))
    return found


def main() -> None:
    """Print median, 99 % and worst error for some numbers of steps."""
    balls = cases()
    truth = [cushion.bounce(cushion.Impact(*ball), cushion.Rubber(*TABLE, 800.0)) for ball in balls]
    print(f"{'steps':>6}{'median':>12}{'99 %':>12}{'worst':>12}   diamonds, {BEYOND_M:g} m beyond the rail")
    for steps in (4, 6, 8, 12, 24):
        errors = []
        for ball, right in zip(balls, truth, strict=True):
            got = cushion.bounce(cushion.Impact(*ball), cushion.Rubber(*TABLE, float(steps)))
            turned = math.atan2(-got[1], got[0]) - math.atan2(-right[1], right[0])
            errors.append(abs(turned) * BEYOND_M / DIAMOND_M)
        errors.sort()
        figures = (statistics.median(errors), errors[int(0.99 * CASES)], errors[-1])
        print(f"{steps:>6}" + "".join(f"{error:>12.1e}" for error in figures))


if __name__ == "__main__":
    main()

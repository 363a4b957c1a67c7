"""One round of the search for lines: strokes swept, their stretches compared line by line, the best stroke played."""

from collections import defaultdict
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from dataclasses import field as field_of
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.aiming import MORE_AIMS, Aimed, aimed, aimed_apart, mark_of, sharpened
from fandle.core.choice.bank_mark import bank_marked
from fandle.core.choice.chance import chances
from fandle.core.choice.error import spread
from fandle.core.choice.field import Field
from fandle.core.choice.inside import FINE_LOOKS, LOOKS, good_inside, pots_inside
from fandle.core.choice.judge import Verdicts
from fandle.core.choice.opponent import safe
from fandle.core.choice.points import WIDE_POINT_RAD, points
from fandle.core.choice.position import EASIEST, Next, next_pot
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.shortlist import PLAINER, Shortlist, plainest, sided, stretch_of, with_plain_ones
from fandle.core.choice.stretch import KIND, Key, Stretch, quick, wide_enough, widest_of_each
from fandle.core.choice.strokes import Tried
from fandle.core.choice.sweep import Look, hits, looks
from fandle.core.choice.wish import NEARLY, Wish
from fandle.core.player.draws import FEW, Draws
from fandle.core.shot.side import running
from fandle.core.steps import Steps

Floats = NDArray[np.float64]
OF_A_PACE = 2  # strokes of a line and a speed that are looked at closely, the best by estimate
NEAR_ENOUGH = 0.1  # of what a stroke counts for that leaves the cue ball at the edge of its zone: 3 diamonds off
OPEN = 0.9  # of a ball's whole width: a ball that shows so much needs no curve
CLEARER = 0.01  # by so much another stroke has to serve better than the one known
HOPELESS = 0.02  # a line less likely than that by estimate is none
MOST_KICK_TIPS = 1.0  # more side is for position, not for a kick
CURVED_RAILS = 1  # over which a slight curve is tried


@dataclass(frozen=True)
class Search:
    """A field, what is wanted on it, and the draws that every line is played with."""

    field: Field
    wish: Wish
    drawn: Draws
    _open: set[int] = field_of(default_factory=set)

    @cached_property
    def short(self) -> Shortlist:
        """How many lines there is room for."""
        points, aims = self.field.court.rules.counts == "point", 1 + MORE_AIMS if self.wish.goal == "safe" else 1
        return Shortlist.of(points=points, every=self.wish.every, aims=aims)

    def lines(self, every: Sequence[Tried], known: Mapping[Key, Ranked], *, only: bool = False) -> Steps[list[Ranked]]:
        """The lines at these strokes and those known already, each with the best of its strokes, in steps.

        only: no other lines than those known.
        """
        carom = self.field.court.rules.counts == "point"
        seen = yield from looks(self.field, every, whole=carom)
        found = yield from self._stretches(seen, carom=carom)
        aims = [a for stretch in found if not only or stretch.key in known for a in self._aims(stretch)]
        wanted = self.short.best_of_each(a for a in aims if self._hopeful(a.stretch, a.estimate))
        kept, fresh = yield from self._compared(wanted, known)
        sharp = yield from self._sharp(fresh)
        played = yield from chances(self.field, sharp, self.wish.player, self.drawn, self.ahead)
        best = {line.key: line for line in kept}
        for a, chance in zip(sharp, played, strict=True):
            found_now = Ranked(a, chance)
            best[a.stretch.key] = self._better(found_now, best.get(a.stretch.key) or known.get(a.stretch.key))
        return list(best.values())

    def _aims(self, stretch: Stretch) -> list[Aimed]:
        """Where in a stretch to aim: in several places where what is left for the opponent counts."""
        if self.wish.goal == "safe":
            return aimed_apart(self.field, stretch, self.wish.player)
        return [aimed(self.field, stretch, self.wish.player)]

    def _sharp(self, fresh: Sequence[Aimed]) -> Steps[list[Aimed]]:
        """Aims with the ends of their windows cut sharply; without those whose own part turns out to be none."""
        sharp = [] if not fresh else (yield from sharpened(self.field, fresh))
        return [bank_marked(self.field, a) for a in sharp if wide_enough(a.stretch)]

    def others(self, told: Collection[Key]) -> Steps[list[Aimed]]:
        """The lines that there was no room for, aimed, likeliest first."""
        left = [stretch for key, stretch in self.short.left.items() if key not in told]
        aims = [aimed(self.field, stretch, self.wish.player) for stretch in left]
        found = yield from self._sharp([a for a in aims if self._hopeful(a.stretch, a.estimate)])
        return sorted(found, key=lambda a: -a.estimate)

    def _better(self, found: Ranked, before: Ranked | None) -> Ranked:
        """The line with the stroke found, unless the one before does as well on all draws: side has to gain more."""
        if before is None:
            return found
        least = {0: CLEARER, 1: PLAINER, -1: -PLAINER}[sided(found) - sided(before)]
        if self.wish.merit(found.chance) < self.wish.merit(before.chance) + least:
            return before
        return replace(found, here=before.here)

    @property
    def hides(self) -> bool:
        """Is there a ball on that does not lie open, so that a curve may serve?"""
        return bool(set(self.field.court.on) - self._open)

    @property
    def ahead(self) -> Next:
        """The ball that is to be potted next: whichever is easiest where none is asked for."""
        return self.wish.then.next or EASIEST

    def _worth_of(self, key: Key, told: Verdicts, rests: Floats) -> Floats:
        """What strokes played without error are worth, by what they come to: as `Wish.worth` of a chance."""
        wish, aim = self.wish, self.wish.player.direction_deg
        reached = told.pot if wish.goal == "pot" else told.legal
        table = self.field.layout.table
        if wish.goal == "safe":
            found, _ = safe(self.field, reached & wish.then.in_zones(table, rests[:, 0]), rests, aim)
            return found.astype(float)
        found = reached & wish.then.in_zones(table, rests[:, 0])
        if not wish.chained:
            return reached * wish.then.nearness(table, rests[:, 0])
        return next_pot(self.field, found, rests, self.ahead, key.target, aim).p

    def _stretches(self, seen: Sequence[Look], *, carom: bool) -> Steps[list[Stretch]]:
        """What is wanted in the sweeps, with where in it it is reached."""
        if carom:
            found = [stretch for look in seen for stretch in points(self.field, look)]
            return self._shortlist(found)
        met = [stretch for look in seen for stretch in hits(self.field, look) if self._worth(stretch)]
        straight = self._straight(met)
        self._open.update(self.field.number(ball) for ball, wide in straight.items() if self._is_open(ball, wide))
        met = self._without_needless_curves(met, straight)
        if self.wish.goal == "pot":
            found = yield from pots_inside(self.field, met, self.wish.pocket, self._worth_of)
            return found
        plain = self.wish.goal == "hit" and not self.wish.then.placed
        looks_in = LOOKS if plain else FINE_LOOKS
        found = yield from good_inside(
            self.field, self._shortlist(met), looks_in, self._worth_of, whatever=self.whatever
        )
        return [s for s in found if not (plain and s.tried.crawls) or s.key.kind == KIND]

    def _worth(self, stretch: Stretch) -> bool:
        """Is this stroke one to try on this line? No more than half a tip of reverse, no side on a straight shot."""
        tried, rails = stretch.tried, stretch.key.rails
        if tried.crawls:
            return not rails
        if tried.lengths is None or tried.stroke.elevation > 0.0:
            return tried.lengths is None or len(rails) <= CURVED_RAILS
        if not rails:
            return tried.tips == 0.0 or self.wish.chained
        if abs(tried.tips) > MOST_KICK_TIPS:
            return False
        return abs(tried.tips) < 1.0 or running(tried.tips, rails[0], stretch.middle) == "running"

    def _straight(self, found: Sequence[Stretch]) -> dict[str, float]:
        """How wide each ball is met straight, rad."""
        straight: dict[str, float] = defaultdict(float)
        for stretch in found:
            if stretch.key.kind in ("straight", "push"):
                straight[stretch.key.target] = max(straight[stretch.key.target], stretch.wide)
        return straight

    def _is_open(self, ball: str, straight: float) -> bool:
        return straight >= OPEN * self.field.whole(ball)

    def _without_needless_curves(self, found: Sequence[Stretch], straight: Mapping[str, float]) -> list[Stretch]:
        """Without curves at a ball that is met straight as widely, or all but, and over a rail a level cue serves."""
        level = {stretch.key for stretch in found if stretch.tried.stroke.elevation == 0.0}

        def helps(curve: Stretch) -> bool:
            plain = straight.get(curve.key.target, 0.0)
            return curve.wide > plain and not self._is_open(curve.key.target, plain)

        def needed(s: Stretch) -> bool:
            raised = s.tried.lengths is not None and s.tried.stroke.elevation > 0.0
            if s.key.kind == "curve" or not raised:
                return s.key.kind != "curve" or helps(s)
            return s.key not in level and not self._is_open(s.key.target, straight.get(s.key.target, 0.0))

        return [s for s in found if needed(s)]

    @property
    def whatever(self) -> bool:
        """Is every way told, whatever its chance? At the stroke given the player asks which there are."""
        return self.wish.goal == "hit" and not self.wish.usual and not self.wish.then.placed

    def _hopeful(self, stretch: Stretch, chance: float) -> bool:
        """Is it worth looking at? A wide point is told whatever its chance, and so is a ball that lies open."""
        if self.whatever:
            return True
        least = HOPELESS * (NEARLY * NEAR_ENOUGH if self.wish.then.placed else 1.0)
        wide = stretch.key.kind == "point" and stretch.wide >= WIDE_POINT_RAD
        return chance >= least or wide or stretch.key.open_shot

    def _shortlist(self, found: Sequence[Stretch]) -> list[Stretch]:
        """Of each line and speed the few strokes with the widest stretches, as the player's scatter sees them."""
        table, player = self.field.layout.table, self.wish.player
        by_pace: dict[object, list[tuple[float, Stretch]]] = defaultdict(list)
        for stretch in widest_of_each(found):
            sigma = spread(table, player, mark_of(self.field, stretch, stretch.middle))
            by_pace[stretch.key, stretch.tried.lengths].append((quick(stretch, sigma), stretch))
        short = []
        for some in by_pace.values():
            some.sort(key=lambda each: (-round(each[0], 2), abs(each[1].tried.tips)))
            kept = with_plain_ones(some, OF_A_PACE, [not each[1].tried.tips for each in some])
            short += [each for each in kept if self._hopeful(each[1], each[0])]
        keys = self.short.likeliest(short)
        return [stretch for _, stretch in short if stretch.key in keys]

    def _compared(
        self, wanted: Mapping[Key, list[Aimed]], known: Mapping[Key, Ranked]
    ) -> Steps[tuple[list[Ranked], list[Aimed]]]:
        """(lines whose known stroke stays, aims that are still to be played on all draws), the likeliest lines only."""
        if not known and all(len(some) == 1 for some in wanted.values()):  # nothing to compare
            alone = [some[0] for some in wanted.values()]
            return [], self.short.leading([(a.estimate, a.stretch, a) for a in alone])
        every = [a for some in wanted.values() for a in some]
        few = self.drawn.few
        screen = yield from chances(self.field, every, self.wish.player, few, self.ahead)
        tried: dict[Key, list[tuple[float, Aimed | Ranked]]] = defaultdict(list)
        for key, line in known.items():
            tried[key].append((self.wish.merit(line.chance, FEW), line))
        for a, chance in zip(every, screen, strict=True):
            tried[a.stretch.key].append((self.wish.merit(chance), a))
        picked = {key: plainest(some) for key, some in tried.items()}
        firsts = [(some[0][0], stretch_of(some[0][1]), key) for key, some in picked.items()]
        leading = set(self.short.leading(firsts))
        chosen = [each for key, some in picked.items() if key in leading for each in some]
        fresh = [a for share, a in chosen if isinstance(a, Aimed) and (share > 0.0 or self._hopeful(a.stretch, 0.0))]
        played_anew = {a.stretch.key for a in fresh}
        kept = [line for _, line in chosen if isinstance(line, Ranked) and line.key not in played_anew]
        return kept, fresh

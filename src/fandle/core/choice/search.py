"""One round of the search for lines: strokes swept, their stretches compared line by line, the best stroke played."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from fandle.core.choice.aiming import Aimed, aimed, mark_of, sharpened
from fandle.core.choice.bank_mark import bank_marked
from fandle.core.choice.chance import Chance, chances
from fandle.core.choice.error import spread
from fandle.core.choice.field import Field
from fandle.core.choice.inside import FINE_LOOKS, LOOKS, good_inside, pots_inside
from fandle.core.choice.judge import Verdicts
from fandle.core.choice.opponent import safe
from fandle.core.choice.points import WIDE_POINT_RAD, points
from fandle.core.choice.position import EASIEST, Next, next_pot
from fandle.core.choice.stretch import KIND, Key, Stretch, quick
from fandle.core.choice.strokes import Tried
from fandle.core.choice.sweep import Look, hits, looks
from fandle.core.choice.wish import Wish
from fandle.core.player.draws import Draws
from fandle.core.shot.side import running
from fandle.core.steps import Steps

Floats = NDArray[np.float64]
SCREENED = 48  # of the draws that the strokes of a line are compared on
OF_A_PACE, OF_ALL = 2, 5  # strokes of a line that are compared: the best by estimate of each speed, of all
MOST_COMPARED = 30  # lines, the most promising by estimate
MOST_LINES = 24
MOST_POINTS = 48
OPEN = 0.9  # of a ball's whole width: a ball that shows so much needs no curve
CLEARER = 0.01  # by so much another stroke has to serve better than the one known
HOPELESS = 0.02  # a line less likely than that by estimate is none
CURVED_RAILS = 1  # over which a slight curve is tried


@dataclass(frozen=True)
class Ranked:
    """A line with its chance. here: its chance at the stroke given, where it exists with that one."""

    aim: Aimed
    chance: Chance
    here: Chance | None = None

    @property
    def key(self) -> Key:
        """What line it is."""
        return self.aim.stretch.key


@dataclass(frozen=True)
class Search:
    """A field, what is wanted on it, and the draws that every line is played with."""

    field: Field
    wish: Wish
    drawn: Draws

    def lines(self, every: Sequence[Tried], known: Mapping[Key, Ranked], only: bool = False) -> Steps[list[Ranked]]:
        """The lines at these strokes and those known already, each with the best of its strokes, in steps.

        only: no other lines than those known.
        """
        carom = self.field.court.rules.counts == "point"
        seen = yield from looks(self.field, every, whole=carom)
        found = yield from self._stretches(seen, carom)
        aims = [aimed(self.field, stretch, self.wish.player) for stretch in found if not only or stretch.key in known]
        wanted = _best_of_each(a for a in aims if _hopeful(a.stretch, a.estimate))
        kept, fresh = yield from self._compared(wanted, known)
        sharp = [] if not fresh else (yield from sharpened(self.field, fresh))
        sharp = [bank_marked(self.field, a) for a in sharp]
        played = yield from chances(self.field, sharp, self.wish.player, self.drawn, self.ahead)
        return [*kept, *(self._better(Ranked(a, c), known) for a, c in zip(sharp, played, strict=True))]

    def _better(self, found: Ranked, known: Mapping[Key, Ranked]) -> Ranked:
        """The line with the stroke found, unless the one known does as well on all draws."""
        before = known.get(found.key)
        if before is None:
            return found
        if self.wish.share(found.chance) < self.wish.share(before.chance) + CLEARER:
            return before
        return replace(found, here=before.here)

    @property
    def most(self) -> int:
        """How many lines are told: of points more, since a wide one is never left out."""
        return MOST_POINTS if self.field.court.rules.counts == "point" else MOST_LINES

    @property
    def ahead(self) -> Next:
        """The ball that is to be potted next: whichever is easiest where none is asked for."""
        return self.wish.then.next or EASIEST

    def _worth_of(self, key: Key, told: Verdicts, rests: Floats) -> Floats:
        """What strokes played without error are worth, by what they come to: as `Wish.worth` of a chance."""
        wish, aim = self.wish, self.wish.player.direction_deg
        reached = told.pot if wish.goal == "pot" else told.legal
        found = reached & wish.then.in_zones(self.field.layout.table, rests[:, 0])
        if wish.goal == "safe":
            found, _ = safe(self.field, found, rests, aim)
        if not wish.chained:
            return found.astype(float)
        return next_pot(self.field, found, rests, self.ahead, key.target, aim).p

    def _stretches(self, seen: Sequence[Look], carom: bool) -> Steps[list[Stretch]]:
        """What is wanted in the sweeps, with where in it it is reached."""
        if carom:
            found = [stretch for look in seen for stretch in points(self.field, look)]
            return self._shortlist(found)
        met = [stretch for look in seen for stretch in hits(self.field, look) if self._worth(stretch)]
        met = self._without_needless_curves(met)
        if self.wish.goal == "pot":
            found = yield from pots_inside(self.field, met, self.wish.pocket, self._worth_of)
            return found
        plain = self.wish.goal == "hit" and not self.wish.then.placed
        found = yield from good_inside(self.field, self._shortlist(met), LOOKS if plain else FINE_LOOKS, self._worth_of)
        return [s for s in found if not (plain and s.tried.crawls) or s.key.kind == KIND]

    def _worth(self, stretch: Stretch) -> bool:
        """Is this stroke one to try on this line? No more than half a tip of reverse, no side on a straight shot."""
        tried, rails = stretch.tried, stretch.key.rails
        if tried.crawls:
            return not rails
        if tried.lengths is None or tried.stroke.elevation > 0.0:
            return tried.lengths is None or len(rails) <= CURVED_RAILS
        if not rails:
            return tried.tips == 0.0 or (self.wish.chained and abs(tried.tips) < 1.0)
        return abs(tried.tips) < 1.0 or running(tried.tips, rails[0], stretch.middle) == "running"

    def _without_needless_curves(self, found: Sequence[Stretch]) -> list[Stretch]:
        """Without curves at a ball that is met straight as widely, or all but, and over a rail a level cue serves."""
        level = {stretch.key for stretch in found if stretch.tried.stroke.elevation == 0.0}
        straight: dict[str, float] = defaultdict(float)
        for stretch in found:
            if stretch.key.kind in ("straight", "push"):
                straight[stretch.key.target] = max(straight[stretch.key.target], stretch.wide)

        def helps(curve: Stretch) -> bool:
            plain = straight[curve.key.target]
            return curve.wide > plain and plain < OPEN * self.field.whole(curve.key.target)

        def needed(s: Stretch) -> bool:
            raised = s.tried.lengths is not None and s.tried.stroke.elevation > 0.0
            if s.key.kind == "curve" or not raised:
                return s.key.kind != "curve" or helps(s)
            return s.key not in level and straight[s.key.target] < OPEN * self.field.whole(s.key.target)

        return [s for s in found if needed(s)]

    def _shortlist(self, found: Sequence[Stretch]) -> list[Stretch]:
        """Of each line and speed the few strokes with the widest stretches, as the player's scatter sees them."""
        table, player = self.field.layout.table, self.wish.player
        by_pace: dict[object, list[tuple[float, Stretch]]] = defaultdict(list)
        for stretch in found:
            sigma = spread(table, player, mark_of(self.field, stretch, stretch.middle))
            by_pace[stretch.key, stretch.tried.lengths].append((quick(stretch, sigma), stretch))
        short = []
        for some in by_pace.values():
            some.sort(key=lambda each: (-round(each[0], 2), abs(each[1].tried.tips)))
            short += [each for each in some[:OF_A_PACE] if _hopeful(each[1], each[0])]
        keys = _likeliest((chance, stretch.key) for chance, stretch in short)
        return [stretch for _, stretch in short if stretch.key in keys]

    def _compared(
        self, wanted: Mapping[Key, list[Aimed]], known: Mapping[Key, Ranked]
    ) -> Steps[tuple[list[Ranked], list[Aimed]]]:
        """(lines whose known stroke stays, aims that are still to be played on all draws), the likeliest lines only."""
        if not known and all(len(some) == 1 for some in wanted.values()):  # nothing to compare
            alone = sorted((some[0] for some in wanted.values()), key=lambda a: -a.estimate)
            return [], alone[: self.most]
        every = [a for some in wanted.values() for a in some]
        few = self.drawn.first(SCREENED)
        screen = yield from chances(self.field, every, self.wish.player, few, self.ahead)
        best: dict[Key, tuple[float, Aimed | Ranked]] = {
            key: (self.wish.share(line.chance, SCREENED), line) for key, line in known.items()
        }
        for a, chance in zip(every, screen, strict=True):
            share, key = self.wish.share(chance), a.stretch.key
            if key not in best or share > best[key][0]:
                best[key] = share, a
        order = sorted(best.values(), key=lambda each: -each[0])[: self.most]
        kept = [line for _, line in order if isinstance(line, Ranked)]
        return kept, [a for share, a in order if isinstance(a, Aimed) and (share > 0.0 or _hopeful(a.stretch, 0.0))]


def _hopeful(stretch: Stretch, chance: float) -> bool:
    """Is it worth looking at? A wide point is told whatever its chance: there may be no other."""
    return chance >= HOPELESS or (stretch.key.kind == "point" and stretch.wide >= WIDE_POINT_RAD)


def _best_of_each(aims: Iterable[Aimed]) -> dict[Key, list[Aimed]]:
    """The most promising strokes of each line, by estimate, plain ones before others that are as good."""
    by_key: dict[Key, list[Aimed]] = defaultdict(list)
    for a in aims:
        by_key[a.stretch.key].append(a)
    for some in by_key.values():
        some.sort(key=lambda a: (-round(a.estimate, 2), abs(a.stretch.tried.tips) + abs(a.stretch.tried.height)))
    keys = _likeliest((some[0].estimate, key) for key, some in by_key.items())
    return {key: some[:OF_ALL] for key, some in by_key.items() if key in keys}


def _likeliest(found: Iterable[tuple[float, Key]]) -> set[Key]:
    """The most promising lines, and of every ball and kind the best one: no ball on is left out for the others."""
    order = sorted(found, key=lambda each: -each[0])
    keys: dict[Key, None] = {}
    firsts: dict[tuple[str, bool], Key] = {}
    for _, key in order:
        firsts.setdefault((key.target, bool(key.rails)), key)
        keys.setdefault(key)
    most = MOST_POINTS if any(key.kind == "point" for key in keys) else MOST_COMPARED
    return {*list(keys)[:most], *firsts.values()}


def best_first(field: Field, lines: Iterable[Ranked], wish: Wish) -> tuple[Ranked, ...]:
    """By the chance of the goal, then of a hit, then by the estimate; those at the ball chosen among several on lead.

    Of the reds any will do: none of them is chosen.
    """
    chosen = field.chosen

    def rank(line: Ranked) -> tuple[bool, float, float, float, int]:
        share = wish.share(line.chance)
        other = chosen is not None and line.key.target != chosen
        return other, -share, -line.chance.share("hit").p, -line.aim.estimate, len(line.key.rails)

    return tuple(sorted(lines, key=rank))


def at_this_stroke(lines: Iterable[Ranked]) -> list[Ranked]:
    """Lines found at the stroke given: their chance is the one there."""
    return [replace(line, here=line.chance) for line in lines]

"""Answers for a person at a terminal."""

from fandle.core.choice.report import Plan
from fandle.core.lines.held import Instead
from fandle.core.lines.marks import over
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.shot.play import Shot
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.verdict import room_said, verdict_of
from fandle.core.techniques.base import NoTechnique, Technique
from fandle.core.words.balls import spoken


def shot(played: Shot) -> str:
    """A shot, one line an event, then what is down."""
    lines = []
    for event in played.events:
        what = event.rail or event.other or ""
        if event.pocket:
            what = f"{event.pocket} pocket"
        lines.append(
            f"{event.t:6.3f} s  {event.ball:<6} {event.kind:<6} {what:<16} "
            f"at {event.x:.3f}, {event.y:.3f}  {event.speed:.2f} m/s"
        )
    down = [f"{spoken(ball)} in {pocket}" for ball, pocket in played.potted]
    lines.append("down: " + (", ".join(down) or "nothing"))
    return "\n".join(lines)


def aim(answer: Aim | Refusal) -> str:
    """An aim: the mark first, then its chain."""
    if isinstance(answer, Refusal):
        return f"no: {answer.reason}"
    best = answer.best
    rail = best.mark_rail
    sight = "" if best.corrected.sight is None else f", or sight through {best.corrected.sight:.2f}"
    lines = [
        f"aim at the {rail} rail, {best.corrected.nose:.2f} at the nose{sight}",
        *_bank_lines(best),
        f"mirror in the noses  {best.mirror.nose:6.2f}",
    ]
    lines += [f"{link.link:<20} {link.shift:+6.2f}" for link in answer.chain if abs(link.shift) >= 0.005]
    lines.append(f"window of the hit {best.window_less_mm:.0f} mm less, {best.window_more_mm:.0f} mm more")
    return "\n".join(lines)


def _bank_lines(best: Solution) -> list[str]:
    if best.contact is None:
        push = ["it is frozen to the cue ball: this is a push, both go on together"] if best.push else []
        return [*push, *_pot_lines(best)]
    x, y = best.contact.ghost
    return [
        f"that is the object ball's mark, into {best.pocket}",
        f"the cue ball meets it from {x:.2f}, {y:.2f}: a cut of {best.contact.cut_deg:.0f}°",
    ]


def _pot_lines(best: Solution) -> list[str]:
    if best.pot is None:
        return []
    pot = best.pot
    window = f"{pot.less_mm:.0f} mm less, {pot.more_mm:.0f} mm more"
    lines = [f"pots {spoken(pot.ball)} in {pot.pocket}: {best.fullness:.0%} full{pot.by(best.target)}, {window}"]
    return [*lines, "the cue ball goes down, too"] if pot.in_off else lines


def instead(answer: Instead) -> str:
    """A stroke for a held mark."""
    unit = " m/s" if answer.change == "speed" else " of the radius"
    return f"hold the mark and play {answer.change} {answer.value:.3f}{unit}"


def counts(found: list[Count] | list[NoCount] | list[Count | NoCount]) -> str:
    """Counts, one block each."""
    blocks = []
    for c in found:
        if isinstance(c, NoCount):
            blocks.append(f"{c.method} {c.title}: does not apply ({c.reason})")
            continue
        lines = [
            f"{c.method} {c.title}, {over(c.rails)}{f' into {c.pocket}' if c.pocket else ''}",
            *c.steps,
            c.say,
            f"remember {c.mark.say}{f', the number {c.own_say}' if c.own_say else ''}",
            *_landing(c),
        ]
        blocks.append("\n".join([*lines, *(told for told in (c.blocked, c.squirt) if told)]))
    return "\n\n".join(blocks)


def _landing(c: Count) -> list[str]:
    """What happens when a count is played, verdict first."""
    if c.contact is not None:
        return [f"{'drops' if c.potted else 'does not drop'} in {c.pocket}: lands {c.lands.where}"]
    return [f"{verdict_of(c.lands)}, {room_said(c.lands, c.pocket)}"]


def technique(found: Technique | NoTechnique) -> str:
    """A technique, its ways and what it forgives."""
    if isinstance(found, NoTechnique):
        return f"{found.method} {found.title}: does not apply ({found.reason})"
    less, more = found.room_mm
    return "\n".join([
        f"{found.method} {found.title}, {over(found.rails)}{f' into {found.pocket}' if found.pocket else ''}",
        *found.steps, found.say, f"aim at the {found.mark_rail} rail, {found.mark.say}",
        f"room for error: {less:.0f} mm less, {more:.0f} mm more; {found.moment.fullness:.0%} of the ball",
    ])  # fmt: skip


def plan(found: Plan) -> str:
    """A plan, a line each: chance, way, mark, stroke and the first reason; then what is refused."""
    told = [f"on: {', '.join(spoken(name) for name in found.on) or 'no ball'}", *([found.say] if found.say else [])]
    for line in found.lines:
        share = line.wanted
        low, high = share.range
        way = f"{spoken(line.target)} {over(line.rails)}" if line.kind != "bank" else f"bank {spoken(line.target)} "
        if line.kind == "bank":
            way += over(line.rails)
        into = f" into {line.pocket}" if line.pocket else ""
        at = line.mark.say if line.aim is None else f"{line.mark_rail} {line.aim.nose:.2f}"
        mark = f", {at}" if line.rails else ""
        why = next((reason.say for reason in (*line.cons, *line.pros)), "")
        stroke = f"{line.stroke.speed:.1f} m/s" + (f", side {line.stroke.side:+.2f}" if line.stroke.side else "")
        told.append(f"{share.p:4.0%} ({low:.0%} to {high:.0%})  {way}{into}{mark}, {stroke}; {why}".rstrip("; "))
    told += [f"{found.more} more: ask for them with --all"] if found.more else []
    told += [f"no: {no.kind} to {spoken(no.target)}, {no.reason}" for no in found.refused]
    return "\n".join(told)

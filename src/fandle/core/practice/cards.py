"""What was missed comes back: a card a topic, its time by the `fsrs` package. A topic is a kind of question."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from fsrs import Card, Rating, Scheduler

from fandle.core.errors import BadInputError

SCHEDULER = Scheduler(enable_fuzzing=False)
SUM = "sum"  # the topic for which one has to reckon
TOPICS: dict[str, str] = {  # and what each asks
    "one rail": "name the mark over one rail",
    "two rails": "name the mark over two rails",
    "three rails": "name the mark over three rails",
    "rail": "which rail is open?",
    "side": "which side is running?",
    "change": "short or long after a change?",
    "contacts": "where is the second rail met?",
    SUM: "count it by your own system",
}


def _is_card(text: Any) -> bool:
    try:
        return Card.from_json(text).due.tzinfo is not None
    except (ValueError, TypeError, KeyError, AttributeError):
        return False


@dataclass(frozen=True)
class Deck:
    """A player's cards: by topic, as the package writes them; a topic without one was never asked."""

    cards: Mapping[str, str]

    @classmethod
    def read(cls, kept: Mapping[Any, Any]) -> "Deck":
        """The deck as it was kept; a card that cannot be read is left out, so that its topic is asked anew."""
        return cls({topic: text for topic, text in kept.items() if topic in TOPICS and _is_card(text)})

    def due(self, now: datetime, *, sums: bool = True) -> str:
        """The topic to be asked: the one that is due longest, then the first that was never asked, then the next.

        sums: false leaves out the topic that is a sum.
        """
        asked = [topic for topic in TOPICS if sums or topic != SUM]
        known = {topic: Card.from_json(text) for topic, text in self.cards.items() if topic in asked}
        late = [topic for topic, card in known.items() if card.due <= now]
        if late:
            return min(late, key=lambda topic: known[topic].due)
        new = [topic for topic in asked if topic not in known]
        return new[0] if new else min(known, key=lambda topic: known[topic].due)

    def answered(self, topic: str, grade: int, now: datetime) -> "Deck":
        """The deck after an answer, graded 1 (again) to 4 (easy)."""
        if topic not in TOPICS:
            raise BadInputError(f"unknown topic {topic!r}: use one of {', '.join(TOPICS)}", "topic", code="unknown")
        text = self.cards.get(topic)
        card = Card() if text is None else Card.from_json(text)
        card, _ = SCHEDULER.review_card(card, Rating(grade), now.astimezone(UTC))
        return Deck({**self.cards, topic: card.to_json()})

"""Tables of the database. Layouts and tables are kept as the JSON of their file formats."""

from typing import Any

from sqlalchemy import JSON, Dialect, Float, ForeignKey, Index, Integer, String, TypeDecorator, text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Words(TypeDecorator[str]):
    """Text; whatever else stands in the column, as SQLite lets it, is read as text, too."""

    impl = String
    cache_ok = True

    def process_result_value(self, value: Any, dialect: Dialect) -> str | None:
        """What the column holds, as text."""
        if isinstance(value, bytes):
            return value.decode("utf-8", "replace")
        return value if value is None else str(value)


class Real(TypeDecorator[float]):
    """A number; whatever else stands in the column is read as none."""

    impl = Float
    cache_ok = True

    def process_result_value(self, value: Any, dialect: Dialect) -> float | None:
        """What the column holds, if it is a finite number."""
        good = isinstance(value, int | float) and abs(value) < MOST
        return float(value) if good else None


class Whole(TypeDecorator[int]):
    """A whole number; whatever else stands in the column is read as 1."""

    impl = Integer
    cache_ok = True

    def process_result_value(self, value: Any, dialect: Dialect) -> int:
        """What the column holds, if it is a whole number."""
        return value if isinstance(value, int) else 1


MOST = 1e100  # of a number in a record: its square is finite


class Base(DeclarativeBase):
    """Root of all records. A record may be malformed: its columns are read as far as that goes."""

    type_annotation_map = {str: Words, float: Real}  # noqa: RUF012


class Club(Base):
    """A club."""

    __tablename__ = "club"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)


class Player(Base):
    """A player, known by a nickname; one of them plays here."""

    __tablename__ = "player"
    __table_args__ = (Index("ix_player_me", "is_me", unique=True, sqlite_where=text("is_me")),)
    id: Mapped[int] = mapped_column(primary_key=True)
    nickname: Mapped[str] = mapped_column(unique=True)
    club_id: Mapped[int] = mapped_column(ForeignKey("club.id"))
    is_me: Mapped[bool] = mapped_column(server_default="0")


class ClubTable(Base):
    """A table that stands in a club; `data` is a standard table's name or a whole table object.

    A home-made table is labelled with its own name. One that was taken off keeps its row, for the log's sake
    and to be brought back: `gone_at` says since when.
    """

    __tablename__ = "club_table"
    __table_args__ = (Index("ix_club_table_label", "label", unique=True, sqlite_where=text("gone_at IS NULL")),)
    id: Mapped[int] = mapped_column(primary_key=True)
    label: Mapped[str]
    club_id: Mapped[int] = mapped_column(ForeignKey("club.id"))
    data: Mapped[object] = mapped_column(JSON)
    gone_at: Mapped[str | None]


class TableVersion(Base):
    """The numbers a table had when attempts were made on it. Written once, never changed."""

    __tablename__ = "table_version"
    __table_args__ = (Index("ix_table_version", "table_id", "number", unique=True),)
    id: Mapped[int] = mapped_column(primary_key=True)
    table_id: Mapped[int] = mapped_column(ForeignKey("club_table.id"))
    number: Mapped[int]
    since: Mapped[str]
    data: Mapped[object] = mapped_column(JSON)


class ClubCue(Base):
    """A cue of the club: ball mass over end mass, and its tip."""

    __tablename__ = "club_cue"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)
    end_ratio: Mapped[float] = mapped_column()
    tip_mm: Mapped[float] = mapped_column()


class NamedLayout(Base):
    """A layout kept under a name; `data` is a layout file, `note` says what makes it worth solving."""

    __tablename__ = "named_layout"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)
    note: Mapped[str]
    data: Mapped[object] = mapped_column(JSON)


class Attempt(Base):
    """One attempt on a real table. `uid` is the page's own name for it: the same uid is the same attempt.

    Its table is named by id, so that renaming one does not split its log, and the table's numbers by version, so
    that changing them does not mix it. `title` and `table_label` are what both were called then.
    kind: kick, bank or straight, `pocket` where the ball was to go. touched: further contacts, [{rail, at}].
    system: the way of counting on screen when it was noted, "" where it does not count this line.
    """

    __tablename__ = "attempt"
    __table_args__ = (
        Index(
            "ix_attempt_figures", "deleted_at", "table_id", "table_version_id", "set_up", "result", "off",
        ),
        Index("ix_attempt_listed", "deleted_at", "made_at", "id"),
    )  # fmt: skip
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[str]
    set_up: Mapped[str] = mapped_column(index=True)
    title: Mapped[str]
    table_label: Mapped[str]
    table_id: Mapped[int | None] = mapped_column(ForeignKey("club_table.id"))
    table_version_id: Mapped[int | None] = mapped_column(ForeignKey("table_version.id"))
    player_id: Mapped[int | None] = mapped_column(ForeignKey("player.id"))
    layout: Mapped[object] = mapped_column(JSON)
    kind: Mapped[str] = mapped_column(server_default="kick")
    rails: Mapped[str]
    pocket: Mapped[str | None]
    stroke: Mapped[object] = mapped_column(JSON)
    aim: Mapped[object] = mapped_column(JSON)
    result: Mapped[str]
    off: Mapped[float | None] = mapped_column()
    side_hit: Mapped[str]
    comment: Mapped[str]
    potted: Mapped[bool | None]
    in_off: Mapped[bool | None]
    touched: Mapped[object | None] = mapped_column(JSON)
    stopped_x: Mapped[float | None] = mapped_column()
    stopped_y: Mapped[float | None] = mapped_column()
    try_number: Mapped[int] = mapped_column(Whole, server_default="1")
    left_safe: Mapped[bool | None]
    system: Mapped[str] = mapped_column(server_default="")
    deleted_at: Mapped[str | None]


class DrillTry(Base):
    """One try at a drill: did it count as the drill says?"""

    __tablename__ = "drill_try"
    __table_args__ = (Index("ix_drill_try", "deleted_at", "player_id", "drill", "made_at"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[str]
    drill: Mapped[str]
    table_label: Mapped[str]
    player_id: Mapped[int | None] = mapped_column(ForeignKey("player.id"))
    made: Mapped[bool]
    deleted_at: Mapped[str | None]


class OwnDrill(Base):
    """A drill that a player made; data: as a set of drills has it."""

    __tablename__ = "own_drill"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[str]
    data: Mapped[object] = mapped_column(JSON)
    deleted_at: Mapped[str | None]


class QuizTry(Base):
    """One answer in the quiz; off: diamonds beside the right mark, where one was asked for."""

    __tablename__ = "quiz_try"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[str]
    topic: Mapped[str]
    player_id: Mapped[int | None] = mapped_column(ForeignKey("player.id"))
    correct: Mapped[bool]
    off: Mapped[float | None] = mapped_column()
    seconds: Mapped[float] = mapped_column()


class Preference(Base):
    """One of the player's settings."""

    __tablename__ = "preference"
    name: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[object] = mapped_column(JSON)


class Device(Base):
    """A device beyond this machine that was let in; `secret` is the hash of the token in its cookie."""

    __tablename__ = "device"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    since: Mapped[str]
    secret: Mapped[str] = mapped_column(unique=True)

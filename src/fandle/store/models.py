"""Tables of the database. Layouts and tables are kept as the JSON of their file formats."""

from sqlalchemy import JSON, Float, ForeignKey
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Root of all records."""


class Club(Base):
    """A club."""

    __tablename__ = "club"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)


class Player(Base):
    """A player, known by a nickname."""

    __tablename__ = "player"
    id: Mapped[int] = mapped_column(primary_key=True)
    nickname: Mapped[str] = mapped_column(unique=True)
    club_id: Mapped[int] = mapped_column(ForeignKey("club.id"))


class ClubTable(Base):
    """A table that stands in a club; `data` is a standard table's name or a whole table object.

    A home-made table is labelled with its own name.
    """

    __tablename__ = "club_table"
    id: Mapped[int] = mapped_column(primary_key=True)
    label: Mapped[str] = mapped_column(unique=True)
    club_id: Mapped[int] = mapped_column(ForeignKey("club.id"))
    data: Mapped[object] = mapped_column(JSON)


class ClubCue(Base):
    """A cue of the club: ball mass over end mass, and its tip."""

    __tablename__ = "club_cue"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)
    end_ratio: Mapped[float] = mapped_column(Float)
    tip_mm: Mapped[float] = mapped_column(Float)


class NamedLayout(Base):
    """A layout kept under a name; `data` is a layout file, `note` says what makes it worth solving."""

    __tablename__ = "named_layout"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(unique=True)
    note: Mapped[str]
    data: Mapped[object] = mapped_column(JSON)


class Attempt(Base):
    """One attempt on a real table. `uid` is the page's own name for it: the same uid is the same attempt."""

    __tablename__ = "attempt"
    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[str]
    set_up: Mapped[str] = mapped_column(index=True)
    title: Mapped[str]
    table_label: Mapped[str]
    layout: Mapped[object] = mapped_column(JSON)
    rails: Mapped[str]
    stroke: Mapped[object] = mapped_column(JSON)
    aim: Mapped[object] = mapped_column(JSON)
    result: Mapped[str]
    off: Mapped[float | None] = mapped_column(Float)
    side_hit: Mapped[str]
    comment: Mapped[str]
    deleted_at: Mapped[str | None]


class Preference(Base):
    """One of the player's settings."""

    __tablename__ = "preference"
    name: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[object] = mapped_column(JSON)

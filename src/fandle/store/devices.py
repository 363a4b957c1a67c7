"""Devices that were let in: names, and what their cookies hash to."""

from dataclasses import dataclass

from sqlalchemy import select

from fandle.store.database import Database
from fandle.store.errors import NotFoundError
from fandle.store.log import now
from fandle.store.models import Device


@dataclass(frozen=True)
class Known:
    """A device: its id, its name, since when, and the hash of its token."""

    id: int
    name: str
    since: str
    secret: str


def devices(database: Database) -> list[Known]:
    """All devices, in the order in which they came."""
    with database.read() as session:
        return [_known(row) for row in session.scalars(select(Device).order_by(Device.id))]


def add_device(database: Database, name: str, secret: str) -> Known:
    """Let a device in."""
    with database.write() as session:
        row = Device(name=name, since=now(), secret=secret)
        session.add(row)
        session.flush()
        return _known(row)


def rename_device(database: Database, device: int, name: str) -> Known:
    """Call a device something else."""
    with database.write() as session:
        row = _found(session.get(Device, device))
        row.name = name
        return _known(row)


def remove_device(database: Database, device: int) -> Known:
    """Forget a device."""
    with database.write() as session:
        row = _found(session.get(Device, device))
        session.delete(row)
        return _known(row)


def _found(row: Device | None) -> Device:
    if row is None:
        raise NotFoundError("no such device: look at the list again")
    return row


def _known(row: Device) -> Known:
    return Known(row.id, row.name, row.since, row.secret)

"""How sure a table's own numbers are, where a table check found them."""

from dataclasses import dataclass

import numpy as np

from fandle.core.errors import BadInputError, check_text
from fandle.core.table.parameters import TABLE


@dataclass(frozen=True)
class Fitted:
    """The day of the check, the numbers it found, and the covariance of their errors (SI, row by row)."""

    date: str
    names: tuple[str, ...]
    covariance: tuple[tuple[float, ...], ...]


def check_fitted(table: str, fitted: Fitted) -> None:
    """Refuse numbers nobody has, and a covariance that is none. Raises BadInputError."""
    check_text(fitted.date, "table.fitted.date")
    n = len(fitted.names)
    unknown = [name for name in fitted.names if name not in TABLE or TABLE[name].slot is None]
    if unknown or len(set(fitted.names)) != n:
        raise BadInputError(
            f"table {table!r}: {', '.join(unknown or fitted.names)} cannot have been fitted: name each number of the "
            "table's once",
            "table.fitted.names",
            code="unknown",
        )
    if len(fitted.covariance) != n or any(len(row) != n for row in fitted.covariance):
        raise BadInputError(
            f"table {table!r}: the covariance of {n} numbers has {n} rows of {n}: check the file",
            "table.fitted.covariance",
            code="bad_file",
        )
    matrix = np.array(fitted.covariance)
    if not np.allclose(matrix, matrix.T) or np.linalg.eigvalsh(matrix).min() < -1e-9 * np.abs(matrix).max():
        raise BadInputError(
            f"table {table!r}: the covariance is no covariance, symmetric and nowhere negative: check the file",
            "table.fitted.covariance",
            code="bad_file",
        )

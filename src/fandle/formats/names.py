"""A name that people give, as a field of a file or a form."""

from typing import Annotated

from pydantic import AfterValidator, Field

from fandle.core.errors import BadInputError
from fandle.core.words.names import LONGEST_NAME, clean_name


def _checked(text: str) -> str:
    try:
        return clean_name(text)
    except BadInputError as error:
        raise ValueError(str(error)) from None


Name = Annotated[str, Field(min_length=1, max_length=4 * LONGEST_NAME), AfterValidator(_checked)]

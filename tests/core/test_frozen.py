"""Values that nobody changes: held by the type checker, alike by what they hold."""

import pytest

from pliant_coil.core.trade.sizes import Size
from pliant_coil.core.words.figures import Length, Thickness


def test_alike_by_what_they_hold() -> None:
    assert Length(7) == Length(7) and hash(Length(7)) == hash(Length(7))
    assert Length(7) != Length(8)
    assert len({Length(7), Length(7), Thickness(7), Size(17.3)}) == 3


def test_the_type_checker_refuses_to_change_them() -> None:
    length = Length(7)
    # mypy has to complain here: if it didn't, it would complain of the comment.
    length.mm = 8  # type: ignore[misc]
    with pytest.raises(AttributeError):
        length.inches = 8  # type: ignore[attr-defined]

"""Values that nobody changes: held by the type checker, alike by what they hold."""

import pytest

from pliant_coil.core.frozen import cached_property, dataclass
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


@dataclass(frozen=True)
class Counting:
    calls: list[str]

    @cached_property
    def reckoned(self) -> int:
        """What is asked for often."""
        self.calls.append("reckoned")
        return len(self.calls)


def test_what_is_asked_for_often_is_reckoned_once_for_each_value() -> None:
    one, other = Counting([]), Counting(["before"])
    assert (one.reckoned, one.reckoned, other.reckoned) == (1, 1, 2)
    assert one.calls == ["reckoned"]
    assert Counting.reckoned.__doc__ == "What is asked for often."

"""Values that nobody changes: dataclasses whose frozenness the type checker holds, not every start and every object; and what they reckon once.

`@dataclass(frozen=True)` is what it is everywhere else for mypy, which refuses an assignment. While the program runs it makes a plain
dataclass that is hashed by what it holds: the two methods that would refuse an assignment take a third of the time that a class takes
to be made (the terminal makes a hundred of them), and setting fields round them a fifth of the time of a plan.
"""

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from dataclasses import dataclass as dataclass
    from functools import cached_property as cached_property
else:
    import dataclasses

    def dataclass(cls: type | None = None, /, *, frozen: bool = False, eq: bool = True, **options: Any) -> Any:
        """`dataclasses.dataclass`; a frozen one compares and is hashed by its fields, and is left to the type checker."""
        return dataclasses.dataclass(cls, eq=eq, unsafe_hash=frozen and eq, **options)

    class CachedProperty:
        """`functools.cached_property` without its lock, as it is from Python 3.12 on: two threads at once would reckon the same value twice."""

        def __init__(self, reckon: Any) -> None:
            self._reckon = reckon
            self.__doc__ = reckon.__doc__
            self._name = reckon.__name__

        def __get__(self, value: Any, kind: type | None = None) -> Any:
            if value is None:
                return self
            found = self._reckon(value)
            # Not into its `__dict__`: that would make one for every value.
            object.__setattr__(value, self._name, found)
            return found

    cached_property = CachedProperty

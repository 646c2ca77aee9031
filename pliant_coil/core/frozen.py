"""Values that nobody changes: dataclasses whose frozenness the type checker holds, not every start and every object.

`@dataclass(frozen=True)` is what it is everywhere else for mypy, which refuses an assignment. While the program runs it makes a plain
dataclass that is hashed by what it holds: the two methods that would refuse an assignment take a third of the time that a class takes
to be made (the terminal makes a hundred of them), and setting fields round them a fifth of the time of a plan.
"""

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from dataclasses import dataclass as dataclass
else:
    import dataclasses

    def dataclass(cls: type | None = None, /, *, frozen: bool = False, eq: bool = True, **options: Any) -> Any:
        """`dataclasses.dataclass`; a frozen one compares and is hashed by its fields, and is left to the type checker."""
        return dataclasses.dataclass(cls, eq=eq, unsafe_hash=frozen and eq, **options)

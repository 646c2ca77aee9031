"""What is used of svgelements, which ships no types."""

from collections.abc import Iterator

class Point:
    x: float
    y: float

class Path:
    def __init__(self, d: str) -> None: ...
    def as_subpaths(self) -> Iterator[object]: ...
    def point(self, position: float) -> Point: ...

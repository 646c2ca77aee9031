"""What parts of a plan have in common: rounding in their types, and texts that are written for a reader when they are dumped."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import cache
from typing import Annotated, Any

from pydantic import InstanceOf, PlainSerializer, TypeAdapter, WithJsonSchema

from pliant_coil.core.words.say import Figure, Reader

_READER = Reader()
_reads: ContextVar[Reader] = ContextVar("reads", default=_READER)
"""For whom a plan is dumped: asked for at every text, which Pydantic's own context would make twice as dear."""


@contextmanager
def read_by(reader: Reader) -> Iterator[None]:
    """What is dumped within is written for this reader."""
    token = _reads.set(reader)
    try:
        yield
    finally:
        _reads.reset(token)


def _rounded(digits: int) -> PlainSerializer:
    # Over whole numbers: `round(value, digits)` goes through the decimals' text, which takes three times as long.
    scale = 10**digits
    return PlainSerializer(lambda value: round(value * scale) / scale, return_type=float)


def _written(said: Figure) -> str:
    return said.written(_reads.get())


Mm = Annotated[float, _rounded(3)]
Us = Annotated[float, _rounded(3)]
Grams = Annotated[float, _rounded(3)]
Minutes = Annotated[float, _rounded(0)]
Counted = Annotated[float, _rounded(2)]
"""How often: nests and wraps go in halves and quarters."""
Text = Annotated[InstanceOf[Figure], PlainSerializer(_written, return_type=str), WithJsonSchema({"type": "string"})]


class Told:
    """A part of the plan. Plain data, which nobody changes: what is ours isn't validated, and freezing it would take as long as reckoning it."""

    __slots__ = ()

    def document(self, reader: Reader = _READER) -> Any:
        """As a JSON document, its texts written for `reader`."""
        with read_by(reader):
            return self._writer().dump_python(self, mode="json")

    def json(self, reader: Reader = _READER, *, indent: int | None = None) -> bytes:
        """The same as text, in UTF-8."""
        with read_by(reader):
            return self._writer().dump_json(self, indent=indent)

    def _writer(self) -> TypeAdapter[Any]:
        kind: Any = type(self)
        return _writer_of(kind)


@cache
def _writer_of(kind: type) -> TypeAdapter[Any]:
    return TypeAdapter(kind)

"""Requests whose body is a file as it is, and how the published API says so."""

from typing import Any


def sent_as(media_type: str) -> dict[str, Any]:
    """For a route's `openapi_extra`: its body is a file of this kind."""
    schema = {"type": "string", "format": "binary"}
    return {"requestBody": {"required": True, "content": {media_type: {"schema": schema}}}}

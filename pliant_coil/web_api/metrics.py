"""What the server counts for whoever watches over it: requests by route and outcome, and how long they took."""

import os

from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector

CONTENT_TYPE = CONTENT_TYPE_LATEST
_SHARED = "PROMETHEUS_MULTIPROC_DIR"
_own = CollectorRegistry()
_requests = Counter("pliant_coil_requests", "Requests by method, route and status", ("method", "route", "status"), registry=_own)
_seconds = Histogram(
    "pliant_coil_request_seconds",
    "How long requests took",
    ("route",),
    registry=_own,
    buckets=(0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5),
)


def count(method: str, route: str, status: int, seconds: float) -> None:
    """One request; `route` is its pattern, never its address."""
    _requests.labels(method, route, str(status)).inc()
    _seconds.labels(route).observe(seconds)


def exposition() -> bytes:
    """All counts: of every worker where they share a folder, else of this one."""
    if not os.environ.get(_SHARED):
        return generate_latest(_own)
    whole = CollectorRegistry()
    MultiProcessCollector(whole)
    return generate_latest(whole)

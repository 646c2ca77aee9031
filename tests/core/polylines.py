"""Distances between wires' paths, measured on dense polylines."""

from typing import Any

import numpy as np
from scipy.spatial.distance import cdist


def dense(points: list[list[float]], step: float = 0.05) -> np.ndarray:
    """A polyline with points at most `step` apart."""
    corners = np.array(points)
    lengths = np.linalg.norm(np.diff(corners, axis=0), axis=1)
    at = np.concatenate([[0], np.cumsum(lengths)])
    wanted = np.arange(0, at[-1], step)
    return np.stack([np.interp(wanted, at, corners[:, axis]) for axis in range(3)], axis=1)


def closest(first: list[list[float]], second: list[list[float]]) -> float:
    """The least distance between two paths."""
    return float(cdist(dense(first), dense(second)).min())


def perimeter(shape: Any) -> float:
    """Once round a convex body."""
    return float(shape.boundary.length)

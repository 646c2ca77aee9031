"""What a wire can do. A wire is an ordered list of moves; every length, mark, step and drawing is read from it."""

from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Move, Obstacle, Point3
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.binding import Binding
from pliant_coil.core.moves.crossing import Crossing
from pliant_coil.core.moves.eye import Eye
from pliant_coil.core.moves.grip import Grip, Spare
from pliant_coil.core.moves.over import Over
from pliant_coil.core.moves.saw import Saw
from pliant_coil.core.moves.scroll import Scroll
from pliant_coil.core.moves.straight import Straight
from pliant_coil.core.moves.strand import Loose, Strand
from pliant_coil.core.moves.through import Through
from pliant_coil.core.moves.turns import Turns
from pliant_coil.core.moves.twist import Twist
from pliant_coil.core.moves.woven import Weaving
from pliant_coil.core.moves.wrap import Wrap

__all__ = [
    "Arc",
    "Bend",
    "Binding",
    "Crossing",
    "Eye",
    "Grip",
    "Loose",
    "Move",
    "Obstacle",
    "Over",
    "Point3",
    "Saw",
    "Scroll",
    "Spare",
    "Straight",
    "Strand",
    "Through",
    "Turns",
    "Twist",
    "Weaving",
    "Wrap",
]

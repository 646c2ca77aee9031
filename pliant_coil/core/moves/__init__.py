"""What a wire can do. A wire is an ordered list of moves; every length, mark, step and drawing is read from it."""

from pliant_coil.core.moves.arc import Arc, Swaying, Turns
from pliant_coil.core.moves.base import Cause, Counted, Move, Obstacle, SpaceCurve, on_band, on_circle
from pliant_coil.core.moves.bead_row import BeadRow, Strung
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.bent import bent
from pliant_coil.core.moves.coil import Coil, CoilOfCoil
from pliant_coil.core.moves.crossing import Crossing
from pliant_coil.core.moves.figure import Figure, FigurePart
from pliant_coil.core.moves.grip import Fold, Grip, Saw, Spare, saw, to_hold
from pliant_coil.core.moves.halo import Halo
from pliant_coil.core.moves.hoop_wrap import BeadTurn, Hoop, HoopWrap
from pliant_coil.core.moves.loop import Eye, Loop, Scroll
from pliant_coil.core.moves.loop_row import LoopRow, Spiral
from pliant_coil.core.moves.nest import Nest, StandingBead
from pliant_coil.core.moves.passing import Course, LoosePass, Pass, pass_beside, pass_over, pass_under
from pliant_coil.core.moves.placed import PLAIN, EndCare, Fate, Piece, Placed, Worked, named
from pliant_coil.core.moves.prong import Claw, Prong
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.moves.spike import Spike
from pliant_coil.core.moves.stitch import Hitch, Stitch
from pliant_coil.core.moves.straight import Lead, Straight, Through
from pliant_coil.core.moves.strand import Strand
from pliant_coil.core.moves.twist import Twist
from pliant_coil.core.moves.weaving import FrameWeaving, Weaving
from pliant_coil.core.moves.wrap import Wrap

__all__ = [
    "PLAIN",
    "Arc",
    "BeadRow",
    "BeadTurn",
    "Bend",
    "Cause",
    "Claw",
    "Coil",
    "CoilOfCoil",
    "Counted",
    "Course",
    "Crossing",
    "EndCare",
    "Eye",
    "Fate",
    "Figure",
    "FigurePart",
    "Fold",
    "FrameWeaving",
    "Grip",
    "Halo",
    "Hitch",
    "Hoop",
    "HoopWrap",
    "Lead",
    "Loop",
    "LoopRow",
    "LoosePass",
    "Move",
    "Nest",
    "Obstacle",
    "Pass",
    "Piece",
    "Placed",
    "Prong",
    "Saw",
    "Scroll",
    "Seat",
    "SpaceCurve",
    "Spare",
    "Spike",
    "Spiral",
    "StandingBead",
    "Stitch",
    "Straight",
    "Strand",
    "Strung",
    "Swaying",
    "Through",
    "Turns",
    "Twist",
    "Weaving",
    "Worked",
    "Wrap",
    "bent",
    "named",
    "on_band",
    "on_circle",
    "pass_beside",
    "pass_over",
    "pass_under",
    "saw",
    "to_hold",
]

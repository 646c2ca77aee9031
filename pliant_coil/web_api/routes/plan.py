"""Planning: no database, no waiting."""

from fastapi import APIRouter, Response

from pliant_coil.core.plan import Plan
from pliant_coil.core.planner import plan
from pliant_coil.core.recipe import RingFile
from pliant_coil.web_api.problems import REFUSED

router = APIRouter(tags=["plan"])


@router.post("/plan", response_model=Plan, responses=REFUSED)
async def plan_ring(file: RingFile, paths: bool = False) -> Response:
    """The plan of a ring file; with `paths`, the wires' paths in space too."""
    # Answered from the event loop: planning takes less time than handing it to a thread, and the model writes itself.
    return Response(plan(file, paths=paths).model_dump_json(), media_type="application/json")

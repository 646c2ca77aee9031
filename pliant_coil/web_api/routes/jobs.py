"""Rings at the bench."""

from functools import partial
from typing import Annotated, Any, Literal
from uuid import UUID

from fastapi import APIRouter, Depends, Header, Query, Request, Response
from starlette.concurrency import run_in_threadpool
from starlette.responses import StreamingResponse

from pliant_coil.core.bench.logbook import record_told
from pliant_coil.core.bench.mandrels import mandrel_told
from pliant_coil.core.bench.plots import PlotsTold
from pliant_coil.core.bench.tails import Tails
from pliant_coil.core.bench.told import (
    HammeringTold,
    RowTold,
    SizeReadingTold,
    TailTold,
    Taken,
    first_plan_told,
    hammering_told,
    left_over_told,
    progress_told,
    reading_told,
    row_told,
    tail_end_told,
    tail_told,
)
from pliant_coil.core.plan.build import plan_of, resizing
from pliant_coil.core.plan.model import Resizing
from pliant_coil.core.ring_file.document import RingFile, Text
from pliant_coil.core.styles.handed_on import SizedBy
from pliant_coil.core.styles.tasks import Phase
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Reader
from pliant_coil.services.jobs import Jobs, Standing, record_kept
from pliant_coil.services.scope import Who
from pliant_coil.store.models import Job
from pliant_coil.web_api.actors import WHO, TheActor, TheCaller, while_here
from pliant_coil.web_api.bell import STREAM, TheBell, streamed
from pliant_coil.web_api.heavy import TheQueue
from pliant_coil.web_api.problems import BUSY, MISSING, REFUSED
from pliant_coil.web_api.readers import TheReader, Written
from pliant_coil.web_api.schemas import (
    Events,
    FactorTold,
    HandTold,
    JobAtBench,
    JobBegun,
    JobList,
    JobListed,
    RingNamed,
)

ASKED_FIRST = 3
"""Rings of which the tails are asked for before the locks."""
router = APIRouter(prefix="/jobs", tags=["bench"], responses=WHO)


async def jobs_of(request: Request, actor: TheActor) -> Jobs:
    """The bench of the workshop that a request comes from."""
    return _jobs(request, actor)


async def _jobs_of_caller(request: Request, caller: TheCaller) -> Jobs:
    return _jobs(request, caller)


def _jobs(request: Request, who: Who) -> Jobs:
    return Jobs(request.app.state.sessions, who, request.app.state.hands)


TheJobs = Annotated[Jobs, Depends(jobs_of)]
TheJobsAtOnce = Annotated[Jobs, Depends(_jobs_of_caller)]
"""Whose they are is looked up with what is asked of them."""
Task = Annotated[str, Query(max_length=80, description="The step at which it is read")]
Millimetres = Annotated[float, Query(gt=0, le=5000, allow_inf_nan=False)]

Diameter = Annotated[float, Query(ge=10, le=26, allow_inf_nan=False, description="Inside diameter")]


@router.post("", status_code=201, responses=REFUSED)
def begin(file: RingFile, jobs: TheJobs, idempotency_key: Annotated[UUID | None, Header()] = None) -> JobBegun:
    """Take a ring to the bench; sent again under the same key, once."""
    return JobBegun(id=jobs.begin(file, idempotency_key))


@router.get("", response_model=JobList, responses=REFUSED)
def list_jobs(
    jobs: TheJobs,
    reader: TheReader,
    ended: Annotated[bool, Query(description="Those that are finished, spoiled or set aside")] = False,
    state: Annotated[Literal["finished", "spoiled", "set_aside"] | None, Query(description="Of the ended ones only these")] = None,
    q: Annotated[Text, Query(max_length=200, description="Words in title or sentence")] = "",
    limit: Annotated[int, Query(ge=1, le=100)] = 20,
    after: Annotated[UUID | None, Query(description="The last one of the page before")] = None,
) -> Response:
    """Rings at the bench, or ended ones, the last changed first."""
    page = jobs.page(state or "ended" if ended else "open", limit, after, q.split()[:8])
    told = JobList(jobs=[_listed(job, page.photos.get(job.id)) for job in page.jobs], total=page.total)
    return Written(told.json(reader))


def _listed(job: Job, photo: UUID | None = None) -> JobListed:
    record = record_kept(job)
    return JobListed(
        id=job.id,
        title=job.title,
        sentence=job.sentence,
        state=job.state,
        number=job.number,
        created_at=job.created_at,
        updated_at=job.updated_at,
        ended_at=job.ended_at,
        begun_by=job.author or "",
        batch_id=job.batch_id,
        for_whom=job.for_whom,
        record=record_told(record) if record else None,
        photo=photo,
    )


@router.get("/hand", response_model=HandTold, responses=REFUSED)
def hand(jobs: TheJobs, reader: TheReader) -> Response:
    """What the finished rings show of the maker's hand."""
    learnt = jobs.learnt()
    known = learnt.hand
    odd = [RingNamed(id=job.id, title=job.title) for job, _ in (learnt.made[k] for k in known.odd)]
    out = [RingNamed(id=job.id, title=job.title, why=record.left_out) for job, record in learnt.made if record.left_out]
    factors = [
        FactorTold(kind=f.kind, share=f.share, low=f.low, high=f.high, rings=f.rings, used=f.used) for f in known.factors() if f.rings
    ]
    told = HandTold(
        rings=sum(1 for ring in known.rings if not ring.left_out),
        odd=odd,
        left_out=out,
        changed=learnt.changed,
        factors=factors,
        mandrels=[mandrel_told(*found) for found in jobs.sizes()],
    )
    return Written(told.json(reader))


@router.post("/hand/afresh", status_code=204)
def learn_afresh(jobs: TheJobs) -> None:
    """Rings from before now say nothing of the hand any more: other pliers, another wire."""
    jobs.learn_afresh()


@router.get("/plots", response_model=PlotsTold, responses=REFUSED)
def plots(jobs: TheJobs, reader: TheReader, newest: Annotated[int, Query(ge=1, le=400)] = 60) -> Response:
    """What the newest records show when they are drawn: against plans, by stage, spoiled and saved."""
    return Written(jobs.plots(newest).json(reader))


@router.get("/records.csv", response_class=Response, responses={200: {"content": {"text/csv": {}}}})
def records(jobs: TheJobs) -> Response:
    """Every record as a table, a line a piece."""
    headers = {"content-disposition": 'attachment; filename="logbook.csv"'}
    return Response(jobs.table(), media_type="text/csv", headers=headers)


@router.get("/records.json")
def records_as_json(jobs: TheJobs, response: Response) -> list[dict[str, Any]]:
    """Every record as it is kept: planned beside what came out, piece by piece and kind by kind."""
    response.headers["content-disposition"] = 'attachment; filename="logbook.json"'
    return jobs.all_records()


@router.get("/{job_id}", response_model=JobAtBench, responses=MISSING | REFUSED | BUSY)
async def read(job_id: UUID, jobs: TheJobs, reader: TheReader, heavy: TheQueue) -> Response:
    """A ring at the bench: its plan, where it stands, and its tails."""
    return Written(await heavy.run(partial(_at_bench, jobs, job_id, reader)))


def _at_bench(jobs: Jobs, job_id: UUID, reader: Reader) -> bytes:
    standing = jobs.standing(job_id)
    tails = Tails(standing.at_bench, standing.progress)
    told = JobAtBench(
        job=_listed(standing.job),
        file=standing.file,
        # What is left to be made is told as the ring is formed by now; what was planned first stands beside it.
        plan=plan_of(standing.at_bench.plan, paths=True, habits=False),
        first_plan=first_plan_told(standing.as_planned.made, standing.at_bench.planned),
        progress=progress_told(standing.at_bench, standing.progress),
        tails=[tail_end_told(end) for end in tails.ends],
        left_over=left_over_told(standing.as_planned, standing.progress),
        hides_splice=tails.hides_splice,
        asks_tails=_asks_tails(jobs, standing),
        hammered_at=standing.at_bench.hammering.task if standing.at_bench.hammering else "",
    )
    return told.json(reader)


def _asks_tails(jobs: Jobs, standing: Standing) -> bool:
    """What the hand is looked up for at the locks only, while no tail is read there."""
    task = next((task for task in standing.at_bench.tasks if task.id == standing.progress.task), None)
    if task is None or task.phase is not Phase.LOCK or any(r.what == "tail" and r.task == task.id for r in standing.progress.readings):
        return False
    return jobs.learnt().hand.told_apart < ASKED_FIRST


@router.post("/{job_id}/events", responses=MISSING | REFUSED)
def tell(job_id: UUID, body: Events, jobs: TheJobsAtOnce) -> Taken:
    """Write down what happened. Sent again, it is written once."""
    number, known = jobs.tell(job_id, body.events)
    return Taken(number=number, known=known)


@router.get("/{job_id}/changes", response_class=StreamingResponse, responses=MISSING | STREAM)
async def changes(job_id: UUID, jobs: TheJobs, actor: TheActor, bell: TheBell, request: Request) -> StreamingResponse:
    """The number of the newest event, now and whenever it changes (server-sent events)."""

    async def newest() -> int:
        return await run_in_threadpool(jobs.number, job_id)

    await newest()  # A ring that isn't there is said at once.
    return streamed(while_here(request, actor, bell.stream(job_id, newest)))


@router.get("/{job_id}/reading", response_model=SizeReadingTold, responses=MISSING | REFUSED)
def reading(job_id: UUID, jobs: TheJobs, reader: TheReader, task: Task, value_mm: Millimetres) -> Response:
    """What a size that the mandrel reads at a step means for this ring."""
    standing = jobs.standing(job_id)
    found = standing.at_bench.reading(standing.at_bench.task(task), value_mm, standing.progress)
    return Written(reading_told(found).json(reader))


@router.get("/{job_id}/repair", response_model=Resizing, responses=MISSING | REFUSED)
def repair(job_id: UUID, jobs: TheJobs, reader: TheReader, reads_mm: Diameter, wanted_mm: Diameter) -> Response:
    """How a finished ring that reads so becomes the size that is wanted: what each way gives here, those that reach first."""
    found = resizing(jobs.standing(job_id).as_planned, wanted_mm, reads_mm)
    return Written(found.json(reader))


@router.get("/{job_id}/row", response_model=RowTold, responses=MISSING | REFUSED)
def row(job_id: UUID, jobs: TheJobs, reader: TheReader, task: Task, value_mm: Millimetres) -> Response:
    """What the length of a row of repeats, measured on the way, says of the rest."""
    standing = jobs.standing(job_id)
    found = standing.at_bench.row(standing.at_bench.task(task), value_mm, standing.progress)
    told = row_told(found, sets_size=standing.at_bench.planned.band.sized_by is SizedBy.LENGTH)
    return Written(told.json(reader))


@router.get("/{job_id}/hammered", response_model=HammeringTold, responses=MISSING | REFUSED)
def hammered(job_id: UUID, jobs: TheJobs, reader: TheReader, thickness_mm: Millimetres, value_mm: Millimetres) -> Response:
    """What a ring says that is hammered flat: its thickness, and the size that the mandrel reads."""
    found = jobs.standing(job_id).at_bench.hammered(thickness_mm, value_mm)
    return Written(hammering_told(found).json(reader))


@router.get("/{job_id}/tail", response_model=TailTold, responses=MISSING | REFUSED)
def tail(
    job_id: UUID,
    jobs: TheJobs,
    reader: TheReader,
    piece: Annotated[str, Query(max_length=80)],
    end: Literal["first", "last"],
    value_mm: Millimetres,
    hand: Annotated[bool, Query(description="For the hand that the workshop's finished rings have shown")] = False,
) -> Response:
    """Whether a measured tail reaches for all that is still to come."""
    standing = jobs.standing(job_id)
    tails = Tails(standing.at_bench, standing.progress, jobs.learnt().hand if hand else None)
    ends = {(e.piece, e.end): e for e in tails.ends}
    if (piece, end) not in ends:
        refuse("piece", "nothing is left to do at that end", ", ".join(f"{p} {e}" for p, e in ends) or "no end: all is made")
    told = tail_told(tails, ends[piece, end], value_mm)
    return Written(told.json(reader))

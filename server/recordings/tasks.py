"""Work behind the page, kept in PostgreSQL: whoever takes it may be stopped, and another takes it
up."""

from uuid import UUID

from procrastinate import JobContext
from procrastinate.contrib.django import app

from .reading import read_now

__all__ = ["read_recording", "take_up"]

_SILENT_S = 30  # after which a worker is taken for gone


@app.task(queue="recordings")
def read_recording(recording: str, run: int) -> None:
    """Reads one recording; begins at its beginning, also after it was cut short."""
    read_now(UUID(recording), run)


@app.periodic(cron="* * * * *")
@app.task(queue="recordings", queueing_lock="take_up", pass_context=True)
async def take_up(context: JobContext, timestamp: int) -> None:
    """Takes up what a worker left that was stopped."""
    jobs = context.app.job_manager
    for job in await jobs.get_stalled_jobs(seconds_since_heartbeat=_SILENT_S):
        await jobs.retry_job(job)

"""Work behind the page, kept in PostgreSQL: whoever takes it may be stopped, and another takes it
up."""

from datetime import timedelta
from uuid import UUID

from django.db import InterfaceError, OperationalError
from django.utils import timezone
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from .models import Recording, State
from .reading import read_now

__all__ = ["clear_away", "read_recording", "take_up"]

_SILENT_S = 30  # after which a worker is taken for gone
_UNREAD = timedelta(days=14)  # for which a file waits to be sent on, or to be read


_AGAIN = RetryStrategy(
    max_attempts=8, exponential_wait=4, retry_exceptions={OperationalError, InterfaceError}
)


@app.task(queue="recordings", retry=_AGAIN)
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


@app.periodic(cron="17 3 * * *")
@app.task(queue="recordings", queueing_lock="clear_away")
def clear_away(timestamp: int = 0) -> None:
    """Takes away files that nobody sent on or read."""
    waiting = Recording.objects.filter(state__in=(State.COMING, State.HERE))
    waiting.filter(made_at__lt=timezone.now() - _UNREAD).delete()

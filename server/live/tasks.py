"""Work behind the page: watches that ended become recordings, old samples go."""

from uuid import UUID

from procrastinate.contrib.django import app

from .keeping import clear_stretches, keep_watch

__all__ = ["clear_old_samples", "keep_as_recording"]


@app.task(queue="recordings", retry=5)
def keep_as_recording(watch: str) -> None:
    """Makes a recording of a watch that ended; safe to repeat."""
    keep_watch(UUID(watch))


@app.periodic(cron="41 * * * *")
@app.task(queue="recordings", queueing_lock="clear_old_samples")
def clear_old_samples(timestamp: int = 0) -> None:
    """Takes away samples that no watch needs any more."""
    clear_stretches()

"""When a write was made, where it waited on a device before it was sent. Clocks of devices may be
wrong: what counts is how long ago it was by the device's own clock."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from django.http import HttpRequest
from django.utils import timezone

__all__ = ["Made", "made_of"]

_LONGEST = timedelta(days=60)
_WRONG = timedelta(seconds=30)  # a clock that differs by less is right


@dataclass(frozen=True)
class Made:
    """When something was made by the server's clock; and, where the device's clock was wrong, when
    by that (`told`)."""

    at: datetime
    told: datetime | None = None

    @property
    def noted(self) -> dict[str, str]:
        """What the log keeps of a wrong clock."""
        return {"told": self.told.isoformat()} if self.told else {}


def made_of(request: HttpRequest) -> Made:
    """When a write was made: now, unless the device says that it waited (headers Zerodip-Made and
    Zerodip-Sent, both by its own clock). Never in the future, never more than sixty days ago."""
    now = timezone.now()
    made, sent = (_time(request.headers.get(f"Zerodip-{name}")) for name in ("Made", "Sent"))
    if made is None or sent is None or made > sent:
        return Made(now)
    waited = min(sent - made, _LONGEST)
    wrong = abs(now - sent) > _WRONG
    return Made(now - waited, made if wrong else None)


def _time(text: str | None) -> datetime | None:
    try:
        at = datetime.fromisoformat(text or "")
    except ValueError:
        return None
    return at if at.tzinfo is not None else None

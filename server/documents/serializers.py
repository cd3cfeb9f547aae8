"""What the documents' templates are filled with, and links as the API shows them."""

from base64 import b64encode
from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime
from urllib.parse import quote

import segno
from django.utils import timezone

from accounts.models import shown
from common.errors import NotFound
from sites.models import System
from visits.models import NextCheck, Visit
from visits.next_checks import trends_at
from visits.pictures import reduced
from visits.selectors import document_of, learned_before, records_of
from visits.services import cleaned
from zerodip.documents.label import SwitchLabel, label_of
from zerodip.documents.report import Report, report
from zerodip.fileformat.document import read_document
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.visit_parts import Remaining
from zerodip.kinds.window import Window
from zerodip.visit.corrections import Correction
from zerodip.visit.slots import PHOTOS_OF

from .drawing import Drawing, drawn
from .models import Feed, Link, SignedLink
from .schemas import FeedOut, LinkOut
from .signing import signed
from .window import WindowDrawing, drawn_window

__all__ = [
    "LabelsPage",
    "ReportPage",
    "feed_out",
    "labels_page",
    "link_out",
    "report_address",
    "report_page",
    "report_told",
]

MARKS = {"stop": "■", "caution": "▲", "cannot_tell": "○", "pass": "●"}


@dataclass(frozen=True)
class ShownPhoto:
    """A photo of a report, what it is of, and its picture as an address that holds it whole."""

    title: str
    address: str


@dataclass(frozen=True)
class ReportPage:
    """What the report's template is filled with. `remaining` and `corrections` come with the mark
    and the day beside each; `pdf` is where the page is had as a PDF, "" where it is none of the
    page's business."""

    site: str
    system: str
    day: datetime
    closed: datetime | None
    by: str
    due: datetime | None
    report: Report
    verdict: tuple[str, str]
    remaining: list[tuple[str, Remaining]]
    corrections: list[tuple[datetime, Correction]]
    drawing: Drawing | None
    window: WindowDrawing | None
    photos: list[ShownPhoto]
    pdf: str = ""


def report_told(visit: Visit, units: str) -> Report:
    """A visit's report in words. Raises InvalidInput for a file that can no longer be read."""
    closed = visit.closed_at.isoformat() if visit.closed_at else None
    return report(document_of(visit), records_of(visit), units, closed, learned_before(visit))


def report_page(visit: Visit, units: str) -> ReportPage:
    """A visit's report with who, where and when. Raises InvalidInput for a file that can no longer
    be read."""
    told = report_told(visit, units)
    due_s, chart = trends_at(visit, records_of(visit), units).due_s, told.chart
    return ReportPage(
        site=visit.system.site.name,
        system=visit.system.name,
        day=visit.opened_at,
        closed=visit.closed_at,
        by=shown(visit.opened_by, visit.by),
        due=None if due_s is None else datetime.fromtimestamp(due_s, UTC),
        report=told,
        verdict=_verdict(told),
        remaining=[(MARKS[each.verdict], each) for each in told.remaining],
        corrections=[(datetime.fromisoformat(each.at), each) for each in told.corrections],
        drawing=drawn(chart, units) if isinstance(chart, Ribbon) else None,
        window=drawn_window(chart, units) if isinstance(chart, Window) else None,
        photos=list(_photos(visit, told.photos)),
    )


def _photos(visit: Visit, chosen: Sequence[str]) -> Iterator[ShownPhoto]:
    """The photos chosen, as they were taken; what came with an archive and is no picture is left
    out."""
    ids = [id for id in visit.photos.values_list("pk", flat=True) if str(id) in chosen]
    for photo in visit.photos.filter(pk__in=ids):
        with suppress(NotFound):
            told = b64encode(reduced(bytes(cleaned(photo).data))).decode("ascii")
            title = PHOTOS_OF[photo.of]
            yield ShownPhoto(title=title, address=f"data:image/jpeg;base64,{told}")


def _verdict(told: Report) -> tuple[str, str]:
    """The mark and word at the head: the worst that remains, and no more than was judged."""
    if not told.remaining and not told.unjudged:
        return MARKS["pass"], "All limits OK as left"
    if not told.remaining:
        open_ones = f"{told.unjudged} limit{'s' if told.unjudged > 1 else ''} not judged"
        return MARKS["pass"], f"Nothing found against the settings left; {open_ones}"
    count = len(told.remaining)
    return MARKS[told.remaining[0].verdict], f"{count} thing{'s' if count > 1 else ''} to see to"


@dataclass(frozen=True)
class LabelCell:
    """One label on the sheet: the system, the figures, when it was set and is due, the code that
    leads to its sheet."""

    site: str
    system: str
    label: SwitchLabel
    set_on: datetime
    due: datetime | None
    code: str


@dataclass(frozen=True)
class LabelsPage:
    """What the template of labels is filled with; `empty` are the places of the sheet that are used
    up."""

    labels: list[LabelCell]
    empty: range


def labels_page(systems: list[System], origin: str, units: str | None, first: int) -> LabelsPage:
    """Labels for systems, `units` None for those of each site; `origin` is where this server is
    reached, `first` the first place of the sheet that is still free."""
    cells = [_label(system, origin, units or system.site.units) for system in systems]
    return LabelsPage(labels=cells, empty=range(first - 1))


def _label(system: System, origin: str, units: str) -> LabelCell:
    check: NextCheck | None = getattr(system, "next_check", None)
    address = f"{origin}/systems/{quote(str(system.pk))}"
    return LabelCell(
        site=system.site.name,
        system=system.name,
        label=label_of(read_document(system.document).figures(), units),
        set_on=system.changed_at if check is None else check.last_at,
        due=None if check is None else check.due_at,
        code=segno.make(address, error="m").svg_data_uri(border=0, dark="#16272c"),
    )


def feed_out(feed: Feed | None, origin: str) -> FeedOut:
    """The address of a person's calendar; "" where there is none."""
    return FeedOut(address=f"{origin}/papers/due/{signed(feed.pk, 'feed')}.ics" if feed else "")


def report_address(link: Link, origin: str) -> str:
    """Where a link opens a visit's report."""
    return f"{origin}/papers/{signed(link.pk, 'link')}"


def link_out(link: SignedLink, address: str, shares: bool = True) -> LinkOut:
    """A link; with its address while it lives, for who `shares` documents: it opens the document to
    anyone."""
    expired = link.expires_at <= timezone.now()
    alive = not link.revoked_at and not expired
    return LinkOut(
        id=link.pk,
        address=address if alive and shares else "",
        state="revoked" if link.revoked_at else "expired" if expired else "alive",
        made_at=link.made_at,
        made_by=shown(link.made_by),
        expires_at=link.expires_at,
    )

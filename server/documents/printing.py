"""Pages to PDF, a report only once as long as it says the same. Nothing is fetched: the one style
sheet and its fonts lie beside this file, pictures are written out."""

from functools import cache
from hashlib import sha256
from importlib.metadata import version
from pathlib import Path
from typing import Any
from urllib.parse import urlparse

from django.template.loader import render_to_string

from visits.models import Visit

from .models import Printed
from .serializers import report_page

__all__ = ["labels_pdf", "printed", "report_pdf"]

_STATIC = Path(__file__).parent / "static"
_BASE = "https://documents.invalid/"  # no such host: addresses under it are files beside this one
# The paper that people of each unit system have.
PAPER = {"us": "letter", "metric": "A4", "kpa": "A4"}


def report_pdf(visit: Visit, units: str) -> bytes:
    """The report of a visit. What was printed before is given again where the page, the styles and
    the printer are the same to the letter, so that a report asked for often is one print."""
    page = render_to_string("documents/report.html", vars(report_page(visit, units)))
    digest = sha256(f"{_printer()}\n{units}\n{page}".encode()).hexdigest()
    known = Printed.objects.filter(visit=visit, units=units, digest=digest).first()
    if known is not None:
        return bytes(known.pdf)
    made = _pdf(page, units)
    Printed.objects.update_or_create(
        visit=visit, units=units, defaults={"digest": digest, "pdf": made}
    )
    return made


def printed(template: str, page: dict[str, Any], units: str) -> bytes:
    """A page of another app's, with the styles of all documents."""
    return _pdf(render_to_string(template, page), units)


def labels_pdf(page: object, units: str) -> bytes:
    """A sheet of labels."""
    return _pdf(render_to_string("documents/labels.html", vars(page)), units)


def _pdf(page: str, units: str) -> bytes:
    """A page, on the paper of a unit system."""
    from weasyprint import CSS, HTML  # a second to load: only where something is printed

    size = CSS(string=f"@page {{ size: {PAPER[units]} }}", url_fetcher=_fetcher())
    html = HTML(string=page, base_url=_BASE, url_fetcher=_fetcher())
    return bytes(html.write_pdf(stylesheets=[size]))


@cache
def _printer() -> str:
    """What a print depends on besides its page."""
    styles = sorted(path for path in _STATIC.rglob("*") if path.is_file())
    digest = sha256(b"".join(path.read_bytes() for path in styles)).hexdigest()
    return f"{version('weasyprint')} {digest}"


@cache
def _fetcher() -> Any:
    from weasyprint.urls import URLFetcher, URLFetcherResponse

    class Beside(URLFetcher):  # type: ignore[misc]
        """Only files of this app's static folder, and pictures written out in the page."""

        def fetch(self, url: str, headers: Any = None) -> Any:
            if url.startswith("data:"):
                return super().fetch(url, headers)
            path = (_STATIC / urlparse(url).path.removeprefix("/static/").lstrip("/")).resolve()
            if not url.startswith(_BASE) or _STATIC not in path.parents:
                raise ValueError(f"Not fetched: {url}")
            kind = "text/css" if path.suffix == ".css" else "font/woff2"
            return URLFetcherResponse(url, body=path.read_bytes(), headers={"Content-Type": kind})

    return Beside(allowed_protocols=("data",))

"""Pages to PDF. Nothing is fetched: the one style sheet and its fonts lie beside this file,
pictures are written out."""

from functools import cache
from pathlib import Path
from typing import Any
from urllib.parse import urlparse

from django.template.loader import render_to_string

__all__ = ["pdf"]

_STATIC = Path(__file__).parent / "static"
_BASE = "https://documents.invalid/"  # no such host: addresses under it are files beside this one
# The paper that people of each unit system have.
PAPER = {"us": "letter", "metric": "A4", "kpa": "A4"}


def pdf(template: str, page: object, units: str) -> bytes:
    """A template filled with `page`, printed on the paper of a unit system."""
    from weasyprint import CSS, HTML  # a second to load: only where something is printed

    size = CSS(string=f"@page {{ size: {PAPER[units]} }}", url_fetcher=_fetcher())
    html = HTML(
        string=render_to_string(template, vars(page)), base_url=_BASE, url_fetcher=_fetcher()
    )
    return bytes(html.write_pdf(stylesheets=[size]))


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

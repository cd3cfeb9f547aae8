"""A file to begin with for each kind of system: usual values, to be replaced by what is read on
site."""

from typing import Any

from zerodip.fileformat.document import FORMAT, VERSION
from zerodip.kinds.registry import KINDS

__all__ = ["template_file"]


def template_file(kind: str, name: str) -> dict[str, Any]:
    """A file as plain values for `read_document`, with the workspace's practice. Values are common
    practice, no source: a 40/60 switch, a 44 gal tank, a receiver of 60 gal. Raises KeyError for a
    kind that is not registered."""
    template = KINDS[kind].template
    return {
        "format": FORMAT,
        "version": VERSION,
        "system": {"kind": kind, "name": name, **template["system"]},
        "settings": dict(template["settings"]),
        "practice": {"follows": "workspace"},
    }

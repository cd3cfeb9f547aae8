"""A file to begin with: readable, judged, and promising nothing that was not read."""

import pytest

from zerodip.decide.judge import decide
from zerodip.fileformat.document import read_document
from zerodip.fileformat.templates import template_file
from zerodip.kinds.registry import KINDS


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_a_file_to_begin_with(kind: str) -> None:
    document = read_document(template_file(kind, "New one"))
    assert document.system.kind == kind
    assert document.practice.follows == "workspace"
    decided = decide(document.system, document.settings, document.practice)
    assert decided.verdict in ("cannot_tell", "caution", "stop")
    assert any(finding.verdict == "cannot_tell" for finding in decided.findings)


def test_a_kind_that_is_not_known_has_none() -> None:
    with pytest.raises(KeyError, match="geyser"):
        template_file("geyser", "x")

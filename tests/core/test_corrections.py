"""After closing: what may still be added, how a correction is told, and a visit in one line."""

import itertools
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zerodip.units import PSI
from zerodip.visit.corrections import corrections_view, may_be_corrected
from zerodip.visit.log import Record
from zerodip.visit.slots import SLOTS
from zerodip.visit.summary import summarize_visit, summary_says

CLOSED = "2026-11-25T12:00:00+00:00"
BEFORE, AFTER = "2026-11-25T11:00:00+00:00", "2026-12-01T09:30:00+00:00"
_ids = itertools.count()


def entry(
    slot: str, value: Any, at: str = BEFORE, supersedes: str | None = None, by: str = "Ada"
) -> Record:
    return Record(str(next(_ids)), slot, value, supersedes, at, by)


def look(low: float, high: float, first: float = 0.0) -> dict[str, float]:
    return {
        "first": first,
        "second": 0.0,
        "cut_in_gauge_pa": low * PSI,
        "cut_out_gauge_pa": high * PSI,
    }


@pytest.mark.parametrize(
    ("slot", "corrects", "allowed"),
    [
        ("found.cut_in", True, True),
        ("found.cut_in", False, True),
        ("found.leaks", False, True),
        ("air.left", False, True),
        ("gauge.low", False, True),
        ("signed", False, True),
        ("prove.dip", False, True),
        ("note", False, True),
        ("try", True, True),
        ("try", False, False),
        ("lap", True, True),
        ("lap", False, False),
        ("drain", True, True),
        ("safe.cover", False, False),
        ("safe.cover", True, False),
        ("place", False, False),
        ("decided", False, False),
        ("set.turned", False, False),
        ("air.inflator", False, False),
        ("air.cap", False, False),
        ("nonsense", True, False),
    ],
)
def test_readings_are_put_right_late_but_nothing_is_done_late(
    slot: str, corrects: bool, allowed: bool
) -> None:
    assert may_be_corrected(slot, corrects) is allowed


@pytest.mark.parametrize(
    ("slot", "was", "now", "said"),
    [
        ("found.cut_in", 53 * PSI, 33 * PSI, ("Cut-in as found", "53 psi", "33 psi")),
        ("found.cut_in", 33 * PSI, None, ("Cut-in as found", "33 psi", "–")),
        ("found.leaks", False, True, ("Leaks seen", "no", "yes")),
        ("found.rating", "10 A", "16 A", ("Rating under the cover", "10 A", "16 A")),
        ("signed", "A. Smith", "A. Smyth", ("Signed by", "A. Smith", "A. Smyth")),
    ],
)
def test_a_correction_tells_both_values(
    slot: str, was: Any, now: Any, said: tuple[str, str, str]
) -> None:
    view = corrections_view([entry(slot, was), entry(slot, now, AFTER, by="Grete")], CLOSED, "us")
    assert [(c.title, c.was, c.now, c.at, c.by) for c in view.corrections] == [
        (*said, AFTER, "Grete")
    ]


@pytest.mark.parametrize(
    ("slot", "was", "now", "said"),
    [
        ("lap", {"run_s": 68.0}, {"run_s": 86.0}, ("68 s", "86 s")),
        (
            "try",
            look(33, 51),
            look(33, 50),
            ("cut-in 33 psi, cut-out 51 psi", "cut-in 33 psi, cut-out 50 psi"),
        ),
        (
            "bucket",
            {"from_gauge_pa": 6e5, "to_gauge_pa": 3e5, "caught_m3": 0.0378541},
            {"from_gauge_pa": 6e5, "to_gauge_pa": 3e5, "caught_m3": 0.0416395},
            ("10 gal", "11 gal"),
        ),
        ("drain", [[0, 4e5], [9, 3e5]], [[0, 4e5], [9, 2e5]], ("recorded", "recorded")),
    ],
)
def test_an_entry_of_a_series_is_corrected_where_it_stood(
    slot: str, was: Any, now: Any, said: tuple[str, str]
) -> None:
    first = entry(slot, was)
    again = entry(slot, now, AFTER, supersedes=first.id)
    (made,) = corrections_view([first, again], CLOSED, "us").corrections
    assert (made.was, made.now) == said


def test_a_correction_of_a_correction_stands_beside_the_one_before() -> None:
    first = entry("try", look(33, 51))
    second = entry("try", look(33, 52), AFTER, supersedes=first.id)
    third = entry("try", look(33, 53), AFTER, supersedes=second.id)
    view = corrections_view([first, second, third], CLOSED, "us")
    assert [c.was[-6:] for c in view.corrections] == ["51 psi", "52 psi"]
    offered = {c.field: c for c in view.correctable if c.slot == "try"}
    assert offered["cut_out_gauge_pa"].entry == third.id
    assert offered["cut_out_gauge_pa"].gauge_pa == pytest.approx(53 * PSI)


@given(st.lists(st.sampled_from(sorted(set(SLOTS) - {"drain"})), max_size=6))
def test_nothing_that_was_there_at_closing_counts_as_a_correction(slots: list[str]) -> None:
    view = corrections_view(
        [entry(slot, None) for slot in slots if not SLOTS[slot].series], CLOSED, "us"
    )
    assert view.corrections == ()
    assert [c.slot for c in view.correctable] == [
        "found.cut_in",
        "found.cut_out",
        "found.pre_charge",
        "air.left",
    ]


@pytest.mark.parametrize(
    ("records", "line"),
    [
        ([], ""),
        ([("found.cut_in", 33 * PSI), ("found.cut_out", 51 * PSI)], "Found 33 psi / 51 psi"),
        (
            [("found.pre_charge", 30 * PSI), ("air.left", 38 * PSI)],
            "Found air 30 psi, left air 38 psi",
        ),
        (
            [
                ("found.cut_in", 33 * PSI),
                ("found.cut_out", 51 * PSI),
                ("try", look(40, 60, 2.0)),
                ("try", look(40, 60)),
                ("lap", {"run_s": 69.0}),
                ("prove.dip", True),
            ],
            "Found 33 psi / 51 psi, left 40 psi / 60 psi, 1 try, run 69 s, a dip seen",
        ),
        ([("lap", {"run_s": 69.0}), ("prove.dip", False)], "Run 69 s"),
    ],
)
def test_a_visit_is_told_in_one_line(records: list[tuple[str, Any]], line: str) -> None:
    assert (
        summary_says(summarize_visit([entry(slot, value) for slot, value in records]), "us") == line
    )

"""Gauges: what a grade allows (ASME B40.100, from memory), and the yearly check (common practice,
no source)."""

import pytest

from zerodip.errors import InvalidInput
from zerodip.gauges import GRADES, GaugeSpec, check_state, error_pa
from zerodip.units import PSI


@pytest.mark.parametrize(
    ("grade", "low", "high", "psi"),
    [
        ("B", 40, 60, 2.0),
        ("B", 20, 60, 3.0),
        ("B", 40, 80, 3.0),
        ("A", 25, 75, 1.0),
        ("1A", 0, 100, 1.0),
        ("D", 40, 60, 5.0),
    ],
)
def test_a_grade_is_a_share_of_the_span_worse_outside_its_middle_half(
    grade: str, low: float, high: float, psi: float
) -> None:
    gauge = GaugeSpec(name="No. 3", scale_gauge_pa=100 * PSI, grade=grade)
    assert error_pa(gauge, low * PSI, high * PSI) / PSI == pytest.approx(psi)


def test_a_better_grade_is_never_worse() -> None:
    order = ("4A", "3A", "2A", "1A", "A", "B", "C", "D")
    assert set(order) == set(GRADES)
    assert [GRADES[a] <= GRADES[b] for a, b in zip(order, order[1:], strict=False)] == [True] * 7


@pytest.mark.parametrize(
    ("days", "state"),
    [
        (None, "never"),
        (0, "good"),
        (335, "good"),
        (336, "soon"),
        (365, "soon"),
        (366, "overdue"),
    ],
)
def test_a_gauge_is_checked_every_year(days: int | None, state: str) -> None:
    assert check_state(days) == state


def test_every_fault_of_a_gauge_is_named() -> None:
    with pytest.raises(InvalidInput) as refused:
        GaugeSpec(name="", reads="tea", scale_gauge_pa=-1, grade="Z", low_pa=float("nan"))
    assert {fault.path for fault in refused.value.faults} >= {
        "reads",
        "scale_gauge_pa",
        "grade",
        "low_pa",
    }

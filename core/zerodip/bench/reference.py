"""Whether a reference gauge may be taken for right at a switch: its scale, its certificate, and how
much finer than the tolerance it is.

Four times as fine as the tolerance: common practice (ANSI/NCSL Z540.3 and EN 837-1, from memory).
"""

from collections.abc import Iterator
from datetime import date

from zerodip.bench.device import BenchDevice, Reference
from zerodip.errors import Fault

__all__ = ["FINER", "reference_doubts", "reference_faults"]

FINER = 4.0


def reference_faults(device: BenchDevice, reference: Reference, on: date) -> list[Fault]:
    """Why a reference is refused.

    Args:
        device: The switch.
        reference: The gauge.
        on: The day.

    Returns:
        The faults: of its scale always, of its certificate and fineness unless overruled.
    """
    faults = list(_scale_faults(device, reference))
    return (
        faults if reference.overruled.strip() else faults + reference_doubts(device, reference, on)
    )


def reference_doubts(device: BenchDevice, reference: Reference, on: date) -> list[Fault]:
    """What speaks against a reference that covers the points; it may be used all the same, with a
    reason.

    Args:
        device: The switch.
        reference: The gauge.
        on: The day.

    Returns:
        The doubts, as faults.
    """
    return [*_due_faults(reference, on), *_coarse_faults(device, reference)]


def _scale_faults(device: BenchDevice, reference: Reference) -> Iterator[Fault]:
    """The scale holds every point with its tolerance."""
    for at, point in enumerate(device.points):
        room = device.tolerance_pa(at)
        low, high = reference.low_gauge_pa + room, reference.high_gauge_pa - room
        if not low <= point.gauge_pa <= high:
            yield Fault(
                path="reference.high_gauge_pa"
                if point.gauge_pa > high
                else "reference.low_gauge_pa",
                code="scale",
                title="Reference",
                says="does not reach over the set point and its tolerance: take another.",
            )


def _due_faults(reference: Reference, on: date) -> Iterator[Fault]:
    try:
        due = date.fromisoformat(reference.due)
    except ValueError:
        says = "is wanted as a day, as 2026-11-27, or a reason to use it all the same."
        yield _due(says)
        return
    if due < on:
        yield _due("is past: have it calibrated, or give a reason to use it all the same.")


def _due(says: str) -> Fault:
    title = "The day until which the reference's certificate holds"
    return Fault(path="reference.due", code="overdue", title=title, says=says)


def _coarse_faults(device: BenchDevice, reference: Reference) -> Iterator[Fault]:
    finer = min(
        device.tolerance_pa(at) / (reference.expanded_pa or reference.off_pa(point.gauge_pa))
        for at, point in enumerate(device.points)
    )
    if finer < FINER * (1 - 1e-9):
        says = (
            f"is only {finer:.1f} times finer than the tolerance, not {FINER:.0f}: take a finer "
            "one, or give a reason to use it all the same."
        )
        yield Fault(path="reference.grade", code="coarse", title="Reference", says=says)

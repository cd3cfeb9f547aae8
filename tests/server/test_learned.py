"""What visits teach of a switch's nuts, and when it no longer counts."""

from typing import Any
from uuid import uuid4

import pytest

from visits.models import Entry, Visit
from visits.selectors import learned_before
from zerodip.units import PSI

from .conftest import World
from .test_visits import add, opened, seen


def _mean(learned: list[dict[str, Any]]) -> float:
    """What a turn of the range nut does to cut-in, psi."""
    (mean,) = [
        each["mean_pa"] for each in learned if (each["nut"], each["point"]) == ("range", "cut_in")
    ]
    return float(mean / PSI)


def test_what_a_visit_taught_of_the_nuts_and_left_stays_for_the_next(world: World) -> None:
    visit = opened(world)
    for slot, value in (
        ("found.cut_in", 30 * PSI),
        ("found.cut_out", 50 * PSI),
        ("air.left", 38 * PSI),
        ("try", seen(38, 58, 2)),
        ("try", seen(40, 60, 0.5)),
    ):
        assert add(world, visit, slot, value).status_code == 200
    world["technician"].send("PUT", f"/api/visits/{visit}/closed")
    assert _mean(Visit.objects.get(pk=visit).learned) == pytest.approx(3.9, abs=0.4)
    later = opened(world)
    assert later != visit
    add(world, later, "found.cut_in", 36 * PSI)
    view = add(world, later, "found.cut_out", 56 * PSI).json()["view"]
    assert _mean(view["set"]["slopes"]) == pytest.approx(3.9, abs=0.4)
    charge = next(f for f in view["read"] if f["slot"] == "found.pre_charge")
    assert charge["last"] == pytest.approx(38 * PSI)


def test_what_was_learned_of_a_switch_goes_with_it(world: World) -> None:
    visit = opened(world)
    for slot, value in (
        ("found.cut_in", 30 * PSI),
        ("found.cut_out", 50 * PSI),
        ("try", seen(38, 58, 2)),
    ):
        add(world, visit, slot, value)
    world["technician"].send("PUT", f"/api/visits/{visit}/closed")
    swapped = opened(world)
    assert "new switch" in add(world, swapped, "set.replaced", True).json()["view"]["set"]["anew"]
    world["technician"].send("PUT", f"/api/visits/{swapped}/closed")
    later = Visit.objects.get(pk=opened(world))
    assert learned_before(later) == ()
    # A slip of the thumb, put right: the old switch is still there.
    told = Entry.objects.get(visit=swapped, slot="set.replaced")
    Entry.objects.create(
        id=uuid4(), visit_id=swapped, slot="set.replaced", value=False, supersedes=told.id
    )
    assert learned_before(later) != ()

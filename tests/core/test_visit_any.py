"""Any visit at all: whatever may be recorded, in whatever order, the steps can be shown and promise
nothing impossible."""

import json
import math
from dataclasses import asdict, replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.settings import Practice
from zerodip.switch.turning import MOST_TURNS
from zerodip.units import PSI
from zerodip.visit.log import Record, log_of
from zerodip.visit.slots import SLOTS
from zerodip.visit.validation import check_record
from zerodip.visit.view import VisitAsked, visit_view

from .systems import air_settings, compressor, file, tankless

WELL = read_document(file())
SYSTEMS = {
    "well": WELL,
    "plain": read_document(file(system__kind="well_air", settings__pre_charge_gauge_pa=0)),
    "points": read_document(file(system__switch={"nuts": "points"})),
    "compressor": replace(WELL, system=compressor(), settings=air_settings(), practice=Practice()),
    "tankless": replace(
        WELL, system=tankless(), settings=air_settings(30, 45), practice=Practice()
    ),
}
SERIES = {name for name, slot in SLOTS.items() if slot.series}
SAFE = ("bystanders", "power_off", "proved_dead", "drained", "power_up", "bled")
PRESSURE = st.floats(0, 250 * PSI)
TURNS = st.floats(-6, 6).map(lambda turns: round(turns * 8) / 8)


def both(low: str, high: str, **more: Any) -> st.SearchStrategy[dict[str, Any]]:
    """Two pressures in order, and what stands beside them."""
    pair = (
        st.tuples(PRESSURE, PRESSURE)
        .map(sorted)
        .filter(lambda p: p[1] - p[0] > 1 and p[1] > 2 * PSI)
    )
    return st.builds(lambda p, m: {low: p[0], high: p[1], **m}, pair, st.fixed_dictionaries(more))


VALUE = {
    "quantity": lambda spec: st.floats(spec.least, spec.most),
    "flag": lambda spec: st.booleans(),
    "choice": lambda spec: st.sampled_from(spec.options),
    "words": lambda spec: st.text("abc 40/60", max_size=20),
}
RECORDS: dict[str, st.SearchStrategy[Any]] = {
    **{name: VALUE[slot.spec.kind](slot.spec) for name, slot in SLOTS.items() if slot.spec},
    **{f"safe.{step}": st.booleans() for step in SAFE},
    "try": both("cut_in_gauge_pa", "cut_out_gauge_pa", first=TURNS, second=TURNS),
    "set.turned": (
        st.none()
        | st.fixed_dictionaries({"first": TURNS, "second": TURNS, "after": st.integers(0, 4)})
    ),
    "lap": st.fixed_dictionaries(
        {"run_s": st.floats(0.2, 36000), "rest_s": st.none() | st.floats(0.2, 1e5)}
    ),
    "bucket": both("to_gauge_pa", "from_gauge_pa", caught_m3=st.floats(1e-5, 1)),
    "leak": both("later_gauge_pa", "first_gauge_pa", seconds=st.floats(5, 86400)),
    "drain": (
        st.lists(PRESSURE, min_size=2, max_size=40).map(
            lambda gauges: [[t, p] for t, p in enumerate(gauges)]
        )
    ),
    "note": st.fixed_dictionaries({"text": st.text("ab", max_size=30)}),
    "saw": st.one_of(
        st.fixed_dictionaries(
            {
                "item": st.sampled_from(["clicks", "endless", "wet", "alone", "no_puff"]),
                "says": st.sampled_from(["yes", "no", "cannot"]),
            }
        ),
        st.fixed_dictionaries(
            {"item": st.just("run"), "says": st.just("figure"), "value": st.floats(1, 3600)}
        ),
    ),
    "photo": st.fixed_dictionaries({"photo": st.text("ab", max_size=3), "shown": st.booleans()}),
}
ENTRIES = st.lists(
    st.sampled_from(sorted(RECORDS)).flatmap(lambda slot: st.tuples(st.just(slot), RECORDS[slot])),
    max_size=14,
)
JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=4)
        | st.dictionaries(st.sampled_from(["first", "run_s", "text", "x"]), inner)
    ),
    max_leaves=6,
)


def numbers(part: Any) -> list[float]:
    if isinstance(part, dict):
        return [n for value in part.values() for n in numbers(value)]
    if isinstance(part, list | tuple):
        return [n for value in part for n in numbers(value)]
    return [part] if isinstance(part, float) else []


def made(pairs: list[tuple[str, Any]]) -> list[Record]:
    return [Record(str(k), slot, value, at=f"{k:04}") for k, (slot, value) in enumerate(pairs)]


def test_every_slot_has_a_strategy() -> None:
    assert set(RECORDS) >= set(SLOTS)


@pytest.mark.parametrize("kind", SYSTEMS)
@settings(max_examples=60, deadline=None)
@given(pairs=ENTRIES, eager=st.booleans(), order=st.sampled_from(["together", "first"]))
def test_any_visit_can_be_shown(
    kind: str, pairs: list[tuple[str, Any]], eager: bool, order: str
) -> None:
    system: Document = SYSTEMS[kind]
    assert [check_record(slot, value) for slot, value in pairs if check_record(slot, value)] == []
    view = visit_view(system, made(pairs), "metric", VisitAsked(order=order, eager=eager))
    plain = asdict(view)
    json.dumps(plain, allow_nan=False)
    assert all(math.isfinite(n) for n in numbers(plain))
    assert view.power in ("unknown", "off", "on")
    assert 0 <= view.set.sure <= 1
    if view.set.do == "turn":
        assert any(turn.turns for turn in view.set.turns)
        assert max(abs(turn.turns) for turn in view.set.turns) <= MOST_TURNS + 0.25
        assert all(turn.turns * 16 == round(turn.turns * 16) for turn in view.set.turns)
    if view.trouble is not None:
        sure = [each.probability for each in view.trouble.suspects]
        assert sure == sorted(sure, reverse=True)
        assert all(0 <= p <= 1 for p in [*sure, view.trouble.rest])


@settings(max_examples=300, deadline=None)
@given(slot=st.sampled_from(sorted(RECORDS)) | st.text(max_size=12), value=JSON)
def test_any_value_is_kept_or_refused_by_field(slot: str, value: Any) -> None:
    faults = check_record(slot, value)
    assert all(fault.path.startswith(("value", "slot")) and fault.title for fault in faults)
    if not faults:
        visit_view(WELL, made([(slot, value)]))


@given(pairs=ENTRIES)
def test_a_log_in_force_forgets_nothing_but_what_was_superseded(
    pairs: list[tuple[str, Any]],
) -> None:
    log = log_of(made(pairs))
    series = [slot for slot, _ in pairs if slot in SERIES]
    assert sum(len(kept) for kept in log.series.values()) == len(series)
    for slot, value in pairs[::-1]:
        if slot not in SERIES:
            last = next(v for s, v in pairs[::-1] if s == slot)
            assert log.values[slot].value == last
            assert value is not None or slot == "set.turned"

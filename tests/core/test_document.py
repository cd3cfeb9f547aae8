"""Reading a system file: every fault named, nothing else raised, and the schema says the same."""

import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from zerodip.errors import InvalidInput, UnreadableFile
from zerodip.fileformat.document import read_document, read_file
from zerodip.fileformat.schema import document_schema
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.water.model import Tank
from zerodip.kinds.water.pumps import RatedPoint
from zerodip.units import PSI

from .systems import FILE, GPM, file

SCHEMA = Draft202012Validator(document_schema())


def faults(raw: Any) -> dict[str, str]:
    with pytest.raises(InvalidInput) as refused:
        read_document(raw)
    return {fault.path: fault.code for fault in refused.value.faults}


def curve(*points: tuple[float, float]) -> dict[str, Any]:
    return file(
        system__pump={
            "model": "curve",
            "points": [{"flow_m3_s": q, "head_m": h} for q, h in points],
        }
    )


def other(system: dict[str, Any]) -> dict[str, Any]:
    return {**file(), "system": system}


def compressor(*points: tuple[float, float]) -> dict[str, Any]:
    delivered = [{"gauge_pa": p, "flow_m3_s": q} for p, q in points]
    return other(
        {
            "kind": "compressor",
            "name": "",
            "receivers": [{"volume_m3": 0.1}],
            "pump": {"points": delivered},
        }
    )


def tankless(least: float, most: float, *points: tuple[float, float]) -> dict[str, Any]:
    pump = {"nominal_v": 12, "points": [{"flow_m3_s": q, "gauge_pa": p} for q, p in points]}
    outlet = {"name": "Tap", "flow_m3_s": 1e-4, "gauge_pa": 1e5}
    battery = {"least_v": least, "most_v": most}
    return other(
        {"kind": "tankless", "name": "", "pump": pump, "battery": battery, "outlets": [outlet]}
    )


CUT_IN = "settings.cut_in_gauge_pa"
BAD = [
    (file(settings__cut_in_gauge_pa=float("nan")), {CUT_IN: "not_finite"}),
    (file(settings__cut_in_gauge_pa=float("inf")), {CUT_IN: "not_finite"}),
    (file(settings__cut_in_gauge_pa=-1), {CUT_IN: "too_small"}),
    (file(settings__cut_out_gauge_pa=1e9 * PSI), {"settings.cut_out_gauge_pa": "too_large"}),
    (file(settings__cut_out_gauge_pa=10**400), {"settings.cut_out_gauge_pa": "too_large"}),
    (file(settings__cut_in_gauge_pa="4o"), {CUT_IN: "not_a_number"}),
    (file(settings__cut_in_gauge_pa=True), {CUT_IN: "not_a_number"}),
    (file(settings__cut_in_gauge_pa=None), {CUT_IN: "missing"}),
    (file(settings__cut_in_gauge_pa=70 * PSI), {CUT_IN: "order"}),
    (file(settings__cut_in_gauge_pa=60 * PSI), {CUT_IN: "order"}),
    (file(system__tanks=[]), {"system.tanks": "not_a_list"}),
    (file(system__tanks=[7]), {"system.tanks.0": "not_an_object"}),
    (file(system__tanks__0__acceptance_m3=1.0), {"system.tanks.0.acceptance_m3": "order"}),
    (file(system__pump__model="windmill"), {"system.pump.model": "not_a_choice"}),
    (file(system__pump=3), {"system.pump": "not_an_object"}),
    (file(system__pump__colour="blue"), {"system.pump.colour": "unknown_field"}),
    (file(system__relief={"present": "perhaps"}), {"system.relief.present": "not_yes_or_no"}),
    (file(system__name="a\u0000b"), {"system.name": "not_printable"}),
    (file(system__name="\ud800"), {"system.name": "not_printable"}),
    (file(system__name="x" * 81), {"system.name": "too_long"}),
    (file(format="other"), {"format": "not_a_choice"}),
    (file(version=2), {"version": "not_a_choice"}),
    (file(entered={CUT_IN: {"text": "41", "unit": "psi"}}), {f"entered.{CUT_IN}": "disagrees"}),
    (file(entered={CUT_IN: {"text": "40", "unit": "gal"}}), {f"entered.{CUT_IN}": "unknown_unit"}),
    (
        file(entered={"system.name": {"text": "40", "unit": "psi"}}),
        {"entered.system.name": "unknown_unit"},
    ),
    (file(entered={CUT_IN: "40"}), {f"entered.{CUT_IN}": "not_text"}),
    ([], {"": "not_an_object"}),
    (file(system__kind="fountain"), {"system.kind": "not_a_choice"}),
    (file(settings__pre_charge_gauge_pa=None), {"settings.pre_charge_gauge_pa": "missing"}),
    (file(system__found={"caught_m3": 0.01}), {"system.found.caught_m3": "incomplete"}),
    (file(system__site={"coldest_k": 290, "warmest_k": 280}), {"system.site.warmest_k": "order"}),
    (file(practice={"reason": "x" * 201}), {"practice.reason": "too_long"}),
    (curve((0, 50), (0.001, 55)), {"system.pump.points.1.head_m": "order"}),
    (curve((0, 50)), {"system.pump.points": "not_a_list"}),
    (
        curve((0.001, 50), (0.001, 40)),
        {"system.pump.points.0.flow_m3_s": "order", "system.pump.points.1.flow_m3_s": "order"},
    ),
    (compressor((5e5, 0.004), (8e5, 0.005)), {"system.pump.points.1.flow_m3_s": "order"}),
    (compressor((5e5, 0.004), (5e5, 0.004)), {"system.pump.points.1.gauge_pa": "order"}),
    (compressor(), {"system.pump.points": "not_a_list"}),
    (tankless(14, 11, (0, 4e5), (1e-4, 1e5)), {"system.battery.least_v": "order"}),
    (tankless(22, 28, (0, 4e5), (1e-4, 1e5)), {"system.pump.nominal_v": "order"}),
    (tankless(11, 14, (0, 1e5), (1e-4, 4e5)), {"system.pump.points.1.gauge_pa": "order"}),
    (tankless(11, 14, (0, 1e5)), {"system.pump.points": "not_a_list"}),
]


@pytest.mark.parametrize(("raw", "expected"), BAD)
def test_each_fault_is_named_by_its_field(raw: Any, expected: dict[str, str]) -> None:
    assert faults(raw) == expected


def test_all_faults_come_at_once_in_the_units_asked_for() -> None:
    raw = file(
        settings__cut_out_gauge_pa=1e9 * PSI,
        settings__pre_charge_gauge_pa="x",
        system__tanks__0__volume_m3=-1,
    )
    with pytest.raises(InvalidInput) as refused:
        read_document(raw)
    said = [fault.sentence("us") for fault in refused.value.faults]
    assert said == [
        "Tank volume is -264.2 gal; allowed 0.13 gal to 5,283 gal.",
        "Cut-out is 1,000,000,000 psi; allowed 2 psi to 300 psi.",
        "Pre-charge is not a number. Allowed: 0 psi to 300 psi.",
    ]


CURVE_FAULTS = [
    ([(0, 50)], {"system.pump.points": "not_a_list"}),
    ([(0, 50), (1, 60)], {"system.pump.points.1.head_m": "order"}),
    ([(0, 50), (1, 50)], {"system.pump.points.1.head_m": "order"}),
    ([(0, 50), (2, 40), (2, 30)], {"system.pump.points.2.flow_m3_s": "order"}),
    ([(1, 50), (2, 40)], {"system.pump.points.0.flow_m3_s": "order"}),
]


@pytest.mark.parametrize(("points", "expected"), CURVE_FAULTS)
def test_a_curve_must_fall_from_shut_off(
    points: list[tuple[float, float]], expected: dict[str, str]
) -> None:
    rows = [{"flow_m3_s": q * GPM, "head_m": h} for q, h in points]
    assert faults(file(system__pump={"model": "curve", "points": rows})) == expected


def test_building_in_python_refuses_the_same() -> None:
    with pytest.raises(InvalidInput, match="below cut-out"):
        Settings(cut_in_gauge_pa=60 * PSI, cut_out_gauge_pa=40 * PSI, pre_charge_gauge_pa=0)
    with pytest.raises(InvalidInput, match="volume_m3.*max_gauge_pa"):
        Tank(volume_m3=float("nan"), max_gauge_pa=-1)
    with pytest.raises(InvalidInput, match="rated point"):
        RatedPoint(flow_m3_s=GPM, gauge_pa=50 * PSI, dead_head_gauge_pa=40 * PSI)


def test_what_is_written_reads_back_the_same_and_keeps_what_was_typed() -> None:
    raw = file(
        entered={CUT_IN: {"text": "40", "unit": "psi"}},
        system__found={"pre_charge_gauge_pa": 27 * PSI},
    )
    document = read_document(raw)
    assert read_document(json.loads(json.dumps(document.as_json()))) == document
    assert document.as_json()["entered"] == raw["entered"]
    assert SCHEMA.is_valid(document.as_json())


@pytest.mark.parametrize(
    "raw",
    [
        raw
        for raw, codes in BAD[:22]
        if set(codes.values()) <= {"too_small", "too_large", "missing"}
    ],
)
def test_the_schema_refuses_what_reading_refuses(raw: Any) -> None:
    assert not SCHEMA.is_valid(raw)


junk = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=6), inner, max_size=3)
    ),
    max_leaves=6,
)
PATHS = [
    "format",
    "system",
    "system__pump",
    "system__tanks",
    "system__tanks__0",
    "system__site",
    "settings",
    "practice",
    "entered",
    "settings__cut_in_gauge_pa",
    "system__pump__flow_m3_s",
    "system__pump__model",
    "system__kind",
]


@settings(max_examples=300)
@given(path=st.sampled_from(PATHS), value=junk)
def test_junk_is_read_or_refused_and_nothing_else_happens(path: str, value: Any) -> None:
    raw = file(**{path: value})
    try:
        read_document(raw)
    except InvalidInput as refused:
        assert refused.faults
        assert all(fault.sentence("metric") for fault in refused.faults)


@pytest.mark.parametrize(
    ("content", "said"),
    [(b"{", "not JSON"), (b"\xff\xfe\x00", "not JSON"), (b"[" * 100000, "not JSON")],
)
def test_a_file_that_is_not_json_is_said_to_be_so(tmp_path: Any, content: bytes, said: str) -> None:
    (tmp_path / "f.json").write_bytes(content)
    with pytest.raises(UnreadableFile, match=said):
        read_file(tmp_path / "f.json")
    with pytest.raises(UnreadableFile, match="cannot be read"):
        read_file(tmp_path / "none.json")


def test_null_means_the_default_for_whatever_may_be_left_out() -> None:
    raw = file(
        practice={"gas_exponent": None},
        system__site={"altitude_m": None},
        system__switch=None,
        system__found=None,
    )
    document = read_document(raw)
    assert document.practice.gas_exponent == 1.0
    assert document.system.site.altitude_m == 0.0
    assert document == read_document(FILE)
    with pytest.raises(InvalidInput, match="is missing"):
        Practice(gas_exponent=None)  # type: ignore[arg-type]


def test_the_example_is_valid() -> None:
    assert SCHEMA.is_valid(FILE)

"""Conversions against pint, round trips, and how figures are written."""

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from zerodip import units
from zerodip.units import (
    SCALES,
    SYSTEMS,
    UNITS,
    UnknownUnit,
    from_si,
    measures,
    table,
    text,
    to_si,
    unit_for,
)

REGISTRY = pint.UnitRegistry()
PINT = {
    "psi": ("psi", "Pa"),
    "bar": ("bar", "Pa"),
    "kPa": ("kPa", "Pa"),
    "MPa": ("MPa", "Pa"),
    "mbar": ("mbar", "Pa"),
    "kgf/cm2": ("kgf/cm^2", "Pa"),
    "gal": ("gallon", "m^3"),
    "L": ("liter", "m^3"),
    "gpm": ("gallon/minute", "m^3/s"),
    "L/min": ("liter/minute", "m^3/s"),
    "ft": ("foot", "m"),
    "m": ("m", "m"),
    "in": ("inch", "m"),
    "mm": ("mm", "m"),
    "degF": ("degF", "K"),
    "degC": ("degC", "K"),
    "hp": ("horsepower", "W"),
    "kW": ("kW", "W"),
    "per_hour": ("1/hour", "1/s"),
    "per_day": ("1/day", "1/s"),
    "F": ("delta_degF", "kelvin"),
}


@pytest.mark.parametrize("unit", PINT)
@pytest.mark.parametrize("value", [0.0, 1.0, 43.5, 212.0])
def test_conversions_are_pints(unit: str, value: float) -> None:
    theirs, si = PINT[unit]
    assert to_si(value, unit) == pytest.approx(
        REGISTRY.Quantity(value, theirs).to(si).magnitude, rel=1e-9, abs=1e-12
    )


@pytest.mark.parametrize(
    ("scale", "pascals"), [("inHg", 3386.389), ("mmHg", 133.3224), ("inH2O", 249.0889)]
)
def test_columns_are_the_conventional_ones(scale: str, pascals: float) -> None:
    # NIST SP 811, appendix B.8: inch and millimetre of mercury, inch of water, conventional.
    assert to_si(1.0, scale) == pascals
    assert REGISTRY.Quantity(1.0, scale).to("Pa").magnitude == pytest.approx(pascals, rel=1e-6)


@pytest.mark.parametrize("scale", SCALES)
def test_a_scale_stands_where_a_unit_system_stands_for_its_pressures(scale: str) -> None:
    assert unit_for("pressure", scale).id == scale
    assert unit_for("volume", scale) == unit_for("volume", SCALES[scale])
    assert measures(scale, "pressure")
    assert not measures(scale, "volume")
    assert text(to_si(-12, scale), "pressure", scale) == f"-12 {UNITS[scale].symbol}"


@given(value=st.floats(-1e6, 1e6), unit=st.sampled_from(sorted(UNITS)))
def test_there_and_back(value: float, unit: str) -> None:
    assert from_si(to_si(value, unit), unit) == pytest.approx(value, rel=1e-9, abs=1e-6)


@pytest.mark.parametrize(
    ("si", "dimension", "system", "written"),
    [
        (to_si(40, "psi"), "pressure", "us", "40 psi"),
        (to_si(37.66, "psi"), "pressure", "us", "37.7 psi"),
        (to_si(40, "psi"), "pressure", "metric", "2.76 bar"),
        (to_si(40, "psi"), "pressure", "kpa", "276 kPa"),
        (to_si(11.527, "gal"), "volume", "us", "11.5 gal"),
        (to_si(0.2249, "gal"), "volume", "us", "0.22 gal"),
        (to_si(6.23, "L"), "volume", "metric", "6.2 L"),
        (13 / 3600, "rate", "us", "13/h"),
        (to_si(2300, "ft"), "length", "us", "2,300 ft"),
        (-1e-9, "pressure", "us", "0 psi"),
        (float("inf"), "duration", "us", "no end"),
        (None, "pressure", "us", "not known"),
    ],
)
def test_figures_are_written_as_a_person_would(
    si: float | None, dimension: str, system: str, written: str
) -> None:
    assert text(si, dimension, system) == written


def test_unknown_names_are_refused_by_name() -> None:
    for refused in (
        lambda: to_si(1, "stone"),
        lambda: from_si(1, "stone"),
        lambda: unit_for("pressure", "imperial"),
    ):
        with pytest.raises(UnknownUnit, match="stone|imperial"):
            refused()
    with pytest.raises(UnknownUnit, match="colour"):
        unit_for("colour", "us")


def test_the_table_for_the_interface_names_a_unit_for_every_dimension_and_system() -> None:
    written = table()
    assert {system["id"] for system in written["systems"]} == set(SYSTEMS)
    for choice in written["dimensions"].values():
        assert set(choice) == set(SYSTEMS)
        assert set(choice.values()) <= set(written["units"])
    assert set(written["dimensions"]) == set(units.DIMENSIONS)

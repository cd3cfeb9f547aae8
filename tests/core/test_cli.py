"""The command line: JSON in and out, faults on stderr, exit status."""

import json
import subprocess
import sys
from dataclasses import asdict
from pathlib import Path
from typing import Any

import pytest

from zerodip.cli import main
from zerodip.decide.judge import decide
from zerodip.fileformat.document import read_document
from zerodip.units import PSI

from .systems import file

CORE = Path(__file__).resolve().parents[2] / "core"


def run(*words: str) -> subprocess.CompletedProcess[str]:
    """The command under an interpreter that sees no installed package at all: -I -S, with the core
    alone on the path."""
    script = (
        f"import sys; sys.path.insert(0, {str(CORE)!r}); from zerodip.cli import main;"
        " sys.exit(main(sys.argv[1:]))"
    )
    return subprocess.run(
        [sys.executable, "-I", "-S", "-c", script, *words],
        capture_output=True,
        text=True,
        check=False,
    )


def written(tmp_path: Path, raw: Any) -> str:
    path = tmp_path / "system.json"
    path.write_text(json.dumps(raw), encoding="utf-8")
    return str(path)


def test_it_decides_without_any_installed_package(tmp_path: Path) -> None:
    ran = run("decide", written(tmp_path, file()), "--units", "metric")
    assert ran.returncode == 0, ran.stderr
    document = read_document(file())
    expected = decide(document.system, document.settings, document.practice, "metric", sure=True)
    assert json.loads(ran.stdout) == json.loads(json.dumps(asdict(expected)))


def test_bad_values_are_all_named_and_nothing_is_printed(tmp_path: Path) -> None:
    raw = file(settings__cut_out_gauge_pa=1e9 * PSI, system__pump__flow_m3_s=float("nan"))
    ran = run("decide", written(tmp_path, raw))
    assert ran.returncode == 1
    assert ran.stdout == ""
    assert (
        "settings.cut_out_gauge_pa: Cut-out is 1,000,000,000 psi; allowed 2 psi to 300 psi."
        in ran.stderr
    )
    assert "system.pump.flow_m3_s: Pump flow must be a finite number." in ran.stderr


@pytest.mark.parametrize("content", ["", "{", "null]"])
def test_what_cannot_be_read_exits_2(
    tmp_path: Path, content: str, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "broken.json"
    path.write_text(content)
    assert main(["decide", str(path)]) == 2
    assert "is not JSON" in capsys.readouterr().err
    assert main(["decide", str(tmp_path / "none.json")]) == 2


def test_the_schema_is_printed(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["schema"]) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "Zero Dip system file"


@pytest.mark.parametrize("name", ["propose", "sizes"])
def test_other_ways_are_weighed_on_the_command_line_too(
    name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main([name, str(written(tmp_path, file())), "--units", "metric"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["proposed"]["stops"] == 0 if name == "propose" else told["least_m3"] > 0


def test_the_next_turn_of_a_stiff_screw_and_what_a_file_of_looks_lacks(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    looks = [
        {"cut_in_gauge_pa": 92 * PSI, "cut_out_gauge_pa": 120 * PSI},
        {"first": 0.125, "cut_in_gauge_pa": 100 * PSI, "cut_out_gauge_pa": 128 * PSI},
    ]
    asked = {
        "switch": "one",
        "springs": "stiff",
        "cut_in_gauge_pa": 105 * PSI,
        "cut_out_gauge_pa": 135 * PSI,
        "highest_gauge_pa": 147 * PSI,
        "looks": looks,
    }
    assert main(["turns", written(tmp_path, asked)]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["turns"] == {"screw": 0.125}
    assert told["step"]["cut_out_pa"][0] == pytest.approx(135.5 * PSI, abs=1.5 * PSI)
    assert main(["turns", written(tmp_path, {**asked, "highest_gauge_pa": None})]) == 0
    assert json.loads(capsys.readouterr().out)["step"]["do"] == "read"
    assert main(["turns", written(tmp_path, {**asked, "looks": [], "switch": "three"})]) == 1
    said = capsys.readouterr().err
    assert "switch" in said
    assert "looks" in said


def test_a_trouble_is_diagnosed_from_a_kind_and_evidence_and_bad_evidence_is_named(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    seen = [{"item": "clicks", "value": True}, {"item": "run", "value": 2.5}]
    assert main(["trouble", written(tmp_path, {"system_file": file(), "evidence": seen})]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["suspects"][0]["id"] == "burst"
    assert told["check"]["items"][0]["asks"]
    assert main(["trouble", written(tmp_path, {"kind": "compressor", "evidence": []})]) == 0
    capsys.readouterr()
    wrong = [{"item": "run", "value": -3}, {"item": "luck", "value": True}, {"item": "wet"}, 5]
    assert main(["trouble", written(tmp_path, {"kind": "well_bladder", "evidence": wrong})]) == 1
    said = capsys.readouterr().err
    for path in ("evidence.0.value", "evidence.1.item", "evidence.2.value", "evidence.3"):
        assert path in said
    for broken in ([], {"kind": "boat", "evidence": []}, {"kind": "cistern", "evidence": 3}):
        assert main(["trouble", written(tmp_path, broken)]) == 1

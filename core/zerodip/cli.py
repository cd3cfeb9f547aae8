"""`zerodip decide FILE.json`, `propose`, `sizes`, `turns`, `trouble`, `calibrate`, `recording`: the
same judgement on the command line, JSON in (or a recorder's file) and out.

Exit status: 0 when decided, 1 when the file's values are refused, 2 when it cannot be read or the
call is wrong.
"""

import argparse
import json
import os
import sys
from collections.abc import Callable, Sequence
from dataclasses import asdict
from pathlib import Path
from typing import Any

from zerodip.bench.calibrate import calibrate
from zerodip.bench.file import read_calibration
from zerodip.decide.judge import decide
from zerodip.decide.propose import propose
from zerodip.decide.size import sizing
from zerodip.errors import Fault, InvalidInput, UnreadableFile
from zerodip.fileformat.document import Document, read_document, read_json
from zerodip.fileformat.fields import read
from zerodip.fileformat.schema import document_schema
from zerodip.units import SYSTEMS
from zerodip.visit.trouble_asked import asked_trouble
from zerodip.visit.turns_asked import TurnsAsked, next_turns

__all__ = ["main"]


def _on_system(judge: Callable[[Document, str], Any]) -> Callable[[Any, str], Any]:
    return lambda raw, units: judge(read_document(raw), units)


def _turns(raw: Any, units: str) -> Any:
    asked, faults = read(TurnsAsked, raw)
    if asked is None:
        raise InvalidInput(faults)
    return next_turns(asked, units)


def _calibrated(raw: Any, units: str) -> Any:
    of = read_calibration(raw)
    return calibrate(of, of.device.told_in(units))


_COMMANDS: dict[str, Callable[[Any, str], Any]] = {
    "decide": _on_system(
        lambda of, units: decide(of.system, of.settings, of.practice, units, sure=True)
    ),
    "propose": _on_system(lambda of, units: propose(of.system, of.settings, of.practice, units)),
    "sizes": _on_system(lambda of, units: sizing(of.system, of.settings, of.practice, units=units)),
    "turns": _turns,
    "trouble": asked_trouble,
    "calibrate": _calibrated,
}
_HELP = {
    "decide": "judge the settings in a system file",
    "propose": "propose settings for it, and say what each other way would cost",
    "sizes": "the least tank for the run that its practice wants",
    "turns": "the next turn of a switch's nuts, from the looks so far",
    "trouble": "the causes of a trouble and the next check, from what was seen and measured",
    "calibrate": "judge the runs of a set-point switch: points, deadbands, uncertainty, verdicts",
}
_BY_PRESSURE = {"psi": "us", "bar": "metric", "kpa": "kpa"}
_FILES = {
    "turns": "a file of looks (docs/extending.md, “To try the next turn”)",
    "trouble": "a file of evidence (docs/trouble.schema.json)",
    "calibrate": "a file of a calibration (docs/calibration.schema.json)",
}


def main(arguments: Sequence[str] | None = None) -> int:
    """Runs the command; returns its exit status."""
    asked = _parser().parse_args(arguments)
    try:
        return _run(asked)
    except BrokenPipeError:  # whoever reads has enough, as `head` does
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0


def _run(asked: argparse.Namespace) -> int:
    if asked.command == "schema":
        return _print(document_schema())
    try:
        if asked.command == "recording":
            return _recording(asked)
        made = _COMMANDS[asked.command](read_json(asked.file), asked.units)
    except UnreadableFile as error:
        print(f"zerodip: {error}", file=sys.stderr)
        return 2
    except InvalidInput as error:
        return _refuse(error.faults, asked.file, asked.units)
    return _print(asdict(made))


def _recording(asked: argparse.Namespace) -> int:
    from zerodip.recording.options import Told  # with numpy and polars, only where asked for
    from zerodip.recording.told import read_file

    try:
        document = read_document(read_json(asked.system)) if asked.system else None
    except InvalidInput as error:
        return _refuse(error.faults, asked.system, asked.units)
    told = Told(
        column=asked.column, unit=asked.unit, scale=asked.scale, zone=asked.zone, first=asked.first
    )
    try:
        with Path(asked.file).open("rb") as stream:
            made = read_file(stream, document, asked.units, told)
    except OSError as error:
        raise UnreadableFile(f"{asked.file} cannot be read: {error.strerror}") from None
    if asked.summary:
        return _summary(made)
    if asked.no_cycles:
        made.pop("cycles")
    return _print(made)


def _summary(made: dict[str, Any]) -> int:
    """What a recording says, in words for people."""
    for each in (*made["faults"], *made["says"]):
        print(f"{each['title']}. {each['text']}".strip())
    for doubt in made["not_sure"]:
        print(f"Not sure: {doubt}")
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="zerodip", description="Cut-in, cut-out, pre-charge and what follows."
    )
    commands = parser.add_subparsers(dest="command", required=True)
    for name, what in _HELP.items():
        asked = commands.add_parser(name, help=what)
        asked.add_argument("file", help=_FILES.get(name, "a system file (docs/system.schema.json)"))
        asked.add_argument(
            "--units",
            type=_units,
            default="us",
            help="units of the texts: us, metric, kpa, or psi, bar, kPa; numbers are SI (us)",
        )
    recording = commands.add_parser("recording", help="what a recorder's file of pressures says")
    recording.add_argument("file", help="CSV, JSON lines or Parquet, also packed with gzip")
    recording.add_argument("--system", help="the system's file (docs/system.schema.json)")
    recording.add_argument("--units", type=_units, default="us", help="units of the texts")
    recording.add_argument("--column", type=int, help="the column of pressure, from 1")
    recording.add_argument("--unit", default="", help="its unit, psi for example")
    recording.add_argument("--scale", default="", help="of a signal: “4-20 mA = 0-10 bar”")
    recording.add_argument("--zone", default="", help="the recorder's time zone: Europe/Berlin")
    recording.add_argument(
        "--first", choices=("day", "month"), default="", help="what comes first in a date"
    )
    recording.add_argument("--summary", action="store_true", help="in words, for people")
    recording.add_argument("--no-cycles", action="store_true", help="without every single cycle")
    commands.add_parser("schema", help="print the JSON Schema of a system file")
    return parser


def _units(said: str) -> str:
    """A unit system by its name, or by its unit of pressure."""
    system = _BY_PRESSURE.get(said.lower(), said.lower())
    if system not in SYSTEMS:
        raise argparse.ArgumentTypeError(f"must be one of {', '.join((*SYSTEMS, *_BY_PRESSURE))}")
    return system


def _refuse(faults: Sequence[Fault], file: str, units: str) -> int:
    for fault in faults:
        at = fault.path or "(file)"
        print(f"zerodip: {file}: {at}: {fault.sentence(units)}", file=sys.stderr)
    return 1


def _print(value: Any) -> int:
    json.dump(value, sys.stdout, ensure_ascii=False, indent=1, allow_nan=False)
    print(flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())

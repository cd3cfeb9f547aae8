"""`zerodip decide FILE.json`: the same judgement on the command line, JSON in and out.

Exit status: 0 when decided, 1 when the file's values are refused, 2 when it cannot be read or the call is wrong.
"""

import argparse
import json
import sys
from collections.abc import Sequence
from typing import Any

from .decide import decide
from .document import read_file
from .errors import Fault, InvalidInput, UnreadableFile
from .schema import document_schema
from .units import SYSTEMS

__all__ = ["main"]


def main(arguments: Sequence[str] | None = None) -> int:
    """Runs the command; returns its exit status."""
    asked = _parser().parse_args(arguments)
    if asked.command == "schema":
        return _print(document_schema())
    try:
        document = read_file(asked.file)
    except UnreadableFile as error:
        print(f"zerodip: {error}", file=sys.stderr)
        return 2
    except InvalidInput as error:
        return _refuse(error.faults, asked)
    decided = decide(document.system, document.settings, document.practice, asked.units)
    return _print(decided.as_json())


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="zerodip", description="Cut-in, cut-out, pre-charge and what follows.")
    commands = parser.add_subparsers(dest="command", required=True)
    asked = commands.add_parser("decide", help="judge the settings in a system file")
    asked.add_argument("file", help="a system file (docs/system.schema.json)")
    asked.add_argument(
        "--units", choices=SYSTEMS, default="us", help="units of the texts; numbers are SI (default: us)"
    )
    commands.add_parser("schema", help="print the JSON Schema of a system file")
    return parser


def _refuse(faults: Sequence[Fault], asked: argparse.Namespace) -> int:
    for fault in faults:
        print(f"zerodip: {asked.file}: {fault.path or '(file)'}: {fault.sentence(asked.units)}", file=sys.stderr)
    return 1


def _print(value: Any) -> int:
    json.dump(value, sys.stdout, ensure_ascii=False, indent=1, allow_nan=False)
    print()
    return 0


if __name__ == "__main__":
    sys.exit(main())

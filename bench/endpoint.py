"""The what-if endpoint against an empty JSON endpoint of the same server, by turns on one
connection: goal at most 1.8×. And what comparing other ways takes there: goal for a proposal
under 150 ms."""

import json
import statistics

from sites.demo import SITES
from zerodip.fileformat.document import read_document

from .served import Caller, asked, served

ASKS = ("propose", "compare", "sizes")


def main() -> None:
    """Prints the medians and their ratio."""
    with served() as url:
        caller = Caller(url)
        for file in (file for _, _, files in SITES for file in files):
            document = read_document(file).as_json()
            body = asked(file)
            plain = json.dumps({"document": document}).encode()
            pairs = [
                (
                    caller.milliseconds("/bench/empty", b"{}"),
                    caller.milliseconds("/api/decide", body),
                )
                for _ in range(140)
            ][20:]
            empty, taken = (statistics.median(side) for side in zip(*pairs, strict=True))
            name = file["system"]["name"]
            print(
                f"{name:22} empty {empty:.2f} ms, what-if {taken:.2f} ms: {taken / empty:.2f} ×"
                " (goal 1.8)"
            )
            judged = {
                ask: statistics.median(caller.milliseconds(f"/api/{ask}", plain) for _ in range(9))
                for ask in ASKS
            }
            print(
                " " * 22,
                ", ".join(f"{ask} {taken:.0f} ms" for ask, taken in judged.items()),
                "(goal for propose 150)",
            )


if __name__ == "__main__":
    main()

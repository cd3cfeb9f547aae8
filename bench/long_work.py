"""Eight at once who print new reports, labels, take in archives or send them out: what a what-if
takes meanwhile, against what it takes without them, by turns. Goal: at most twice."""

import threading
import uuid
from collections.abc import Callable

from .served import Caller, median_ms, served

EIGHT, TURNS, ASKED = 8, 3, 150
Work = Callable[[Caller], None]


def reports(caller: Caller) -> None:
    """A report that was never printed like that before."""
    rounds = caller.json("GET", "/api/rounds")
    system = rounds["sites"][0]["systems"][0]["id"]
    visit = caller.json("PUT", f"/api/systems/{system}/visits/{uuid.uuid4()}")["id"]
    entry = {"slot": "note", "value": {"text": f"Seen {uuid.uuid4()}"}}
    caller.json("PUT", f"/api/visits/{visit}/entries/{uuid.uuid4()}", entry)
    caller.send("GET", f"/api/visits/{visit}/report.pdf")


def labels(caller: Caller) -> None:
    """Labels of a whole site."""
    site = caller.json("GET", "/api/rounds")["sites"][0]["id"]
    caller.send("GET", f"/api/labels.pdf?site={site}")


def archives(caller: Caller) -> None:
    """Everything of a workspace, out."""
    workspace = caller.json("GET", "/api/workspaces")[0]["id"]
    caller.send("GET", f"/api/archive/workspaces/{workspace}.json?photos=true")


def imports(caller: Caller) -> None:
    """Everything of a workspace, out and in again."""
    workspace = caller.json("GET", "/api/workspaces")[0]["id"]
    data = caller.send("GET", f"/api/archive/workspaces/{workspace}.json")
    path = f"/api/workspaces/{workspace}/imports/{uuid.uuid4()}"
    status, _ = caller.answer("PUT", path, data)
    while status == 200:  # the next one's begin lets this one go
        status, read = caller.answer("POST", f"/api/imports/{path[-36:]}/step")
        if b'"ready"' in read:
            return


class Busy:
    """Eight that do the same over and over."""

    def __init__(self, url: str, work: Work) -> None:
        self.done, self.refused, self.ends = 0, 0, threading.Event()
        self.threads = [
            threading.Thread(target=self._run, args=(url, work), daemon=True) for _ in range(EIGHT)
        ]

    def _run(self, url: str, work: Work) -> None:
        caller = Caller(url)
        while not self.ends.is_set():
            try:
                work(caller)
                self.done += 1
            except AssertionError:
                self.refused += 1

    def __enter__(self) -> "Busy":
        for each in self.threads:
            each.start()
        return self

    def __exit__(self, *args: object) -> None:
        self.ends.set()
        for each in self.threads:
            each.join()


def main() -> None:
    """Prints the medians and their ratio, for each kind of long work."""
    with served() as url:
        caller = Caller(url)
        median_ms(caller, 30)
        for work in (reports, labels, archives, imports):
            for _ in range(TURNS):
                alone, _ = median_ms(caller, ASKED)
                with Busy(url, work) as busy:
                    median_ms(caller, 20)
                    among, worst = median_ms(caller, ASKED)
                print(
                    f"{EIGHT} {work.__name__}: what-if alone {alone:.1f} ms, beside them"
                    f" {among:.1f} ms (95 %: {worst:.1f}): {among / alone:.2f} × (goal 2);"
                    f" {busy.done} done, {busy.refused} refused"
                )


if __name__ == "__main__":
    main()

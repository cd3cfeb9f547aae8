"""500 connections that say nothing, begin a header or a body a byte a second, or take their answer
so: what a what-if takes from another address meanwhile, against what it takes without them, by
turns. Goal: at most twice."""

import socket
import threading
import time
from contextlib import suppress

from .served import Caller, median_ms, served

CONNECTIONS, ADDRESSES, TURNS, ASKED = 500, 10, 3, 200
POST = b"POST /api/decide HTTP/1.1\r\nHost: localhost\r\nContent-Length: 900000\r\n\r\n"
GET = b"GET /static/manifest.json HTTP/1.1\r\nHost: localhost\r\n\r\n"
KINDS = (b"", b"GET /api/rounds HTTP/1.1\r\nHost: local", POST, GET * 40)


class Slow(threading.Thread):
    """Holds its connections open as long as it is let, and opens each anew that is closed."""

    def __init__(self, port: int) -> None:
        super().__init__(daemon=True)
        self.port, self.ends, self.opened, self.refused = port, threading.Event(), 0, 0

    def run(self) -> None:
        """A byte a second on each."""
        held = [self._open(k) for k in range(CONNECTIONS)]
        while not self.ends.wait(1):
            held = [self._drip(k, each) for k, each in enumerate(held)]
        for each in held:
            each.close()

    def _open(self, k: int) -> socket.socket:
        self.opened += 1
        to = socket.socket()
        to.bind((f"127.0.0.{2 + k % ADDRESSES}", 0))
        to.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 2048)
        to.settimeout(5)
        with suppress(OSError):
            to.connect(("127.0.0.1", self.port))
            to.sendall(KINDS[k % len(KINDS)])
        to.setblocking(False)
        return to

    def _drip(self, k: int, to: socket.socket) -> socket.socket:
        try:
            if k % len(KINDS) in (1, 2):
                to.send(b"x")
            if k % len(KINDS) != 3 and to.recv(1) == b"":
                raise ConnectionError
        except BlockingIOError:
            return to
        except OSError:
            self.refused += 1
            to.close()
            return self._open(k)
        return to


def main() -> None:
    """Prints the medians and their ratio."""
    with served() as url:
        caller, port = Caller(url), int(url.rpartition(":")[2])
        median_ms(caller, 30)
        for _ in range(TURNS):
            alone, _ = median_ms(caller, ASKED)
            slow = Slow(port)
            slow.start()
            time.sleep(12)  # past the deadline for a header: the first are opened anew
            among, worst = median_ms(caller, ASKED)
            slow.ends.set()
            slow.join()
            print(
                f"what-if alone {alone:.1f} ms, among {CONNECTIONS} slow ones {among:.1f} ms"
                f" (95 %: {worst:.1f}): {among / alone:.2f} × (goal 2);"
                f" {slow.opened} opened, {slow.refused} closed on them"
            )


if __name__ == "__main__":
    main()

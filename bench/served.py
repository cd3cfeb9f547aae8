"""A server for one benchmark."""

import os
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def served() -> Iterator[str]:
    """The address of a gunicorn with the benchmarks' settings, stopped afterwards."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    words = [
        sys.executable,
        "-m",
        "gunicorn",
        "config.wsgi",
        "--bind",
        f"127.0.0.1:{port}",
        "--threads",
        "4",
    ]
    words += ["--keep-alive", "30", "--log-level", "error"]
    process = subprocess.Popen(
        words, env={**os.environ, "DJANGO_SETTINGS_MODULE": "bench.settings"}
    )
    try:
        for _ in range(200):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session", timeout=1)
                break
            except OSError:
                time.sleep(0.05)
        yield f"http://127.0.0.1:{port}"
    finally:
        process.terminate()
        process.wait()

"""Fails when a lock file or a setting of a package manager names a host: the project installs from
whatever registry the machine is set up for."""

import re
import subprocess
import sys
from pathlib import Path

LOCKS = re.compile(
    r"(^|/)(requirements/.*|package-lock\.json|package\.json|\.npmrc|pyproject\.toml)$"
)
HOST = re.compile(r"https?://[\w.-]+|--(extra-)?index-url")
RESOLVED = re.compile(
    r"\"resolved\"|\"version\": \"https?:"
)  # beside these, npm's lock only names where to give money

names = subprocess.run(
    ["git", "ls-files"], capture_output=True, text=True, check=True
).stdout.splitlines()
found = [
    f"{name}:{number}: {line.strip()[:80]}"
    for name in names
    if LOCKS.search(name)
    for number, line in enumerate(Path(name).read_text(encoding="utf-8").splitlines(), 1)
    if (RESOLVED if name.endswith("package-lock.json") else HOST).search(line)
]
if found:
    sys.exit("A lock file names a host:\n" + "\n".join(found))

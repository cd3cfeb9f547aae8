"""What the first page loads as script and style, as it is served: compressed with Brotli, which
every browser takes by HTTPS. Goal: under 60 kB."""

import json
from pathlib import Path

DIST = Path(__file__).resolve().parents[1] / "web" / "dist"


def loaded(manifest: dict[str, dict[str, list[str]]], name: str, seen: set[str]) -> set[str]:
    """The files that an entry loads at once, with what it imports."""
    entry = manifest[name]
    files = {str(entry["file"]), *entry.get("css", [])}
    for other in entry.get("imports", []):
        if other not in seen:
            files |= loaded(manifest, other, seen | {name})
    return files


def _served(file: Path) -> int:
    """Bytes on the wire; what is too small to be compressed goes as it is."""
    packed = file.with_name(f"{file.name}.br")
    return (packed if packed.exists() else file).stat().st_size


def main() -> None:
    """Prints the files of the first page, and of Decide beyond it."""
    manifest = json.loads((DIST / "manifest.json").read_text())
    first = loaded(manifest, "src/main.ts", set())
    decide = loaded(manifest, "src/features/decide/Decide.svelte", set()) - first
    for title, files in (("first page", first), ("Decide, beyond it", decide)):
        size = sum(_served(DIST / file) for file in files)
        print(
            f"{title}: {size / 1000:.1f} kB in {len(files)} files"
            + (" (goal 60 kB)" if files is first else "")
        )


if __name__ == "__main__":
    main()

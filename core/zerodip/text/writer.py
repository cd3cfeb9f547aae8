"""Puts the figures of one system into sentences of one unit system."""

from functools import cache
from string import Formatter

from zerodip.text.figure import Figure
from zerodip.units import text

__all__ = ["Writer"]


@cache
def _parsed(template: str) -> tuple[str, tuple[tuple[str, str], ...]]:
    """A template parsed once: its words with a gap at each figure, and the figures (name,
    dimension)."""
    words, keys = [], []
    for before, name, dimension, _ in Formatter().parse(template):
        words.append(before.replace("%", "%%"))
        if name:
            words.append("%s")
            keys.append((name, dimension or ""))
    return "".join(words), tuple(keys)


class _Texts(dict[tuple[str, str], str]):
    """Figures in words, each written when it is first asked for."""

    def __init__(self, figures: object, system: str) -> None:
        super().__init__()
        self.figures, self.system = figures, system

    def __missing__(self, key: tuple[str, str]) -> str:
        value = getattr(self.figures, key[0])
        self[key] = said = text(value, key[1], self.system) if key[1] else str(value)
        return said


class Writer:
    """Fills templates that f-strings made of `Figure`s: `Writer(figures, "us").fill(f"Runs
    {WaterFigures.run_s}.")`. Each figure is written once, however often it is said; without a
    dimension, as it is."""

    def __init__(self, figures: object, system: str) -> None:
        self._texts, self.figures, self.system = _Texts(figures, system), figures, system

    def text(self, figure: Figure[float] | Figure[float | None]) -> str:
        """One figure with its unit."""
        return self._texts[figure.name, figure.dimension]

    def fill(self, template: str, op: str = "") -> str:
        """A template with its figures, and the sign `OP`, filled in."""
        words, keys = _parsed(template)
        if not keys:
            return words % ()
        texts = self._texts
        texts["op", ""] = op
        return words % tuple([texts[key] for key in keys])

"""The ways of practitioners shown against each other on one system."""

from dataclasses import dataclass, replace

from zerodip.decide.options import Judged, Option, OptionFigure, judged, option_of
from zerodip.kinds.parts import System
from zerodip.kinds.registry import kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.practice.matters import Matter, WayToTry
from zerodip.text.writer import Writer

__all__ = ["PracticeMatter", "practice_matters"]


@dataclass(frozen=True, kw_only=True)
class PracticeMatter:
    """One matter on which practitioners differ: the field that chooses, the way chosen, and every
    way to set this system, with its reason."""

    id: str
    title: str
    field: str
    chosen: str
    ways: tuple[Option, ...]
    reasons: dict[str, str]


def practice_matters(
    system: System, settings: Settings, practice: Practice | None = None, units: str = "us"
) -> tuple[PracticeMatter, ...]:
    """Every matter of practice with its ways; nothing for a kind on which practice does not differ.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed; the usual if None.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The matters, in order.

    Raises:
        InvalidInput: For settings that lack what this kind needs.
        UnknownUnit: For a unit system that is not known.
    """
    now = judged(system, settings, practice or Practice())
    found = kind_of(now.figures).matters(now.figures, Writer(now.figures, units))
    return tuple(_matter(system, now, matter, units) for matter in found)


def _matter(system: System, now: Judged, matter: Matter, units: str) -> PracticeMatter:
    return PracticeMatter(
        id=matter.id,
        title=matter.title,
        field=matter.field,
        chosen=matter.chosen,
        ways=tuple(_option(system, now, way, units) for way in matter.ways),
        reasons={way.id: way.reason for way in matter.ways},
    )


def _option(system: System, now: Judged, way: WayToTry, units: str) -> Option:
    practice = replace(now.figures.practice, **way.practice)
    made = option_of(judged(system, way.settings, practice), way.id, way.title, units, way.cost)
    if way.first is None:
        return made
    id, title, said = way.first
    return replace(made, figures=(OptionFigure(id=id, title=title, text=said), *made.figures))

"""The kinds of system that there are: one line each."""

from typing import Any

from zerodip.errors import InvalidInput
from zerodip.kinds.compressor import AIR_COMPRESSOR
from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import System
from zerodip.kinds.protocol import Kind
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.steps import AREA, GAUGE_AT_ZERO, ISOLATED, POWER_UP, SEEN_EARLIER
from zerodip.kinds.tankless import TANKLESS_PUMP
from zerodip.kinds.water import BOOSTED_SUPPLY, CISTERN_SUPPLY, PLAIN_TANK_WELL, WELL_WITH_BLADDER
from zerodip.visit.slots import CONFIRMED, Slot

__all__ = ["KINDS", "confirmations", "figures_for", "kind_of"]

AnyKind = Kind[Any, Any]
_ALL: tuple[AnyKind, ...] = (
    WELL_WITH_BLADDER,
    PLAIN_TANK_WELL,
    CISTERN_SUPPLY,
    BOOSTED_SUPPLY,
    AIR_COMPRESSOR,
    TANKLESS_PUMP,
)
KINDS: dict[str, AnyKind] = {kind.id: kind for kind in _ALL}


def kind_of(of: System | Figures) -> AnyKind:
    """The kind of a system, or of the system that figures are of.

    Args:
        of: A system, or its figures.

    Returns:
        The kind.

    Raises:
        KeyError: For a kind that is not registered.
    """
    return KINDS[of.kind]


def figures_for(system: System, settings: Settings, practice: Practice | None = None) -> Figures:
    """The figures of a system of any kind.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed; the usual if None.

    Returns:
        Its figures.

    Raises:
        InvalidInput: For settings that lack what this kind needs.
    """
    kind = kind_of(system)
    faults = kind.settings_faults(system, settings)
    if faults:
        raise InvalidInput(faults)
    made: Figures = kind.figures(system, settings, practice or Practice())
    return made


def confirmations() -> list[Slot[Any]]:
    """Everything that a person confirms on a visit to any kind of system, each once.

    Returns:
        The slots.
    """
    steps = [
        AREA,
        ISOLATED,
        POWER_UP,
        GAUGE_AT_ZERO,
        SEEN_EARLIER,
        *(step for kind in KINDS.values() for step in kind.visit.make_safe),
    ]
    slots = [step.slot for step in steps] + [
        c.slot for kind in KINDS.values() for c in kind.visit.checks
    ]
    of_jobs = [s for kind in KINDS.values() for job in kind.visit.jobs for s in job.slots()]
    own = {slot.name: slot for slot in (*slots, *of_jobs) if slot.name.startswith(CONFIRMED)}
    return list(own.values())

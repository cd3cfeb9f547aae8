"""The answers: each kind of system has its own table of figures."""

from ..facts import Facts, ReceiverFacts, TanklessFacts
from ..units import Shown
from .air import AIR
from .parts import Answer, filled
from .tankless import TANKLESS
from .water import WATER

__all__ = ["Answer", "answers"]


def answers(facts: Facts, f: Shown) -> tuple[Answer, ...]:
    """The figures that a technician asks for first, in the units of `f`."""
    if isinstance(facts, ReceiverFacts):
        return filled(AIR, facts, f)
    return filled(TANKLESS if isinstance(facts, TanklessFacts) else WATER, facts, f)

"""Where a rule or a formula comes from, said beside its figures."""

from dataclasses import dataclass
from functools import cached_property

__all__ = ["GAS_LAW", "PRACTICE", "Source", "practice"]


@dataclass(frozen=True, kw_only=True)
class Source:
    """A published document with edition and clause, physics, or practice of the trade without a
    published source. `from_memory` marks a figure written down from memory: check it against the
    document before relying on it."""

    document: str
    edition: str = ""
    clause: str = ""
    kind: str = "standard"
    from_memory: bool = False

    @cached_property
    def line(self) -> str:
        """One line for a person."""
        parts = [part for part in (self.document, self.edition, self.clause) if part]
        return " · ".join(parts) + (" (from memory)" if self.from_memory else "")


def practice(note: str = "") -> Source:
    """Common practice, with a remark if there is one."""
    return Source(document="Common practice, no source", clause=note, kind="practice")


PRACTICE = practice()
GAS_LAW = Source(document="Gas law, p·v^n = const, absolute pressures", kind="physics")
MASS_BALANCE = Source(document="Mass balance of tank and pump", kind="physics")
PUMP_LINE = Source(document="Bernoulli and Hazen–Williams", kind="physics")
SUMP_LAW = Source(document="ANSI/HI 9.8", clause="sump sizing, V = Q·T/4", from_memory=True)
IPC_604_8 = Source(
    document="IPC 604.8; UPC 608.2", clause="pressure-reducing valve above 80 psi", from_memory=True
)
NEMA_MG_10 = Source(
    document="NEMA MG 10",
    clause="allowable starts, surface motors; submersibles by practice",
    from_memory=True,
)
IPC_606_5_5 = Source(
    document="IPC 606.5.5",
    clause="low-pressure cut-off on boosters at 10 psi inlet",
    from_memory=True,
)
IPC_608 = Source(
    document="IPC 608; UPC 601", clause="identification of non-potable water", from_memory=True
)
DOE_AIR = Source(
    document="US DOE, Compressed Air Sourcebook",
    clause="leakage under 10 % is good",
    from_memory=True,
)
AFFINITY = Source(
    document="Torque balance of the motor (or affinity laws) and orifice flow", kind="physics"
)
BOOSTER_FORM = Source(
    document="DIN 1988", clause="0.33·Q·(p_out + 1)/((p_out − p_in)·s)", from_memory=True
)
MOTOR_STARTS = practice("submersible motors, starts a day by power, from memory")

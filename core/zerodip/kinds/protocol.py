"""What a kind of system provides. Nobody asks which kind a system is: they ask its kind for the
part that they need.

A kind is one folder under `zerodip.kinds`, assembled there into one `Kind` or several that differ
little, and one line of the registry. Everything that a part takes or gives is typed; the parts with
defaults may be left out.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Generic, Literal, TypeVar

from zerodip.diagnosis.parts import Troubles
from zerodip.errors import Fault
from zerodip.jobs.parts import Job
from zerodip.kinds.charts import GripName, Ribbon
from zerodip.kinds.figures import Figures
from zerodip.kinds.inputs import Input
from zerodip.kinds.limits import Limit, LimitSpec
from zerodip.kinds.parts import System
from zerodip.kinds.remedies import Remedy
from zerodip.kinds.results import ResultSpec
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.trouble_causes import NO_TROUBLES
from zerodip.kinds.visit_parts import (
    AirCheck,
    AirView,
    CheckSpec,
    DrainView,
    Measured,
    PartSpec,
    Question,
    Remaining,
    StepSpec,
)
from zerodip.kinds.window import Window
from zerodip.physics.simulation import Store
from zerodip.practice.matters import Matter, WayView
from zerodip.rules.engine import Rule
from zerodip.text.figure import Figure, Reading
from zerodip.text.writer import Writer
from zerodip.visit.log import Log

__all__ = [
    "Chart",
    "Demand",
    "Diagnosis",
    "Edge",
    "History",
    "Kind",
    "Label",
    "Proposing",
    "Simulating",
    "Sizing",
    "VisitParts",
    "hourly_starts",
]

S = TypeVar("S", bound=System)
F = TypeVar("F", bound=Figures)
Chart = Ribbon | Window
ProofTest = Literal["bucket", "drain", "leak"]


def _no_faults(system: System, settings: Settings) -> list[Fault]:
    return []


def _unchanged(system: S, values: Mapping[str, float | None]) -> S:
    return system


@dataclass(frozen=True, kw_only=True)
class Proposing(Generic[F]):
    """How settings are proposed. `candidates` are those worth trying, in whole steps of the unit
    system named; `finer` more of them, tried where something still speaks against the best;
    `floor_pa` the cut-in that must be kept for the wanted pressure; `usual_psi` the usual switch
    settings, `usual_charge_pa` the pre-charge that goes with such a cut-in; `shown` the results of
    a table of options; `never_stops` the chance that the pump never reaches cut-out, by what its
    dead-head may be off by; `alike` the system with the same air in all its tanks, where it is not;
    `preference` ranks settings where a run says nothing, more is better; `keeps` tells the wanted
    pressure, `charge` why the pre-charge is not the usual one, `why` what else speaks for the best,
    `aired` what renewing the air gives back (templates)."""

    candidates: Callable[[F, str], Iterable[Settings]]
    finer: Callable[[F, str], Iterable[Settings]] = lambda figures, units: ()
    floor_pa: Callable[[F], float] = lambda figures: 0.0
    usual_psi: tuple[tuple[int, int], ...] = ()
    usual_charge_pa: Callable[[F, float], float | None] = lambda figures, cut_in_pa: None
    shown: tuple[str, ...] = ()
    preference: Callable[[F], float] = lambda figures: 0.0
    never_stops: Callable[[F], float] = lambda figures: 0.0
    alike: Callable[[F], System | None] = lambda figures: None
    keeps: Callable[[F, bool, str], str] = lambda figures, kept, floor: ""
    charge: Callable[[F], str] = lambda figures: ""
    why: Callable[[F], str] = lambda figures: ""
    aired: Callable[[F], str] = lambda figures: ""


@dataclass(frozen=True, kw_only=True)
class Demand:
    """One thing that a size has to meet: `measure` at least (or at most) `limit`, both SI; None
    where `unread` is not known. `title` names it, `says` the limit with its value filled in."""

    id: Literal["run", "starts", "day", "start"]
    title: str
    says: str
    dimension: str
    measure: float | None
    limit: float | None
    at_least: bool = False
    unread: tuple[Reading, ...] = ()

    @property
    def merit(self) -> float | None:
        """At least 1 where it is met; None where it cannot be told."""
        if self.measure is None or self.limit is None:
            return None
        if self.at_least:
            return self.measure / self.limit
        return self.limit / self.measure if self.measure > 0 else float("inf")


def hourly_starts(starts: float | None, borne: float | None, power: Reading | None) -> Demand:
    """What a motor asks of a size, whatever it drives.

    Args:
        starts: Starts in the worst hour, 1/s.
        borne: Those that the motor bears, 1/s; None while its power is not known.
        power: Where its power is read.

    Returns:
        The demand.
    """
    return Demand(
        id="starts",
        title="starts in the worst hour",
        says="at most {} in the worst hour",
        dimension="rate",
        measure=starts,
        limit=borne,
        unread=(power,) if power and borne is None else (),
    )


@dataclass(frozen=True, kw_only=True)
class Sizing(Generic[S, F]):
    """How tanks are sized. `resized` puts a volume (m³) in place of what is there, or beside it
    (None where no more fits); `settings` are those that a size is judged at, with the air that
    would be set on it; `have_m3` what is there, `run_s` and `starts_per_s` what it gives; `target`
    the (kind, value) wanted by default, `demands` what is asked of a size besides; `nominal_m3` the
    volumes usually sold, by unit system; `second` another form's volume with the difference
    explained (a template). `starts_words` are the dimension and name of what is counted, `aired` is
    said of what is there once it has its air (a template), `no_more` where no more can be entered
    beside it, and `none_needed` where nothing is needed at all."""

    resized: Callable[[S, float, bool], S | None]
    have_m3: Callable[[F], float]
    starts_per_s: Callable[[F], float | None]
    target: Callable[[F], tuple[Literal["run", "starts"], float]]
    demands: Callable[[F], tuple[Demand, ...]] = lambda figures: ()
    run_s: Callable[[F], float | None] = lambda figures: None
    settings: Callable[[F, S], Settings] = lambda figures, system: figures.settings
    least_m3: float = 0.0005
    most_m3: float = 20.0
    nominal_m3: Callable[[str], tuple[float, ...]]
    starts_words: tuple[str, str] = ("rate", "starts")
    aired: Callable[[F], str] = lambda figures: ""
    no_more: str = ""
    none_needed: Callable[[F], str] = lambda figures: ""
    second: Callable[[F, str, float, str], tuple[float, str, str] | None] = (
        lambda figures, kind, value, units: None
    )


@dataclass(frozen=True, kw_only=True)
class Simulating(Generic[F]):
    """How the next minutes are simulated: what fills and empties, the most worth drawing (m³/s),
    and the words of a stretch without a dip and of one with, from its seconds."""

    store: Callable[[F], Store]
    most_draw_m3_s: Callable[[F], float]
    worst_draw_m3_s: Callable[[F], float | None]
    steady: str
    dip: Callable[[float], str]


@dataclass(frozen=True, kw_only=True)
class VisitParts(Generic[F]):
    """What a visit asks of this kind: how one cycle is watched and what is read while it is, the
    steps of making safe, what comes out when it is drained from a gauge pressure, what is read dead
    and drained, what is odd about the readings, the pre-charge step, what was found besides that is
    not put right, what is seen to before leaving, the usual jobs, its parts in the order of the
    flow, each with what to look at, what a check of the air costs, and why its low-pressure cut-off
    trips."""

    watch: tuple[str, ...]
    make_safe: tuple[StepSpec, ...]
    read: tuple[str, ...]
    checks: tuple[CheckSpec, ...]
    jobs: tuple[Job, ...] = ()
    parts: tuple[PartSpec, ...] = ()
    drain: Callable[[F, float, Log, str], DrainView | None] = lambda figures, gauge, log, units: (
        None
    )
    questions: Callable[[F, Log, str], list[Question]] = lambda figures, log, units: []
    air: Callable[[F, Log, str], AirView | None] = lambda figures, log, units: None
    air_check: Callable[[F, Log, str], AirCheck | None] = lambda figures, log, units: None
    trip_says: Callable[[F, str], str] = lambda figures, units: ""
    noticed: Callable[[F, Log, str], Iterable[Remaining]] = lambda figures, log, units: ()


@dataclass(frozen=True, kw_only=True)
class Diagnosis(Generic[F]):
    """What was measured beside what was predicted (bucket, drain and leak; the run is everybody's),
    what is wanted of a run (s; None where nothing is). `tests` are those that can be made here,
    beside timing runs."""

    tests: tuple[ProofTest, ...] = ()
    run_s: Callable[[F], float | None] = lambda figures: None
    wanted_run_s: Callable[[F], float | None] = lambda figures: None
    measured: Callable[[F, Log, str], Iterable[Measured]] = lambda figures, log, units: ()


@dataclass(frozen=True, kw_only=True)
class History(Generic[F]):
    """What is followed over the years: the end of the pre-charge's band (Pa gauge; None without
    one), the years to the next check from the loss (Pa a year) and by which way, and the loss that
    is usual (Pa a year)."""

    band_pa: Callable[[F], float | None] = lambda figures: None
    years: Callable[[F, float | None], float] = lambda figures, loss: 1.0
    by: Callable[[F], str] = lambda figures: "Every year"
    usual_loss_pa: float | None = None


@dataclass(frozen=True, kw_only=True)
class Label(Generic[F]):
    """What stands on the label beside the switch: whether a pre-charge does, and a warning for tank
    and taps."""

    pre_charge: bool = False
    warning: Callable[[F], str] = lambda figures: ""


@dataclass(frozen=True, kw_only=True)
class Edge:
    """The figures of one line of the ribbon, so that its edge can be drawn as sure as it is: gauge
    pressure, what is held, and pump time (None where that is 0 by itself)."""

    point: GripName
    gauge: Figure[Any]
    held: Figure[Any]
    run: Figure[Any] | None = None


@dataclass(frozen=True, kw_only=True)
class Kind(Generic[S, F]):
    """One kind of system. `template` are the usual system and settings to begin with; `report` the
    results that a customer can follow; `settings_faults` the faults of settings that are right by
    themselves but not for this system; `remedies` is the catalogue of what may be changed, told in
    a unit system; `with_found` puts figures found on a visit into it, by
    field; `stiff_switch` that a turn of its switch goes as far as a compressor's; `unread` fields
    whose usual values are no part of the template; `inputs` what is only known within something,
    `edges` the lines of its ribbon that this blurs, `bounds` the most that a figure can be at all;
    `troubles` what may be wrong with it."""

    id: str
    title: str
    model: type[S]
    figures: Callable[[S, Settings, Practice], F]
    template: Mapping[str, Mapping[str, Any]]
    cautions: tuple[str, ...]
    rules: tuple[Rule[F], ...]
    limits: tuple[LimitSpec, ...]
    results: tuple[ResultSpec[F], ...]
    report: tuple[str, ...]
    chart: Callable[[F, Sequence[Limit], Writer], Chart]
    visit: VisitParts[F]
    proposing: Proposing[F]
    remedies: Callable[[F, str], Iterable[Remedy[S]]] = lambda figures, units: ()
    stiff_switch: bool = False
    unread: tuple[str, ...] = ()
    inputs: tuple[Input[F], ...] = ()
    edges: tuple[Edge, ...] = ()
    bounds: Callable[[F], Mapping[str, float]] = lambda figures: {}
    sizing: Sizing[S, F] | None = None
    simulating: Simulating[F] | None = None
    diagnosis: Diagnosis[F] = field(default_factory=Diagnosis)
    troubles: Troubles[Any] = NO_TROUBLES
    history: History[F] = field(default_factory=History)
    label: Label[F] = field(default_factory=Label)
    ways: Callable[[F, Writer], tuple[WayView, ...]] = lambda figures, write: ()
    matters: Callable[[F, Writer], tuple[Matter, ...]] = lambda figures, write: ()
    settings_faults: Callable[[S, Settings], list[Fault]] = _no_faults
    with_found: Callable[[S, Mapping[str, float | None]], S] = _unchanged

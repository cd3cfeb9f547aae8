"""The run of a calibration, one instruction at a time, as good practice has it.

Isolate and vent, hook up, test for leaks, exercise; as found; adjust until both points pass; three
runs as left; restore, seal, tag. Common practice, no source; site procedures come first."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from zerodip.bench.budget import USUAL_RATE
from zerodip.bench.device import APART, BenchDevice, SetPoint
from zerodip.bench.file import LOWER, POINTS, BenchRun
from zerodip.bench.words import shown, titles, usual_pace
from zerodip.units import text as figure

__all__ = [
    "AFTER",
    "BEFORE",
    "LEFT",
    "Instruction",
    "crossed",
    "next_run",
    "preparations",
    "restoring",
    "usual_deadband",
]

Enters = Literal["confirm", "set", "reset", "turn"]


@dataclass(frozen=True, kw_only=True)
class Instruction:
    """What to do next: its id, title and text, what can hurt (empty for nothing), and what is
    entered: a confirmation, or where a point acted or reset (which of them in `point`), with where
    that is expected (Pa gauge). An approach is timed from a pressure on (Pa gauge, in words, too),
    takes so long at least (s) and goes no faster (Pa/s)."""

    id: str
    title: str
    text: str
    caution: str = ""
    enters: Enters = "confirm"
    point: str = ""
    expected_pa: float | None = None
    from_pa: float | None = None
    from_says: str = ""
    least_s: float | None = None
    most_pa_s: float | None = None


_OF_MOST = 0.6  # of the most that a fixed deadband may be, that it usually is
_USUAL_BAND = 0.04  # of the range, that a deadband is usually wide: common practice, no source
BEFORE = ("permit", "isolated", "hooked_up", "tight", "exercised")
AFTER = ("restored", "sealed")
LEFT = "left_as_it_is"  # whoever answers for it decided that no screw is turned any more
_DRAWN_PA = -90e3  # a deeper vacuum is not to be had everywhere: common practice, no source
_HAZARD = "Hazardous area: never open an energised enclosure. Prove it dead, or gas-free by permit."
_OXYGEN = "Oxygen: clean tools and fittings, no oil, no thread sealant. Grease there burns."
_HOT = {"steam": "Steam: let it cool and drain first.", "fuel gas": "Vent to a safe place."}


def preparations(device: BenchDevice, units: str) -> tuple[Instruction, ...]:
    """What is done before the first run, in order.

    Args:
        device: The switch.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The instructions.
    """
    start, end = (figure(each, "pressure", units) for each in _ends(device))
    if device.low_gauge_pa < _DRAWN_PA and device.high_gauge_pa <= 0:
        end = f"{end} (or as far as the pump draws)"
    return (
        Instruction(
            id="permit",
            title="Permission, and the trip bypassed",
            text="Ask who runs the plant. Have the trip bypassed and written down, then isolate.",
            caution=_HAZARD if device.hazardous is not False else "",
        ),
        Instruction(
            id="isolated",
            title="Isolate and vent",
            text="Shut the process valve. Open the vent slowly until the reference stands at 0.",
            caution=" ".join(
                ["Trapped pressure: keep clear of the vent.", *_of_medium(device.medium)]
            ),
        ),
        Instruction(
            id="hooked_up",
            title="Hook up",
            text="Join reference and pump to the test port, the meter or lamp to the contact.",
        ),
        Instruction(
            id="tight",
            title="Leak test",
            text=f"Bring it to {end} and shut it in. Over a minute the reference stands still.",
        ),
        Instruction(
            id="exercised",
            title="Exercise three times",
            text=f"From {start} to {end} and back, slowly, three times. Listen to it act.",
        ),
    )


def before_turning(device: BenchDevice) -> str:
    """What can hurt at the screws.

    Args:
        device: The switch.

    Returns:
        The caution.
    """
    if device.hazardous is False:
        return "The contact may carry mains. Prove it dead before you reach in."
    return "Open the enclosure only with its power proved dead, or the area gas-free by permit."


def restoring() -> tuple[Instruction, ...]:
    """What is done after the last run, in order."""
    return (
        Instruction(
            id="restored",
            title="Restore",
            text="Vent slowly, unhook, open the process valve. Have the bypass taken out.",
            caution="The trip guards nothing until its bypass is out. Look that it is.",
        ),
        Instruction(
            id="sealed",
            title="Seal and tag",
            text="Lock the screws, seal the cover, hang the tag with the day and the next.",
        ),
    )


def next_run(
    device: BenchDevice,
    runs: Sequence[BenchRun],
    wanted: int,
    units: str,
    earlier: Sequence[BenchRun] = (),
    expected: Sequence[float | None] = (),
    bands: Sequence[float | None] = (),
) -> Instruction | None:
    """The next reading of a series of runs, the upper point first; None where all are there. A run
    whose resetting is not read yet asks for that.

    Args:
        device: The switch.
        runs: The runs of the series so far, oldest first.
        wanted: How many of each point.
        units: Unit system of the texts.
        earlier: Runs before a screw was turned: they tell the deadband.
        expected: Where each point should act, Pa gauge, where the series does not tell yet; none
            for where it is to.
        bands: How wide each deadband should be, Pa, where no run tells yet; none for the usual.

    Returns:
        The instruction.
    """
    if runs and runs[-1].reset_gauge_pa is None:
        return _reset(device, runs[-1], [*earlier, *runs], _at(bands, runs[-1].at), units)
    counts = [sum(run.at == at for run in runs) for at in range(len(device.points))]
    least = min(counts)
    if least >= wanted:
        return None
    at = max(at for at, count in enumerate(counts) if count == least)
    last = [run.set_gauge_pa for run in runs if run.at == at]
    near = last[-1] if last else _at(expected, at)
    near = device.points[at].gauge_pa if near is None else near
    return _set(device, at, (least + 1, wanted), near, units)


def _at(told: Sequence[float | None], at: int) -> float | None:
    return told[at] if at < len(told) else None


def crossed(device: BenchDevice, lower_pa: float, upper_pa: float) -> bool:
    """Whether points stand too near each other, or the wrong way round, to be set one by one: then
    the upper is first brought above its target and the lower below. Too near is less than half as
    far apart as they are to come, at the most the least that any may stand apart.

    Args:
        device: The switch.
        lower_pa: Where the lower point acts, Pa gauge.
        upper_pa: Where the upper point acts, Pa gauge.

    Returns:
        Whether they do.
    """
    wanted = device.points[-1].gauge_pa - device.points[0].gauge_pa
    return upper_pa - lower_pa < min(APART * device.span_pa, wanted / 2)


def _set(
    device: BenchDevice, at: int, count: tuple[int, int], near: float, units: str
) -> Instruction:
    point, (run, wanted) = device.points[at], count
    grain = device.tolerance_pa(at) / 5
    begin = _begin(device, at, near)
    way = near - begin if point.rises else begin - near
    of = f", run {run} of {wanted}" if wanted > 1 else ""
    starts = shown(begin, units, grain)
    return Instruction(
        id=f"{POINTS[at]}.set",
        title=f"{titles(device)[at]}{of}: where it acts",
        text=(
            f"Go to {starts}, then {_way(device, point.rises)} slowly: "
            f"{usual_pace(device, units)} at the most. Expected near {shown(near, units, grain)}."
        ),
        enters="set",
        point=POINTS[at],
        expected_pa=near,
        from_pa=begin,
        from_says=starts,
        least_s=way / (USUAL_RATE * device.span_pa) if way > 0 else None,
        most_pa_s=USUAL_RATE * device.span_pa,
    )


def _begin(device: BenchDevice, at: int, near: float) -> float:
    """Where a slow approach begins: well before the point, within the range."""
    room = max(0.05 * device.span_pa, 2 * device.tolerance_pa(at))
    if device.points[at].rises:
        return max(near - room, device.low_gauge_pa)
    return min(near + room, device.high_gauge_pa)


def _reset(
    device: BenchDevice, run: BenchRun, runs: Sequence[BenchRun], band: float | None, units: str
) -> Instruction:
    at, point = run.at, device.points[run.at]
    known = [
        each.set_gauge_pa - each.reset_gauge_pa
        for each in runs
        if each.at == at and each.reset_gauge_pa is not None
    ]
    usual = usual_deadband(device, at) if band is None else band
    usual *= 1 if point.rises else -1
    return Instruction(
        id=f"{POINTS[at]}.reset",
        title=f"{titles(device)[at]}: where it resets",
        text=(
            f"Now {_way(device, not point.rises)} slowly until it changes back."
            f"{_wide(point, device, units)}"
        ),
        enters="reset",
        point=POINTS[at],
        most_pa_s=USUAL_RATE * device.span_pa,
        expected_pa=run.set_gauge_pa - (known[-1] if known else usual),
    )


def usual_deadband(device: BenchDevice, at: int) -> float:
    """How wide a deadband usually is before it was read.

    Args:
        device: The switch.
        at: Which point, `LOWER` or `UPPER`.

    Returns:
        The width, Pa.
    """
    point = device.points[at]
    share = 1.0 if point.deadband == "adjustable" else _OF_MOST
    return share * point.deadband_pa if point.deadband_pa else _USUAL_BAND * device.span_pa


def _wide(point: SetPoint, device: BenchDevice, units: str) -> str:
    if point.deadband_pa is None:
        return ""
    size = shown(point.deadband_pa, units, device.tolerance_pa(LOWER) / 5)
    return f" Deadband {size}{'' if point.deadband == 'adjustable' else ' at the most'}."


def _way(device: BenchDevice, rises: bool) -> str:
    """Up or down; of a vacuum what that is on its gauge, too."""
    if not device.vacuum:
        return "up" if rises else "down"
    return "up (less vacuum)" if rises else "down (more vacuum)"


def _ends(device: BenchDevice) -> tuple[float, float]:
    """From no pressure to full scale: of a vacuum's range to its deepest end."""
    start = min(max(device.low_gauge_pa, 0.0), device.high_gauge_pa)
    deepest = device.low_gauge_pa if device.high_gauge_pa <= 0 else device.high_gauge_pa
    return start, deepest


def _of_medium(medium: str) -> Iterator[str]:
    if medium == "oxygen":
        yield _OXYGEN
    if medium in _HOT:
        yield _HOT[medium]

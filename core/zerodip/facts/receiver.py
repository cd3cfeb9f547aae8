"""Figures of a compressor and its receivers."""

from functools import cached_property

from ..cycles.fill import fill_seconds
from ..cycles.rate import WorstDraw, starts_per_s, worst_draw
from ..motors import starts_per_hour_limit
from ..plant.receiver import AirStore, leak_factor, leak_m3_s, settled_gauge_pa
from ..system import CompressorSystem, Practice, Settings
from ..units import PSI
from .base import Facts, lowest_known

__all__ = ["ReceiverFacts"]

ROOM_K = 293.15


class ReceiverFacts(Facts):
    """Everything the rules of compressors look at. Volumes and flows of air are free air, at the site's atmosphere."""

    least_usual_differential_pa, most_usual_differential_pa = 20 * PSI, 35 * PSI
    good_leak_share = 0.10
    most_duty = 0.75
    relief_margin = 0.10

    def __init__(self, system: CompressorSystem, settings: Settings, practice: Practice) -> None:
        super().__init__(system, settings, practice)
        self.system = system
        self.relief_present, self.relief_pa = system.relief.present, system.relief.setting_gauge_pa
        self.compressor_max_pa = system.pump.max_gauge_pa
        self.use_m3_s, self.wanted_air_pa = system.use.use_m3_s, system.use.wanted_gauge_pa
        self.click_warming_k = system.click_warming_k

    @cached_property
    def volume_m3(self) -> float:
        return sum(receiver.volume_m3 for receiver in self.system.receivers)

    @cached_property
    def receiver_max_pa(self) -> float | None:
        """The lowest maximum among the receivers' plates; None while any is missing."""
        return lowest_known([receiver.max_gauge_pa for receiver in self.system.receivers])

    @cached_property
    def relief_limit_pa(self) -> float | None:
        """As near as cut-out may come to the safety valve, so that it does not weep."""
        return None if self.relief_pa is None else self.relief_pa * (1 - self.relief_margin)

    @cached_property
    def highest_click_pa(self) -> float:
        """What the air may truly stand at when the switch clicks: cut-out and the gauge's error."""
        return self.cut_out_pa + self.gauge_error_pa

    @cached_property
    def known_limit_pa(self) -> float | None:
        """The lowest of the limits that are known, for cut-out as the gauge shows it."""
        limits = [self.receiver_max_pa, self.compressor_max_pa, self.relief_limit_pa]
        known = [limit for limit in limits if limit is not None]
        return min(known) - self.gauge_error_pa if known else None

    @cached_property
    def store(self) -> AirStore:
        """Receivers, compressor and switch together."""
        points = self.system.pump.points
        return AirStore(
            self.volume_m3,
            tuple(point.gauge_pa for point in points),
            tuple(point.flow_m3_s for point in points),
            self.atmosphere_pa,
            self.cut_in_pa,
            self.cut_out_pa,
        )

    @cached_property
    def plant(self) -> AirStore:
        return self.store

    @cached_property
    def full_m3(self) -> float:
        """Free air held at cut-out."""
        return self.store.off_m3

    @cached_property
    def kept_m3(self) -> float:
        """Free air held at cut-in."""
        return self.store.on_m3

    @cached_property
    def between_m3(self) -> float:
        """Free air between cut-out and cut-in."""
        return self.full_m3 - self.kept_m3

    @cached_property
    def run_s(self) -> float:
        """From cut-in to cut-out with nothing used."""
        return fill_seconds(self.store.fill, self.kept_m3, self.full_m3)

    @cached_property
    def pump_up_s(self) -> float:
        """From an empty receiver to cut-out with nothing used."""
        return fill_seconds(self.store.fill, 0.0, self.full_m3)

    @cached_property
    def cut_out_flow_m3_s(self) -> float:
        return self.store.flow_m3_s(self.cut_out_pa)

    @cached_property
    def mean_flow_m3_s(self) -> float:
        return self.between_m3 / self.run_s

    @cached_property
    def duty(self) -> float | None:
        """Share of the time that the compressor runs at this air use; 1 when it never catches up."""
        if self.use_m3_s is None:
            return None
        rate = self.use_starts_per_s or 0.0
        on = fill_seconds(self.store.fill, self.kept_m3, self.full_m3, self.use_m3_s)
        return rate * on if rate > 0 else 1.0

    @cached_property
    def use_starts_per_s(self) -> float | None:
        """Starts at this air use; 0 when it never catches up."""
        if self.use_m3_s is None:
            return None
        return starts_per_s(self.store.fill, self.kept_m3, self.full_m3, self.use_m3_s)

    @cached_property
    def off_s(self) -> float | None:
        """Rest between two runs at this air use."""
        return None if self.use_m3_s is None else self.between_m3 / self.use_m3_s

    @cached_property
    def worst(self) -> WorstDraw | None:
        return worst_draw(self.store.fill, self.kept_m3, self.full_m3)

    @cached_property
    def worst_draw_m3_s(self) -> float | None:
        return None if self.worst is None else self.worst.draw_m3_s

    @cached_property
    def worst_starts_per_s(self) -> float | None:
        return None if self.worst is None else self.worst.starts_per_s

    @cached_property
    def hourly_limit_per_s(self) -> float | None:
        """Starts in an hour that the motor bears. 1/s."""
        return None if self.power_w is None else starts_per_hour_limit(self.power_w, "surface")

    @cached_property
    def settled_pa(self) -> float:
        """What the gauge shows once the air has cooled after the click."""
        return settled_gauge_pa(self.cut_out_pa, self.click_warming_k, ROOM_K, self.atmosphere_pa)

    @cached_property
    def settles_pa(self) -> float:
        """How far it settles."""
        return self.cut_out_pa - self.settled_pa

    @cached_property
    def leak_m3_s(self) -> float | None:
        """Free air leaking away, mean over the watch."""
        test = self.system.leak_test
        if test is None:
            return None
        first, later = test.from_gauge_pa, test.to_gauge_pa
        return leak_m3_s(self.volume_m3, first, later, test.seconds, self.atmosphere_pa)

    @cached_property
    def leak_factor(self) -> float | None:
        """By how much the leak at the first pressure exceeds the mean."""
        test = self.system.leak_test
        return None if test is None else leak_factor(test.from_gauge_pa, test.to_gauge_pa, self.atmosphere_pa)

    @cached_property
    def leak_share(self) -> float | None:
        """The leak as a share of what the compressor delivers."""
        return None if self.leak_m3_s is None else self.leak_m3_s / self.mean_flow_m3_s

    @cached_property
    def leak_rest_s(self) -> float | None:
        """With nothing used: rest between two starts that the leak alone brings."""
        if self.leak_m3_s is None:
            return None
        return self.between_m3 / self.leak_m3_s if self.leak_m3_s > 0 else float("inf")

    @cached_property
    def off_usual_band_pa(self) -> float:
        """How far the differential lies outside what is usual on compressors."""
        low, high = self.least_usual_differential_pa, self.most_usual_differential_pa
        return max(low - self.differential_pa, self.differential_pa - high, 0.0)

    half_psi = 0.5 * PSI

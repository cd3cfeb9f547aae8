"""Figures of a compressor and its receivers."""

import math
from dataclasses import replace
from functools import cached_property

from zerodip.kinds.compressor.model import CompressorSystem
from zerodip.kinds.figures import Figures, less_gauge_error, lowest_known
from zerodip.physics.cycle_rate import WorstDraw, starts_per_s, worst_draw
from zerodip.physics.fill import fill_seconds
from zerodip.physics.motors import starts_per_hour_limit
from zerodip.physics.receiver import (
    HotFill,
    ReceiverStore,
    hot_fill,
    leak_factor,
    leak_fall_s,
    leak_m3_s,
    settled_gauge_pa,
)
from zerodip.text.figure import Reading, constant, figure
from zerodip.units import PSI

__all__ = ["CompressorFigures"]

ROOM_K = 293.15


class CompressorFigures(Figures):
    """Everything the rules of compressors look at. Volumes and flows of air are free air, at the
    site's atmosphere."""

    least_usual_differential_pa = constant(20 * PSI, "pressure")
    most_usual_differential_pa = constant(35 * PSI, "pressure")
    half_psi = constant(0.5 * PSI, "pressure")
    good_leak_share = constant(0.10, "share")
    most_duty = constant(0.75, "share")
    relief_margin = constant(0.10, "share")

    system: CompressorSystem

    @figure("power", Reading("system.pump.power_w", "the motor's power"))
    def power_w(self) -> float | None:
        """The motor's power."""
        return self.system.pump.power_w

    @figure("", Reading("system.relief.present", "whether a safety valve is there"))
    def relief_present(self) -> bool | None:
        """Whether a safety valve was seen."""
        return self.system.relief.present

    @figure(
        "pressure",
        Reading("system.relief.setting_gauge_pa", "the safety valve's setting, on its tag"),
    )
    def relief_pa(self) -> float | None:
        """What the safety valve is set to."""
        return self.system.relief.setting_gauge_pa

    @figure("pressure", Reading("system.pump.max_gauge_pa", "the compressor's maximum pressure"))
    def compressor_max_pa(self) -> float | None:
        """The compressor's own maximum."""
        return self.system.pump.max_gauge_pa

    @figure("air_flow", Reading("system.use.use_m3_s", "the air that the tools use"))
    def use_m3_s(self) -> float | None:
        """Free air that the tools use."""
        return self.system.use.use_m3_s

    @figure("pressure", Reading("system.use.wanted_gauge_pa", "the pressure that the tools need"))
    def wanted_air_pa(self) -> float | None:
        """The pressure that the tools need."""
        return self.system.use.wanted_gauge_pa

    @figure("temperature_step")
    def click_warming_k(self) -> float:
        """How much warmer than the room the air is at the click: as found, or by the energy that
        comes in with it."""
        found = self.system.click_warming_k
        return self.hot.warmer_k if found is None else found

    @figure("temperature")
    def delivery_k(self) -> float:
        """How hot the air enters the receiver."""
        return self.system.delivery_k

    @cached_property
    def cold_store(self) -> ReceiverStore:
        """Receivers, compressor and switch, were the air always at the room's temperature."""
        points = self.system.pump.points
        return ReceiverStore(
            self.volume_m3,
            tuple(point.gauge_pa for point in points),
            tuple(point.flow_m3_s for point in points),
            self.atmosphere_pa,
            self.cut_in_pa,
            self.cut_out_pa,
        )

    @cached_property
    def room_k(self) -> float:
        """The room's temperature: today's, else the season's mean, else 20 °C. K."""
        return self.site.now_k or self.site.mean_k or ROOM_K

    @cached_property
    def hot(self) -> HotFill:
        """The run from cut-in to cut-out with nothing used."""
        return self._hot_fill(self.cut_in_pa)

    def _hot_fill(self, from_gauge_pa: float) -> HotFill:
        return hot_fill(
            self.volume_m3,
            self.cold_store.flow_m3_s,
            (from_gauge_pa, self.cut_out_pa),
            (max(self.delivery_k, self.room_k), self.room_k),
            self.atmosphere_pa,
        )

    @figure("duration")
    def cold_run_s(self) -> float:
        """The run, were the air at the room's temperature: the published form."""
        store = self.cold_store
        return fill_seconds(store.fill, store.on_m3, store.off_m3)

    @figure("volume")
    def volume_m3(self) -> float:
        """Volume of all receivers."""
        return math.fsum(receiver.volume_m3 for receiver in self.system.receivers)

    @figure(
        "pressure",
        Reading("system.receivers.0.max_gauge_pa", "the receiver plate's maximum pressure"),
    )
    def receiver_max_pa(self) -> float | None:
        """The lowest maximum among the receivers' plates; None while any is missing."""
        return lowest_known([receiver.max_gauge_pa for receiver in self.system.receivers])

    @figure("pressure")
    def relief_limit_pa(self) -> float | None:
        """As near as cut-out may come to the safety valve, so that it does not weep."""
        return None if self.relief_pa is None else self.relief_pa * (1 - self.relief_margin)

    @figure("pressure")
    def highest_click_pa(self) -> float:
        """What the air may truly stand at when the switch clicks: cut-out and the gauge's error."""
        return self.cut_out_pa + self.gauge_error_pa

    valve_allowed_pa = less_gauge_error(relief_pa)
    relief_allowed_pa = less_gauge_error(relief_limit_pa)
    receiver_allowed_pa = less_gauge_error(receiver_max_pa)
    compressor_allowed_pa = less_gauge_error(compressor_max_pa)

    @cached_property
    def store(self) -> ReceiverStore:
        """Receivers, compressor and switch together, with what the air of a cycle amounts to once
        it has cooled; at least a tenth of the cold form, however hot the air."""
        least = self.cut_in_pa + 0.1 * self.differential_pa
        return replace(self.cold_store, settled_gauge_pa=max(self.settled_pa, least))

    @figure("air_volume")
    def full_m3(self) -> float:
        """Free air held at cut-out."""
        return self.store.off_m3

    @figure("air_volume")
    def kept_m3(self) -> float:
        """Free air held at cut-in."""
        return self.store.on_m3

    @figure("air_volume")
    def between_m3(self) -> float:
        """Free air between cut-out and cut-in."""
        return self.full_m3 - self.kept_m3

    @figure("duration")
    def run_s(self) -> float:
        """From cut-in to cut-out with nothing used."""
        return fill_seconds(self.store.fill, self.kept_m3, self.full_m3)

    @figure("duration")
    def pump_up_s(self) -> float:
        """From an empty receiver to cut-out with nothing used."""
        return self._hot_fill(0.0).seconds

    @figure("air_flow")
    def cut_out_flow_m3_s(self) -> float:
        """Free air still delivered at cut-out."""
        return self.store.flow_m3_s(self.cut_out_pa)

    @figure("air_flow")
    def mean_flow_m3_s(self) -> float:
        """Mean delivery from cut-in to cut-out."""
        return self.between_m3 / self.run_s

    @figure("air_flow")
    def taken_m3_s(self) -> float | None:
        """Free air that the tools use and the leak takes, as far as that was measured."""
        return None if self.use_m3_s is None else self.use_m3_s + (self.leak_m3_s or 0.0)

    @figure("share")
    def duty(self) -> float | None:
        """Share of the time that the compressor runs at this air use; 1 when it never catches
        up."""
        if self.taken_m3_s is None:
            return None
        rate = self.use_starts_per_s or 0.0
        on = fill_seconds(self.store.fill, self.kept_m3, self.full_m3, self.taken_m3_s)
        return rate * on if rate > 0 else 1.0

    @figure("rate")
    def use_starts_per_s(self) -> float | None:
        """Starts at this air use; 0 when it never catches up."""
        if self.taken_m3_s is None:
            return None
        return starts_per_s(self.store.fill, self.kept_m3, self.full_m3, self.taken_m3_s)

    @figure("duration")
    def off_s(self) -> float | None:
        """Rest between two runs at this air use; none where it never catches up."""
        if self.taken_m3_s is None:
            return None
        if self.taken_m3_s <= 0:
            return float("inf")
        return self.between_m3 / self.taken_m3_s if self.use_starts_per_s else 0.0

    @cached_property
    def worst(self) -> WorstDraw | None:
        return worst_draw(self.store.fill, self.kept_m3, self.full_m3)

    @figure("air_flow")
    def worst_draw_m3_s(self) -> float | None:
        """The steady use at which it starts most often."""
        return None if self.worst is None else self.worst.draw_m3_s

    @figure("rate")
    def worst_starts_per_s(self) -> float | None:
        """Starts at that use."""
        return None if self.worst is None else self.worst.starts_per_s

    @figure("rate")
    def hourly_limit_per_s(self) -> float | None:
        """Starts in an hour that the motor bears. 1/s."""
        return None if self.power_w is None else starts_per_hour_limit(self.power_w, "surface")

    @figure("pressure")
    def settled_pa(self) -> float:
        """What the gauge shows once the air has cooled after the click."""
        return settled_gauge_pa(
            self.cut_out_pa, self.click_warming_k, self.room_k, self.atmosphere_pa
        )

    @figure("pressure")
    def settles_pa(self) -> float:
        """How far it settles."""
        return self.cut_out_pa - self.settled_pa

    @figure("air_flow")
    def leak_m3_s(self) -> float | None:
        """Free air leaking away, mean over the watch."""
        test = self.system.leak_test
        if test is None:
            return None
        first, later = test.from_gauge_pa, test.to_gauge_pa
        return leak_m3_s(self.volume_m3, first, later, test.seconds, self.atmosphere_pa)

    @figure("number")
    def leak_factor(self) -> float | None:
        """By how much the leak at the first pressure exceeds the mean."""
        test = self.system.leak_test
        return (
            None
            if test is None
            else leak_factor(test.from_gauge_pa, test.to_gauge_pa, self.atmosphere_pa)
        )

    @figure(
        "share",
        Reading(
            "system.leak_test", "the gauge now and some minutes later, compressor off, nothing used"
        ),
    )
    def leak_share(self) -> float | None:
        """The leak as a share of what the compressor delivers."""
        return None if self.leak_m3_s is None else self.leak_m3_s / self.mean_flow_m3_s

    @figure("duration")
    def leak_rest_s(self) -> float | None:
        """With nothing used: rest between two starts that the leak alone brings."""
        if self.leak_m3_s is None:
            return None
        test = self.system.leak_test
        if test is None or self.leak_m3_s <= 0:
            return float("inf")
        first, later = (p + self.atmosphere_pa for p in (test.from_gauge_pa, test.to_gauge_pa))
        top = max(self.settled_pa + self.atmosphere_pa, self.cut_in_abs_pa)
        return leak_fall_s(top, self.cut_in_abs_pa, first, later, test.seconds)

    @figure("")
    def tools_against(self) -> str:
        """Whether the plates allow what the tools need."""
        allowed = (self.receiver_allowed_pa, self.compressor_allowed_pa, self.relief_allowed_pa)
        known = [each for each in allowed if each is not None]
        if self.wanted_air_pa is not None and known and min(known) <= self.wanted_air_pa:
            return "The plates allow less: these tools need another receiver or compressor."
        return "They work weakly before each start."

    @figure("pressure")
    def off_usual_band_pa(self) -> float:
        """How far the differential lies outside what is usual on compressors."""
        low, high = self.least_usual_differential_pa, self.most_usual_differential_pa
        return max(low - self.differential_pa, self.differential_pa - high, 0.0)

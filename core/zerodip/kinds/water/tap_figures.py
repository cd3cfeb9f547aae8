"""Figures of the highest tap."""

from zerodip.kinds.water.tank_figures import TankFigures
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.friction import friction_head_m
from zerodip.text.figure import Reading, figure

__all__ = ["TapFigures"]


class TapFigures(TankFigures):
    """What the highest tap gets, and what it asks of the gauge."""

    @figure(
        "length",
        Reading("system.demand.highest_tap_m", "the height of the highest tap above the gauge"),
    )
    def highest_tap_m(self) -> float | None:
        """The highest tap above the gauge."""
        return self.system.demand.highest_tap_m

    @figure("pressure")
    def wanted_tap_pa(self) -> float:
        """The pressure wanted there."""
        return self.system.demand.wanted_tap_gauge_pa

    @figure("flow", Reading("system.demand.peak_draw_m3_s", "the peak draw of the house"))
    def peak_draw_for_pipe_m3_s(self) -> float | None:
        """The peak draw where the highest tap's pipe needs it; any number where there is no pipe to
        count."""
        return self.peak_draw_m3_s if self.system.demand.highest_tap_pipe else 0.0

    @figure("pressure")
    def tap_friction_pa(self) -> float | None:
        """Lost in the pipe to the highest tap at the peak draw."""
        pipe, draw = self.system.demand.highest_tap_pipe, self.peak_draw_for_pipe_m3_s
        if draw is None:
            return None
        return (
            head_pa(friction_head_m(draw, pipe.length_m, pipe.diameter_m, pipe.c_factor))
            if pipe
            else 0.0
        )

    @figure("pressure")
    def tap_loss_pa(self) -> float | None:
        """What height and friction take from the gauge on the way to the highest tap."""
        if self.highest_tap_m is None or self.tap_friction_pa is None:
            return None
        return head_pa(self.highest_tap_m) + self.tap_friction_pa

    @figure("pressure")
    def tap_pa(self) -> float | None:
        """Pressure at the highest tap just before the pump starts."""
        return None if self.tap_loss_pa is None else max(self.cut_in_pa - self.tap_loss_pa, 0.0)

    @figure("pressure")
    def least_cut_in_pa(self) -> float | None:
        """The cut-in that the highest tap asks for."""
        return None if self.tap_loss_pa is None else self.wanted_tap_pa + self.tap_loss_pa

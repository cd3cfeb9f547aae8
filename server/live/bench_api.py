"""References read off the wire on the bench, their stream, and the stand-ins' benches."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router

from accounts.auth import actor_of
from common.errors import REFUSALS, Problem

from . import benches
from .api import as_stream
from .serializers import (
    BenchStandInOut,
    BenchWatchOut,
    StandInIn,
    bench_stand_in_out,
    bench_watch_out,
)

router = Router(tags=["live"])
READ, CHANGE = {"x-permission": "calibrations.read"}, {"x-permission": "calibrations.change"}


@router.put(
    "/calibrations/{calibration_id}/watch",
    response={200: BenchWatchOut, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def watch_reference(request: HttpRequest, calibration_id: UUID) -> BenchWatchOut:
    """The reference on the wire is read for ten minutes more. Safe to repeat."""
    return bench_watch_out(benches.watch_reference(actor_of(request), calibration_id))


@router.delete(
    "/calibrations/{calibration_id}/watch", response={204: None, **REFUSALS}, openapi_extra=CHANGE
)
def end_reference_watch(request: HttpRequest, calibration_id: UUID) -> HttpResponse:
    """It is not read any more. Safe to repeat."""
    benches.end_watch(actor_of(request), calibration_id)
    return HttpResponse(status=204)


@router.get(
    "/calibrations/{calibration_id}/stream", response={200: bytes, **REFUSALS}, openapi_extra=READ
)
def read_reference_stream(request: HttpRequest, calibration_id: UUID) -> StreamingHttpResponse:
    """Samples of the reference as they come, as server-sent events: `t` (s since 1970), `p` (Pa
    gauge), `r` (Pa/s) and `c` (the contact is closed); `change` where it changed
    (zerodip.bench.contact.Change, with the id of the entry that it makes); `lost` with a
    sentence."""
    watch = benches.watch_of(actor_of(request), calibration_id)
    return as_stream(str(watch.gauge_id), f"bench {watch.pk}")


@router.get(
    "/bench-stand-ins", response={200: list[BenchStandInOut], **REFUSALS}, openapi_extra=READ
)
def read_bench_stand_ins(request: HttpRequest) -> list[BenchStandInOut]:
    """The made-up benches that stand in for switches of the demo."""
    found = benches.bench_stand_ins_for_actor(actor_of(request))
    return [bench_stand_in_out(each) for each in found]


@router.put(
    "/bench-stand-ins/{device_id}",
    response={200: BenchStandInOut, **REFUSALS},
    openapi_extra=CHANGE,
)
def move_bench_hands(request: HttpRequest, device_id: UUID, body: StandInIn) -> BenchStandInOut:
    """Hands do something else at a stand-in's bench: its pump, its lead, its screws, its line."""
    return bench_stand_in_out(benches.move_bench_hands(actor_of(request), device_id, body.hands))

"""What a device holds, so that work goes on where there is no signal."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from accounts.auth import actor_of
from common.errors import REFUSALS
from common.json_responses import model_response, models_response

from .schemas import Answered, DeviceOut, HeldSystemOut, HeldWanted, WritesIn
from .serializers import device_out, held_systems
from .writes import put_all

router = Router(tags=["device"])
HOLD = {"x-permission": "rounds.read"}


@router.get("/device", response={200: DeviceOut, **REFUSALS}, openapi_extra=HOLD)
def read_device(request: HttpRequest) -> HttpResponse:
    """Whose device it is, and what there is to hold: each system with a word that changes whenever
    anything of it does."""
    return model_response(device_out(actor_of(request)))


@router.post("/device/systems", response={200: list[HeldSystemOut], **REFUSALS}, openapi_extra=HOLD)
def read_held(request: HttpRequest, body: HeldWanted) -> HttpResponse:
    """Systems to hold, at most fifty at once; what this person may not see is left out."""
    return models_response(held_systems(actor_of(request), body.ids))


@router.post("/device/writes", response={200: list[Answered], **REFUSALS}, openapi_extra=HOLD)
def put_writes(request: HttpRequest, body: WritesIn) -> list[Answered]:
    """Writes that waited on a device, in order, each answered by its own operation and its own
    permission; at most fifty at once. Safe to repeat."""
    return put_all(request, body.writes, body.sent)

"""The what-if: what settings would do, which to take, how ways and sizes compare. Nothing is
stored. The same answers are worked out in the page itself, where it can (zerodip.answers)."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from common.errors import REFUSALS
from common.json_responses import model_response
from common.schemas import Units
from zerodip.answers import what_if
from zerodip.decide.compare import PracticeMatter
from zerodip.decide.propose import Proposal
from zerodip.decide.size import Sizing

from .schemas import DecideOut, FileIn, ProposalWanted, SizesWanted, WhatIf

router = Router(tags=["decide"])
ASK = {"x-permission": "decide.ask"}


@router.post("/decide", response={200: DecideOut, **REFUSALS}, openapi_extra=ASK)
def ask_decide(request: HttpRequest, body: WhatIf, units: Units = "us") -> HttpResponse:
    """What these settings would do. Nothing is stored."""
    answer = what_if.answer_decide(body.model_dump(), units)
    return model_response(DecideOut.model_construct(**vars(answer)))


@router.post("/propose", response={200: Proposal, **REFUSALS}, openapi_extra=ASK)
def ask_propose(request: HttpRequest, body: ProposalWanted, units: Units = "us") -> Proposal:
    """Which settings to take, why, and what each other way would cost. Nothing is stored."""
    return what_if.answer_propose(body.model_dump(), units)


@router.post("/compare", response={200: list[PracticeMatter], **REFUSALS}, openapi_extra=ASK)
def ask_compare(request: HttpRequest, body: FileIn, units: Units = "us") -> list[PracticeMatter]:
    """The ways of practitioners against each other on one system. Nothing is stored."""
    return list(what_if.answer_compare(body.model_dump(), units))


@router.post("/sizes", response={200: Sizing | None, **REFUSALS}, openapi_extra=ASK)
def ask_sizes(request: HttpRequest, body: SizesWanted, units: Units = "us") -> Sizing | None:
    """The least tank for a wanted run or rate of starts, and the sizes around it. Nothing is
    stored."""
    return what_if.answer_sizes(body.model_dump(), units)

"""The what-if: what settings would do, which to take, how ways and sizes compare. Nothing is
stored."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from common.errors import REFUSALS
from common.json_responses import model_response
from common.schemas import Units
from zerodip.decide.compare import PracticeMatter, practice_matters
from zerodip.decide.judge import decision as decide
from zerodip.decide.propose import Proposal, propose
from zerodip.decide.simulation import simulate_draw
from zerodip.decide.size import Sizing, sizing
from zerodip.fileformat.document import read_document

from .requests import asked, asked_sizes
from .schemas import DecideOut, FileIn, SizesWanted, WhatIf

router = Router(tags=["decide"])
ASK = {"x-permission": "decide.ask"}


@router.post("/decide", response={200: DecideOut, **REFUSALS}, openapi_extra=ASK)
def ask_decide(request: HttpRequest, body: WhatIf, units: Units = "us") -> HttpResponse:
    """What these settings would do. Nothing is stored."""
    document, draw = asked(body)
    figures = document.figures()
    made = DecideOut.model_construct(
        decision=decide(figures, units, body.sure), simulation=simulate_draw(figures, draw)
    )
    return model_response(made)


@router.post("/propose", response={200: Proposal, **REFUSALS}, openapi_extra=ASK)
def ask_propose(request: HttpRequest, body: FileIn, units: Units = "us") -> Proposal:
    """Which settings to take, why, and what each other way would cost. Nothing is stored."""
    document = read_document(body.document.root)
    return propose(document.system, document.settings, document.practice, units)


@router.post("/compare", response={200: list[PracticeMatter], **REFUSALS}, openapi_extra=ASK)
def ask_compare(request: HttpRequest, body: FileIn, units: Units = "us") -> list[PracticeMatter]:
    """The ways of practitioners against each other on one system. Nothing is stored."""
    document = read_document(body.document.root)
    return list(practice_matters(document.system, document.settings, document.practice, units))


@router.post("/sizes", response={200: Sizing | None, **REFUSALS}, openapi_extra=ASK)
def ask_sizes(request: HttpRequest, body: SizesWanted, units: Units = "us") -> Sizing | None:
    """The least tank for a wanted run or rate of starts, and the sizes around it. Nothing is
    stored."""
    document, target, sizes = asked_sizes(body)
    return sizing(document.system, document.settings, document.practice, target, sizes, units)

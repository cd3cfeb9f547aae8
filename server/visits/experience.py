"""Confirmed outcomes: kept when a visit is closed, counted for the workspace, set back."""

from collections import defaultdict
from datetime import datetime
from uuid import UUID

from django.db.models import Count, F, Q, QuerySet
from django.utils import timezone

from accounts.permissions import Actor, require
from audit.services import log_event
from common.transactions import write
from sites.models import System
from sites.selectors import system_for_actor
from zerodip.diagnosis.experience import causes_met
from zerodip.kinds.registry import KINDS
from zerodip.visit.evidence import observations_of
from zerodip.visit.log import Log, log_of
from zerodip.visit.slots import WAS
from zerodip.visit.trouble import place_of_cause

from .models import Experience, Outcome, Visit
from .schemas import ExperienceOut, KindMet
from .selectors import document_of, records_of

__all__ = [
    "experience_out",
    "keep_outcome",
    "keep_outcomes",
    "met_by_kind",
    "met_in",
    "set_back",
    "workspace_asked",
]


def workspace_asked(actor: Actor, system_id: UUID | None) -> UUID | None:
    """The workspace that a question is about: that of the system, else the actor's only one. Raises
    NotFound."""
    if system_id is not None:
        return system_for_actor(actor, system_id).site.workspace_id
    theirs = list(actor.roles)
    return theirs[0] if len(theirs) == 1 else None


def met_in(workspace_id: UUID, kind: str, before: datetime | None = None) -> dict[str, int]:
    """How often each cause was confirmed on a kind of system since the workspace began to count,
    and `before` a time."""
    since = Q(workspace__experience=None) | Q(at__gt=F("workspace__experience__since"))
    counted = Outcome.objects.filter(since, workspace_id=workspace_id, kind=kind)
    if before is not None:
        counted = counted.filter(at__lt=before)
    return dict(counted.values_list("cause").annotate(Count("pk")))


def met_by_kind(workspace_id: UUID) -> dict[str, dict[str, int]]:
    """The same for every kind of system on which anything was confirmed; a query for each."""
    kinds = Outcome.objects.filter(workspace_id=workspace_id).values_list("kind", flat=True)
    return {kind: met_in(workspace_id, kind) for kind in kinds.distinct().order_by("kind")}


def keep_outcome(visit: Visit, log: Log) -> None:
    """Keeps what a closed visit's trouble was, with its place by what was seen; nothing where it
    was not said."""
    cause = log.value(WAS)
    if not cause:
        return
    workspace, figures = visit.system.site.workspace_id, document_of(visit).figures()
    met = met_in(workspace, figures.system.kind, visit.closed_at)
    place = place_of_cause(figures, observations_of(figures, log), cause, met)
    _store(visit, figures.system.kind, cause, place)


def keep_outcomes(systems: QuerySet[System]) -> None:
    """Keeps the outcomes of visits that were closed elsewhere, without their places."""
    closed = Visit.objects.filter(system__in=systems, outcome=None).exclude(closed_at=None)
    told = closed.filter(entries__slot=WAS.name).distinct()
    for visit in told.select_related("system__site"):
        cause = log_of(records_of(visit)).value(WAS)
        if cause:
            _store(visit, document_of(visit).system.kind, cause, None)


def _store(visit: Visit, kind: str, cause: str, place: int | None) -> None:
    told = {
        "workspace_id": visit.system.site.workspace_id,
        "kind": kind,
        "cause": cause,
        "place": place,
        "at": visit.closed_at,
    }
    Outcome.objects.update_or_create(visit=visit, defaults=told)


@write
def set_back(actor: Actor, workspace_id: UUID) -> None:
    """From now on the usual is expected again; outcomes stay on record. Raises NotFound,
    Forbidden."""
    require(actor, "experience.change", workspace_id)
    Experience.objects.update_or_create(
        workspace_id=workspace_id, defaults={"since": timezone.now()}
    )
    log_event(actor.user, "experience.change", workspace_id)


def experience_out(actor: Actor, workspace_id: UUID) -> ExperienceOut:
    """What a workspace has met, by kind of system. Raises NotFound, Forbidden."""
    require(actor, "experience.read", workspace_id)
    rows: dict[str, list[Outcome]] = defaultdict(list)
    for outcome in Outcome.objects.filter(workspace_id=workspace_id).order_by("at"):
        rows[outcome.kind].append(outcome)
    return ExperienceOut(
        since=Experience.objects.filter(pk=workspace_id).values_list("since", flat=True).first(),
        may_change=actor.may("experience.change", workspace_id),
        kinds=[_kind_met(workspace_id, kind, rows[kind]) for kind in KINDS if rows.get(kind)],
    )


def _kind_met(workspace_id: UUID, kind: str, outcomes: list[Outcome]) -> KindMet:
    judged = [each.place for each in outcomes if each.place is not None]
    met = met_in(workspace_id, kind)
    return KindMet(
        kind=kind,
        title=KINDS[kind].title,
        confirmed=len(outcomes),
        counted=sum(met.values()),
        judged=len(judged),
        first=sum(place == 1 for place in judged),
        among_three=sum(place <= 3 for place in judged),
        causes=list(causes_met(KINDS[kind].troubles, met)),
    )

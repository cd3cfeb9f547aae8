"""For whoever watches over this process: whether it lives, and whether it can work."""

from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from common.errors import away

__all__ = ["live", "ready"]


@require_safe
@never_cache
def live(request: HttpRequest) -> HttpResponse:
    """It answers: no reason to start it anew."""
    return HttpResponse("live\n", content_type="text/plain")


@require_safe
@never_cache
def ready(request: HttpRequest) -> HttpResponse:
    """It answers, and so does the database; 503 until then."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("select 1")
    except DatabaseError:
        return away(request)
    return HttpResponse("ready\n", content_type="text/plain")

"""Long lists, written out as they are: validating what the server itself made takes longer than all the rest. Tests hold
these answers to their schemas."""

import json
from typing import Any

from django.core.serializers.json import DjangoJSONEncoder
from django.http import HttpResponse

__all__ = ["written"]


def written(data: Any) -> HttpResponse:
    """Plain values, dates and UUIDs as a JSON answer."""
    text = json.dumps(data, cls=DjangoJSONEncoder, ensure_ascii=False, separators=(",", ":"))
    return HttpResponse(text, content_type="application/json")

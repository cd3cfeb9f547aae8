"""The product's addresses and `/bench/empty`."""

from django.http import HttpRequest
from django.urls import path
from ninja import NinjaAPI

from accounts.auth import SignedIn
from config import urls

empty = NinjaAPI(
    title="empty", auth=SignedIn(), docs_url=None, openapi_url=None, urls_namespace="empty"
)


@empty.post("/empty")
def answer(request: HttpRequest) -> dict[str, str]:
    """Nothing, as JSON."""
    return {}


urlpatterns = [path("bench/", empty.urls), *urls.urlpatterns]

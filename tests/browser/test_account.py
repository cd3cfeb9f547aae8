"""A person's account: the second factor from its first code to being required of a crew, and the
sessions."""

import re

import pytest
from playwright.sync_api import Page, expect

from accounts.models import Membership, Role, User, Workspace
from tests.server.test_accounts import code_of
from tests.server.test_session import PASSWORD

from .conftest import Opener
from .test_pages import no_serious_fault

pytestmark = pytest.mark.django_db(transaction=True)


def people() -> None:
    crew = Workspace.objects.create(name="Brookside crew")
    for name, role in (("ida", Role.OWNER), ("sam", Role.TECHNICIAN)):
        user = User.objects.create_user(username=name, password=PASSWORD, first_name=name.title())
        Membership.objects.create(user=user, workspace=crew, role=role)


def sign_in(page: Page, name: str) -> None:
    expect(page.get_by_role("button", name="Sign in", exact=True)).to_be_visible()
    page.get_by_label("Name").fill(name)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()


def choices(page: Page) -> Page:
    """What a phone keeps behind one button."""
    more = page.get_by_role("button", name="Units, light and account")
    expect(page.get_by_role("link", name="Zero Dip", exact=True)).to_be_visible()
    if more.is_visible() and more.get_attribute("aria-expanded") == "false":
        more.click()
    return page


def enrol(page: Page, name: str) -> list[str]:
    """Goes through it on the page that is open; gives the recovery codes."""
    page.get_by_role("textbox", name="Your password").fill(PASSWORD)
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("img", name="Address for an authenticator app")).to_be_visible()
    page.get_by_label(re.compile("^Code")).fill("12 34 56")
    page.get_by_role("button", name="Switch it on").click()
    expect(page.get_by_text("The code is not right")).to_be_visible()
    page.get_by_label(re.compile("^Code")).fill(code_of(User.objects.get(username=name)))
    page.get_by_role("button", name="Switch it on").click()
    expect(page.get_by_text("Keep these recovery codes")).to_be_visible()
    codes = page.get_by_role("status").get_by_role("listitem").all_inner_texts()
    page.get_by_role("button", name="Done, I wrote them down").click()
    return codes


@pytest.mark.parametrize(("width", "theme"), [(1280, "day"), (390, "cellar")])
def test_a_crew_that_asks_for_a_second_factor(open_page: Opener, width: int, theme: str) -> None:
    people()
    page = open_page(width, 844, theme=theme)
    choices(page).get_by_role("button", name="Sign out").click()
    sign_in(page, "ida")
    choices(page).get_by_role("link", name="Workspace").click()
    required = page.get_by_label("This workspace opens only with a second factor")
    required.click()
    expect(page.get_by_role("alert")).to_contain_text("Switch on your own second factor first")
    expect(required).not_to_be_checked()
    codes = enrol(page, "ida")
    assert len(codes) == 10
    expect(page.get_by_text("10 recovery codes are left")).to_be_visible()
    required.click()
    expect(page.get_by_role("alert")).to_have_count(0)
    page.reload()
    expect(required).to_be_checked()
    expect(page.get_by_test_id("sessions").get_by_role("listitem")).to_have_count(1)
    no_serious_fault(page)
    assert page.evaluate("document.documentElement.scrollWidth") <= width

    choices(page).get_by_role("button", name="Sign out").click()
    sign_in(page, "ida")
    asked = page.get_by_label("Code of your authenticator app, or a recovery code")
    asked.fill("000000")
    page.get_by_role("button", name="Go on").click()
    expect(page.get_by_role("alert")).to_contain_text("The code is not right.")
    no_serious_fault(page)
    asked.fill(codes[3])
    page.get_by_role("button", name="Go on").click()
    expect(page.get_by_role("link", name="Zero Dip", exact=True)).to_be_visible()

    choices(page).get_by_role("button", name="Sign out").click()
    sign_in(page, "sam")
    expect(page.get_by_role("heading", name="One more step")).to_be_visible()
    no_serious_fault(page)
    enrol(page, "sam")
    expect(page.get_by_role("heading", name="One more step")).to_have_count(0)
    expect(page.get_by_role("link", name="Zero Dip", exact=True)).to_be_visible()

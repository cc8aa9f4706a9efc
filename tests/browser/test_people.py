"""Somebody is asked in, joins by the link, and does not confirm dead alone; a guest reads one site and nothing else."""

from datetime import date

from django.contrib.auth import get_user_model
from playwright.sync_api import expect

from crews.models import Crew, Membership, Role
from proofs.models import ProofEvent
from readings.services import record
from tests.browser.conftest import PASSWORD, USERNAME, accessible, another_browser, demo_id, sign_in, small_targets
from tests.browser.proofs import proved_dead

NEW = "a-password-of-bens"


def hold(page, name):
    page.get_by_role("button", name=name).focus()
    page.keyboard.down("Enter")
    page.wait_for_timeout(1500)
    page.keyboard.up("Enter")


def test_an_apprentice_joins_by_a_link_and_does_not_confirm_dead_alone(kit, live_server, page, browser):
    proved_dead(get_user_model().objects.get(username=USERNAME))
    sign_in(page, live_server.url)
    page.get_by_role("link", name="You").first.click()
    accessible(page)
    page.get_by_role("link", name="People of the crew").click()
    page.get_by_role("button", name="Ask somebody in").click()
    page.get_by_label("Their name").fill("Ben Ash")
    page.get_by_label("As what").select_option("apprentice")
    accessible(page)
    page.get_by_role("button", name="Make the link").click()
    address = page.get_by_label("Link for Ben Ash").input_value()
    assert address.startswith(f"{live_server.url}/join#")
    accessible(page)

    context = another_browser(browser)
    his = context.new_page()
    his.goto(address)
    expect(his.get_by_role("heading", name="Join Larkspur crew")).to_be_visible()
    accessible(his)
    his.get_by_label("The name you sign in with").fill("anna")
    his.get_by_label("Password").first.fill(NEW)
    his.get_by_role("button", name="Join and sign in").click()
    expect(his.get_by_text("somebody has this name already")).to_be_visible()
    his.get_by_label("The name you sign in with").fill("ben")
    his.get_by_role("button", name="Join and sign in").click()
    his.get_by_role("heading", name="Today").wait_for()

    his.goto(f"{live_server.url}/prove-dead/{demo_id('t', 'proof')}")
    expect(his.get_by_text("Not alone")).to_be_visible()
    assert not small_targets(his)
    accessible(his)
    hold(his, "Hold: proved dead")
    assert not ProofEvent.objects.filter(type="stated").exists()
    his.get_by_label("Their name").fill(USERNAME)
    his.get_by_label("Their password").fill("not-hers-at-all")
    hold(his, "Hold: proved dead")
    expect(his.get_by_text("Wrong name or password")).to_be_visible()
    his.get_by_label("Their password").fill(PASSWORD)
    hold(his, "Hold: proved dead")
    expect(his.locator("header [data-state]")).to_contain_text("Ben Ash with Anna")
    assert PASSWORD not in his.evaluate("JSON.stringify([localStorage, sessionStorage])")

    page.reload()
    expect(page.get_by_label("Link for Ben Ash")).to_have_count(0)
    page.get_by_role("button", name="Change Ben Ash").click()
    page.get_by_role("button", name="They left the crew").click()
    page.get_by_role("button", name="tap again").click()
    expect(page.get_by_text("Left: 1")).to_be_visible()
    his.reload()
    expect(his.get_by_role("button", name="Sign in")).to_be_visible()
    context.close()


def test_a_guest_reads_one_site_and_is_shown_nothing_to_do(kit, live_server, page):
    user = get_user_model().objects.create_user("guest", password=PASSWORD, first_name="Gail")
    about = {"role": Role.GUEST, "site": demo_id("t", "site"), "until": date(2099, 12, 31)}
    Membership.objects.create(user=user, crew=Crew.objects.get(), **about)
    failed = []
    page.on("response", lambda answer: failed.append(answer.url) if answer.status >= 402 else None)
    sign_in(page, live_server.url, "guest", heading="Larkspur Hill Observatory")
    expect(page.get_by_role("navigation", name="Places").get_by_role("link")).to_have_count(2)
    accessible(page)
    page.get_by_role("link", name="Outlet 3, by the lathe").click()
    expect(page.get_by_text("Everything on record of this point")).to_be_visible()
    accessible(page)
    page.goto(f"{live_server.url}/kit")
    expect(page.get_by_role("heading", name="Larkspur Hill Observatory")).to_be_visible()
    page.wait_for_timeout(5_000)
    assert not failed


def test_a_supply_is_not_changed_under_readings_unseen(kit, live_server, page):
    crew, anna = Crew.objects.get(), get_user_model().objects.get()
    for number, (pair, volts) in enumerate(((("L", "N"), 119.8), (("L", "PE"), 119.6), (("N", "PE"), 0.2))):
        entry = {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1], "value": volts, "unit": "V"}
        record(crew, anna, demo_id("t", "point"), demo_id("t", f"reading {number}"), entry, demo_id("t", "m2"))
    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/sites/{demo_id('t', 'site')}")
    page.get_by_role("button", name="Change Service").click()
    page.get_by_label("System").select_option("480Y/277")
    page.get_by_role("button", name="Save the supply").click()
    told = page.get_by_role("alert").filter(has_text="1 point reads otherwise then")
    expect(told).to_contain_text("Outlet 3, by the lathe")
    accessible(page)
    page.get_by_role("button", name="Save it even so").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.goto(f"{live_server.url}/record/timeline/site/{demo_id('t', 'site')}?kind=change")
    expect(page.get_by_text("Supply Service: system 480Y/277 V")).to_be_visible()
    expect(page.get_by_text("before: system 120/240 V")).to_be_visible()

"""Files in and out: a strange spreadsheet matched, looked at, brought in; a record that another crew saved."""

import re

from playwright.sync_api import expect

from crews.models import Crew
from demo.crew import demo_id
from evenprobe.practices import NORTH_AMERICA
from exchange.record.leaving import record_file
from kit.services import put_tester
from readings.models import Reading
from readings.services import record
from sites.services import put_board, put_circuit, put_point, put_site, put_supply
from tests.browser.conftest import accessible, sign_in, small_targets

THEIRS = """Socket;Measured at;Volts (V);Meter
Outlet 3, by the lathe;2026-11-24T10:40:00+00:00;119,6;Meter M2
Outlet 3, by the lathe;2026-11-24T10:41:00+00:00;119,4 A;Meter M2
Outlet 9;2026-11-24T10:42:00+00:00;119,5;Somebody's
"""


OURS = "taken at,point,quantity,from,to,mode,value [V]"


def choose(page, name, content):
    with page.expect_file_chooser() as asked:
        page.get_by_role("button", name=re.compile("^Choose a")).click()
    asked.value.set_files({"name": name, "mimeType": "text/plain", "buffer": content})


def same_in_every_row(page, column, value):
    page.get_by_label("The same in every row").select_option(column)
    page.get_by_label("What it is").fill(value)
    page.get_by_label("What it is").press("Enter")
    expect(page.get_by_text(f"{column}: {value} in every row")).to_be_visible()


def test_a_strange_spreadsheet_is_matched_looked_at_and_brought_in(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Record", exact=True).click()
    page.get_by_role("link", name="Files", exact=True).click()
    choose(page, "theirs.csv", b"D\xe9charge;x\n1;2\n")
    expect(page.get_by_role("alert")).to_contain_text("line 1 is not UTF-8 (byte 0xe9)")
    choose(page, "theirs.csv", THEIRS.encode())
    expect(page.get_by_role("alert")).to_contain_text("Every row needs quantity")
    for column, value in (("quantity", "voltage"), ("from", "L"), ("to", "N"), ("mode", "ac")):
        same_in_every_row(page, column, value)
    expect(page.get_by_text("Line 3 cannot go in. value [V]: “119,4 A” is in A")).to_be_visible()
    expect(page.get_by_text("Line 4 cannot go in. point: there is no point called “Outlet 9”")).to_be_visible()
    page.get_by_text("Every line", exact=True).click()
    expect(page.get_by_text("Line 2: goes in")).to_be_visible()
    expect(page.get_by_role("cell", name="119.6")).to_be_visible()
    accessible(page)
    assert small_targets(page) == []
    assert not Reading.objects.exists()
    page.get_by_role("button", name="Bring in 1 new").click()
    expect(page.get_by_role("status").filter(has_text="1 row is on record now")).to_be_visible()
    expect(page.get_by_text("theirs.csv").last).to_be_visible()
    choose(page, "theirs.csv", THEIRS.replace("119,6", "119,9").encode())
    expect(page.get_by_text("Columns matched as your crew did before")).to_be_visible()
    expect(page.get_by_role("button", name="Bring in 1 new")).to_be_visible()
    page.goto(f"{live_server.url}/bench/{outlet.id}")
    page.get_by_text("1 reading recorded").click()
    expect(page.get_by_text("brought in by Anna")).to_be_visible()


def test_with_the_server_gone_it_says_what_is_not_known_and_goes_on_when_it_is_back(outlet, live_server, page):
    ours = f'{OURS}\r\n2026-11-24T10:40:00+00:00,"{outlet.name}",voltage,L,N,ac,119.4\r\n'.encode()
    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/record/files")
    page.route("**/api/brought/rows/**", lambda route: route.abort())
    choose(page, "ours.csv", ours)
    expect(page.get_by_role("alert").filter(has_text="Nothing of ours.csv was brought in")).to_be_visible()
    page.unroute("**/api/brought/rows/**")
    page.get_by_role("button", name="Look at it again").click()
    expect(page.get_by_role("button", name="Bring in 1 new")).to_be_visible()

    def cut_after_it_arrived(route):
        route.fetch()
        route.abort()

    page.route("**/api/brought/rows/readings", cut_after_it_arrived)
    page.get_by_role("button", name="Bring in 1 new").click()
    expect(page.get_by_role("alert").filter(has_text="Some of ours.csv may be on record")).to_be_visible()
    page.unroute("**/api/brought/rows/readings")
    page.get_by_role("button", name="Bring in 1 new").click()
    expect(page.get_by_text("1 here already")).to_be_visible()
    assert Reading.objects.count() == 1


def test_another_crew_s_record_comes_in_and_its_tester_is_taken_over(outlet, live_server, page):
    theirs = Crew.objects.create(name="Loom crew")
    site = put_site(theirs, demo_id("f", "site"), "Annex", NORTH_AMERICA.id)
    supply = put_supply(theirs, demo_id("f", "supply"), site.id, "Service", "120/240", "TN-C-S")
    board = put_board(theirs, demo_id("f", "board"), supply.id, "Board A")
    circuit = put_circuit(theirs, demo_id("f", "circuit"), board.id, "Annex outlets", 20, "12 AWG")
    put_point(theirs, demo_id("f", "point"), circuit.id, "Outlet A", "outlet", ["L", "N", "PE"], 9)
    put_tester(theirs, demo_id("f", "m9"), {"label": "Meter M9", "kind": "multimeter", "proved": True})
    entry = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 119.8, "unit": "V"}
    anna = Crew.objects.get(name="Larkspur crew").memberships.first().user
    record(theirs, anna, demo_id("f", "point"), demo_id("f", "r"), entry, demo_id("f", "m9"))
    saved = b"".join(record_file(theirs, site))

    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/record/files")
    page.get_by_label("What is in the file").select_option("record")
    choose(page, "annex.json", saved.replace(b"119.8", b"119.9"))
    expect(page.get_by_role("alert")).to_contain_text("changed after it was saved")
    choose(page, "annex.json", saved)
    expect(page.get_by_role("heading", name="Annex")).to_be_visible()
    expect(page.get_by_role("row", name="Readings 1")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name=re.compile("^Bring in what is new")).click()
    expect(page.get_by_role("status").filter(has_text="rows are on record now")).to_be_visible()
    page.get_by_role("link", name="Look in Kit").click()
    page.get_by_role("link", name="Meter M9").click()
    expect(page.get_by_text("may warn and confirms nothing")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="It is ours").click()
    page.get_by_role("button", name="Yes, ours").click()
    expect(page.get_by_text("Taken over as yours by Anna")).to_be_visible()

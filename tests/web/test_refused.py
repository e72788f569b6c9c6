"""What is sent and cannot be is answered in words: the table `tests/refused/web.txt`, an address, what is
sent to it (a form, JSON, or nothing: `GET`), and what is said;
what is sent before that stands before it, the form after its address.
"""

import html
import json
from pathlib import Path
from threading import Event
from urllib.parse import parse_qsl

import pytest

from lamsik.web.shared import jobs
from tests import demo_rows
from tests.documents.test_body import document
from tests.refusing import refusing

TABLE = Path(__file__).parents[1] / "refused/web.txt"
ROWS = [line.split(" | ") for line in TABLE.read_text(encoding="utf-8").splitlines()]


def test_what_is_still_worked_on_is_waited_for(demo):
    held = Event()
    with refusing("wait until what is being read is finished"):
        for _ in range(jobs.MOST_JOBS + 1):
            job = jobs.start("body.stl", lambda _: held.wait())
    early = demo.get(f"/moulds/{demo_rows.STUBBY_FOUR_AT_ONCE}/halves/{job.key}/0.stl")
    assert "wait until they are worked out" in early.text
    assert "wait until it is read" in demo.send(f"/shapes/bring-in/mesh/{job.key}/body", {}).text
    held.set()


OWN = json.dumps(document())
"""A document that is as it is to be."""


@pytest.mark.parametrize(("url", "sent", "says"), ROWS)
def test_what_cannot_be_is_answered_in_words(demo, url, sent, says):
    *before, url = url.format(**vars(demo_rows)).split(" > ")
    for one in before:
        page, _, form = one.partition("?")
        demo.post(page, dict(parse_qsl(form)))
    if sent == "GET":
        answer = demo.http.get(url)
    elif sent[:1] in ("[", "{"):
        head = {"X-CSRFToken": demo.token("/mixes/clocks"), "Content-Type": "application/json"}
        answer = demo.http.post(url, data=sent.replace('"OWN"', OWN), headers=head)
    else:
        answer = demo.post(url, dict(parse_qsl(sent.format(**vars(demo_rows)), keep_blank_values=True)))
    assert answer.status_code in (302, 400, 415, 422)
    if answer.status_code == 302:
        answer = demo.http.get(answer.location)
    found = html.unescape(answer.text.encode().decode("unicode-escape") if answer.is_json else answer.text)
    assert says.lower() in found.lower()

"""What is sent and cannot be is answered in words: the table `tests/refused/web.txt`, an address, what is
sent to it (a form, or JSON), and what is said.
"""

import html
from pathlib import Path
from urllib.parse import parse_qsl

import pytest

from tests import demo_rows

TABLE = Path(__file__).parents[1] / "refused/web.txt"
ROWS = [line.split(" | ") for line in TABLE.read_text(encoding="utf-8").splitlines()]


@pytest.mark.parametrize(("url", "sent", "says"), ROWS)
def test_what_cannot_be_is_answered_in_words(demo, url, sent, says):
    url = url.format(**vars(demo_rows))
    if sent[0] in "[{":
        head = {"X-CSRFToken": demo.token("/mixes/clocks"), "Content-Type": "application/json"}
        answer = demo.http.post(url, data=sent, headers=head)
        found = (
            answer.text.encode().decode("unicode-escape", "ignore") if "\\u" in answer.text else answer.text
        )
    else:
        answer = demo.post(url, dict(parse_qsl(sent, keep_blank_values=True)))
        found = html.unescape(answer.text)
    assert says.lower() in found.lower() and answer.status_code in (400, 415, 422)

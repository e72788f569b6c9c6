"""Letters to customers: templates with places that the order's figures fill."""

import re
from collections.abc import Mapping
from dataclasses import dataclass

from lamsik.core.errors import require, rule

PLACES = ("name", "order", "lines", "total", "open", "deposit", "due", "tracking", "shop")
"""What a template can have filled in."""
PLACE = re.compile(r"\{([^{}]*)\}")
MOST_SUBJECT, MOST_TEXT = 200, 8000
MAIL = re.compile(r"[^@\s<>,;\"]+@[^@\s<>,;\"]+\.[^@\s<>,;\"]+")


@dataclass(frozen=True)
class Template:
    """What a letter begins as."""

    subject: str
    text: str

    def __post_init__(self) -> None:
        require(bool(self.subject.strip()), "subject", self.subject, rule("a-subject"))
        require("\n" not in self.subject.strip(), "subject", self.subject[:60], rule("a-subject"))
        for name, text, most in (("subject", self.subject, MOST_SUBJECT), ("text", self.text, MOST_TEXT)):
            require(len(text) <= most, name, len(text), rule("at-most-characters", most=most))
            for place in PLACE.findall(text):
                require(place in PLACES, name, f"{{{place}}}", rule("places-are", listed=", ".join(PLACES)))

    def filled(self, values: Mapping[str, str]) -> "Template":
        """The letter with its places filled. What a value holds is no place again."""

        def put(text: str) -> str:
            return PLACE.sub(lambda place: values.get(place[1], ""), text)

        return Template(" ".join(put(self.subject).split())[:MOST_SUBJECT], put(self.text)[:MOST_TEXT])


def is_mail(text: str) -> bool:
    """Whether a text is an address that mail can go to."""
    return MAIL.fullmatch(text.strip()) is not None

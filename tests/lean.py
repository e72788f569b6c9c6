"""A page's memory of what it was sent: makes a lean view whole, as the browser does."""

import json
import re


class Known:
    def __init__(self):
        self.values = {}

    def read(self, sent):
        if isinstance(sent, list):
            return [self.read(one) for one in sent]
        if not isinstance(sent, dict):
            return sent
        if "=" in sent:
            return self.values[sent["="]]
        if "*" in sent:
            return {key: one for piece in sent["*"] for key, one in self.read(piece).items()}
        if "#" in sent:
            self.values[sent["#"]] = value = self.read(sent["v"])
            return value
        return {key: self.read(one) for key, one in sent.items()}


def state(shop, page):
    """What a page of a document begins with, its view written out."""
    found = json.loads(re.search(r'id="state">(.*?)</script>', shop.get(page).text, re.S)[1])
    return found | {"view": Known().read(found["view"])}

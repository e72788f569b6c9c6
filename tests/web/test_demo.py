"""The invented shop has the rows that tests ask for by name."""

import re

import pytest
from sqlmodel import Session, create_engine

from lamsik.store.tables import Document
from tests import demo_rows

NAMES = {name: key for name, key in vars(demo_rows).items() if name.isupper()}


@pytest.fixture(scope="module")
def names(demo_file):
    with Session(create_engine(f"sqlite:///{demo_file}")) as session:
        return {key: session.get_one(Document, key).name for key in NAMES.values()}


@pytest.mark.parametrize("name", NAMES)
def test_a_row_is_what_its_name_says(names, name):
    called = re.sub(r"\W+", "_", names[NAMES[name]].upper()).strip("_")
    assert called == name or called.startswith(f"{name}_")

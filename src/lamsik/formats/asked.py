"""Questions as files: a stock, a mix, a pair (formats `lamsik-stock`, `lamsik-mix`, `lamsik-pair`), each
checked by its schema.
"""

import json
from functools import lru_cache
from importlib.resources import files
from typing import Any

from jsonschema import Draft202012Validator
from jsonschema.exceptions import best_match

from lamsik.core.errors import Refused, require
from lamsik.core.mixes.fillers import Filler
from lamsik.core.mixes.product import Product
from lamsik.core.quantities import file_size, plainly
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.tank.ballast_base import DENSE_POURS, Bench
from lamsik.core.water import Water
from lamsik.core.weighing.inwater import InWater
from lamsik.core.weighing.pair import Bearer
from lamsik.documents.products.document import to_product
from lamsik.documents.schemas import refusal_of
from lamsik.formats.sniff import kind_of

MOST_BYTES = 200_000
Document = dict[str, Any]


@lru_cache(maxsize=8)
def _validator(name: str) -> Draft202012Validator:
    return Draft202012Validator(
        json.loads(files("lamsik.formats").joinpath(f"{name}.schema.json").read_text(encoding="utf-8"))
    )


def loads(data: bytes, name: str) -> Document:
    """A checked document of a kind (stock, mix, pair). Raises `Refused` naming the field, what was given,
    what is allowed.
    """
    require(len(data) <= MOST_BYTES, "file", file_size(len(data)), f"at most {file_size(MOST_BYTES)}")
    try:
        document = json.loads(data, parse_constant=_no_number)
    except (ValueError, RecursionError) as error:
        raise Refused("file", kind_of(data, "a JSON file"), "JSON text is needed") from error
    wrong = best_match(_validator(name).iter_errors(document))
    if wrong is not None:
        path = ".".join(str(step + 1 if isinstance(step, int) else step) for step in wrong.absolute_path)
        raise refusal_of(wrong, path)
    return dict(document)


def _no_number(text: str) -> None:
    raise ValueError(f"{text} is no number")


def bench_of(document: Document) -> Bench:
    """The bench a stock file describes; what it leaves out is as a new shop begins."""
    plain = {
        name: document[name]
        for name in ("wall_mm", "cover_mm", "slug_step_g", "place_step_mm", "filler_g_cm3")
        if name in document
    }
    pours = (
        tuple((row["name"], row["density_g_cm3"]) for row in document["pours"])
        if "pours" in document
        else DENSE_POURS
    )
    return Bench(
        tuple(Slug(**row) for row in document["slugs"]), tuple(document["drills_mm"]), pours=pours, **plain
    )


def product_of(document: Document) -> Product:
    """The product of a mix."""
    return to_product(document["product"])


def filler_of(document: Document) -> Filler | None:
    """The filler of a mix, if it has one."""
    return Filler(**document["filler"]) if "filler" in document else None


def water_of(row: Document) -> Water:
    """A water of a file."""
    return Water(**{"name": "water", **row})


def bearers_of(row: Document) -> tuple[Bearer, ...]:
    """A float of a pair, to each of its marks."""
    sd = float(row.get("sd_g", 0.0))
    bearers = []
    for mark in row["marks"]:
        carries = row["sinker_g"] - mark["reading_g"]
        require(
            carries >= 0,
            f"float.marks.{mark['name']}",
            plainly(mark["reading_g"], "mass"),
            f"at most the sinker's own {plainly(row['sinker_g'], 'mass')}: a float pulls up",
        )
        bearers.append(
            Bearer(row["name"], carries, water_of(row["water"]), row["air_g"], sd * 2**0.5, mark["name"])
        )
    return tuple(bearers)


def load_of(row: Document) -> InWater:
    """The load of a pair."""
    sd = float(row.get("sd_g", 0.0))
    return InWater(row["air_g"], row["water_g"], water_of(row["water"]), sd, sd)

"""The design screens' live exchange: edits in, recomputed state out; saving, undo and redo."""

from dataclasses import dataclass
from typing import Any

from flask import Blueprint, jsonify
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.core.quantities import UNSAID, read_measure, saying
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.shapes.design import Design
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.evaluate import Near
from lamsik.documents.body.document import to_design
from lamsik.documents.body.edits import BODY
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.engine import applied
from lamsik.documents.rows import Document as Body
from lamsik.store import documents, skins, stores
from lamsik.store.tables import Document
from lamsik.web.bodies import anew, state
from lamsik.web.bodies.state import Asked
from lamsik.web.bodies.tank_shop import tank_shop
from lamsik.web.shared import exchange
from lamsik.web.shared.db import db, in_short, load_document
from lamsik.words.revisions import note

MOST_TRAIL = 80

blueprint = Blueprint("live", __name__, url_prefix="/designs")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the bench shows.

    Takes `document`, `edits`, `bench`, `mode` (drag, settled, or late for what follows a settled answer that
    said so), `looks`,
    `near`, `save` with `base` (the revision the document was loaded from).
    """
    row, asked = load_document("body", key), asked_for()
    edited_design = edited(asked)
    if asked.get("mode") == "late":
        return jsonify(
            view=exchange.sent(state.late(edited_design.design, stores.rules(db()), tank_shop(key)), asked)
        )
    base = exchange.base_of(asked)
    if asked.get("save"):
        base = _save(row, edited_design, base)
    settled = exchange.is_settled(asked)
    answer = {
        "base": base,
        "saved": bool(asked.get("save")),
        "errors": edited_design.refused,
        "view": exchange.sent(_view(row, edited_design, asked, settled), asked),
    }
    if any(edit.get("do") == "resize" for edit in asked.get("edits") or []) and not edited_design.refused:
        answer["anew"] = anew.sizes_anew(asked["document"], edited_design.document, stores.hardware(db()))
    if settled:  # a drag is a preview: the document on the page stays as it was picked up
        answer["document"] = edited_design.document
    return jsonify(answer)


def asked_for() -> dict[str, Any]:
    """The request's object, its bench known."""
    asked = exchange.asked_for()
    if asked.get("bench") not in state.BENCHES:
        raise Refused("bench", asked.get("bench"), f"one of {', '.join(state.BENCHES)}")
    return asked


@dataclass(frozen=True)
class Edited:
    """The sent document with the edits that could be made, the design it describes, and the refusals of
    the other edits.
    """

    document: Body
    design: Design
    refused: list[dict[str, str]]


def edited(asked: dict[str, Any]) -> Edited:
    """What the sent edits make of the sent document."""
    document = BODY_SCHEMA.checked(asked.get("document"))
    skins.ready(db(), [document])
    edits = exchange.edits_of(asked)
    shop = stores.catalogue(db()) if any(edit.get("do") != "set" for edit in edits) else Catalogue()
    designs = []

    def one(content: Body, edit: dict[str, Any]) -> Body:
        content, design = applied(BODY, content, edit, shop)
        designs.append(design)
        return content

    document, refused = exchange.edited(document, edits, one)
    return Edited(document, designs[-1] if designs else to_design(document), refused)


def _save(row: Document, edited_design: Edited, base: int) -> int:
    """Keep the document; what changed on it is written beside the revision, a lip trim or moved tie with
    its before and after.
    """
    with saying(UNSAID):
        says = note(to_design(documents.content(db(), row)), edited_design.design)
    return in_short(
        lambda session: (
            documents.save(
                session, session.get_one(Document, row.id), edited_design.document, base, says
            ).number
        )
    )


def _view(row: Document, edited_design: Edited, asked: dict[str, Any], settled: bool) -> dict[str, Any]:
    shop = tank_shop(row.id or 0) if settled and asked["bench"] == "tank" else None
    looks, facing = str(asked.get("looks") or ""), str(asked.get("facing") or "")
    here = Asked(
        asked["bench"],
        settled,
        looks,
        facing,
        _near(asked.get("near")),
        _trail(asked.get("trail")),
        shop=shop,
        station_mm=_station(asked.get("station")),
        hinge_mm=stores.setting(db(), "saw")["hinge_mm"],
    )
    return state.view(edited_design.document, edited_design.design, stores.rules(db()), here)


def _station(sent: object) -> float | None:
    """Where the section is looked at [mm], dragged or typed; None is the widest place."""
    if isinstance(sent, str):
        sent = read_measure(sent, "length", "station")
    return None if sent is None else finite_between("station", sent, 0.0, 600.0, "mm")


def _trail(sent: object) -> tuple[tuple[float, float], ...]:
    """Where G was while something is dragged: pairs of x and z [mm]."""
    if not isinstance(sent, list):
        return ()
    if len(sent) > MOST_TRAIL or not all(isinstance(pair, list) and len(pair) == 2 for pair in sent):
        raise Refused("trail", len(sent), f"at most {MOST_TRAIL} pairs of x and z")
    return tuple(
        (finite_between("trail.x", x, -1e4, 1e4), finite_between("trail.z", z, -1e4, 1e4)) for x, z in sent
    )


def _near(sent: object) -> Near | None:
    if not isinstance(sent, dict):
        return None
    pitch = finite_between("near.pitch_deg", sent.get("pitch_deg"), -90.0, 90.0)
    roll = finite_between("near.roll_deg", sent.get("roll_deg"), -180.0, 180.0)
    return Near(Attitude(pitch, roll), finite_between("near.draft_mm", sent.get("draft_mm"), -1e4, 1e4))


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    row, asked = load_document("body", key), asked_for()
    return exchange.step(row, way, lambda moved: current(moved, asked["bench"]))


def current(row: Document, bench: str, settled: bool = False) -> dict[str, Any]:
    """The whole state of a saved design for one bench, as the page starts with it."""
    document = documents.content(db(), row)
    shown = state.view(document, to_design(document), stores.rules(db()), Asked(bench, settled))
    return {
        "id": row.id,
        "code": row.code,
        "bench": bench,
        "base": row.current,
        "saved": True,
        "document": document,
        "view": shown,
        "errors": [],
    }

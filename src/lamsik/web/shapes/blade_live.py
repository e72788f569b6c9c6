"""A blade's page as it is edited: fields in, the bent blade, its snaps and what it weighs out."""

from typing import Any

from flask import Blueprint

from lamsik.core.quantities import said
from lamsik.core.shapes.blades import FREE, TEARS, Blade, SnapRules, remarks, swing
from lamsik.core.shapes.sources import OWN, Source
from lamsik.documents.blades.document import blade_of
from lamsik.documents.rows import Document
from lamsik.drawings import blade as drawn
from lamsik.store import stores
from lamsik.web.shapes.blade_view import BladePanel, BladeView, SnapRow
from lamsik.web.shared.db import db
from lamsik.web.shared.fields import as_typed
from lamsik.web.shared.live_document import exchanged
from lamsik.web.shared.view import Head, Said, plain
from lamsik.words.tell import tell


def view(document: Document) -> dict[str, Any]:
    """The computed part of the state."""
    blade, rules = blade_of(document), SnapRules(**stores.setting(db(), "blades"))
    head = Head(
        fields=as_typed(document),
        settled=True,
        near=None,
        sentence=_sentence(blade, rules),
        selected={},
    )
    return plain(BladeView(head, _blade(blade, rules)))


def _sentence(blade: Blade, rules: SnapRules) -> str:
    snaps = "; ".join(
        f"{hole.key} snap {'' if verdict == TEARS else 'is '}{verdict}"
        for hole in blade.holes
        if (verdict := swing(blade, hole, rules).verdict)
    )
    return f"{snaps.capitalize()}. {said(blade.mass_g, 'mass')} of {blade.metal}."


def _blade(blade: Blade, rules: SnapRules) -> BladePanel:
    source = Source(blade.source, blade.source_note)
    plainly = source.kind == OWN and not source.note
    swings = [(hole.key, swing(blade, hole, rules)) for hole in blade.holes]
    return BladePanel(
        picture=drawn.picture(blade),
        swings=[
            SnapRow(key, f"{key.capitalize()} snap: {one.verdict}", tell(one.why), one.verdict != FREE)
            for key, one in swings
        ],
        remarks=[Said(str(n), tell(remark)) for n, remark in enumerate(remarks(blade, rules))],
        shape_from="" if plainly else f"Shape {source.describe()}.",
        not_for_sale=not source.may_sell,
    )


blueprint = Blueprint("shapes_blade_live", __name__, url_prefix="/shapes/blades")
current = exchanged(blueprint, "blade", "blades", lambda content, _: view(content))
"""The whole state of a saved blade."""

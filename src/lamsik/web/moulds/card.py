"""The mould's card: versions made, cavities alive or dead, shots counted, faults by version, what may
touch what, the master's use.
"""

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.money import read
from lamsik.core.moulds.faults import tallies
from lamsik.core.moulds.heat import limits
from lamsik.core.moulds.touching import STUFFS, touch
from lamsik.documents.moulds.document import to_mould
from lamsik.store import documents, mixes, moulds, pours, stores
from lamsik.store.tables import MouldMade, now
from lamsik.web.moulds.shop import master_of
from lamsik.web.shared.db import db, load, load_document
from lamsik.web.shared.forms import whole
from lamsik.words.faults import FAULTS
from lamsik.words.tell import tell

blueprint = Blueprint("moulds_card", __name__, url_prefix="/moulds")


@blueprint.get("/<int:key>/card")
def show(key: int) -> ResponseReturnValue:
    """The card."""
    return _page(key)


def _page(key: int, problem: Refused | None = None, at: int = 0) -> ResponseReturnValue:
    row = load_document("mould", key)
    content = documents.content(db(), row)
    mould = to_mould(content, master_of(content["master"]))
    versions = moulds.versions(db(), key)
    numbers = {version.id: version.version for version in versions}
    shots = pours.of_moulds(db(), [version.id or 0 for version in versions])
    counted = [
        (numbers[shot.made_id], [casting["faults"] for casting in shot.castings])
        for shot in shots
        if shot.finished_at
    ]
    asked = request.args
    touched = None
    if asked.get("poured") and asked.get("against"):
        try:
            touched = touch(asked["poured"], asked["against"])
        except Refused as refused:
            problem = problem or refused
    return render_template(
        "moulds/card.html",
        row=row,
        mould=mould,
        versions=versions,
        shots=shots,
        numbers=numbers,
        tallies=tallies(counted),
        faults=FAULTS,
        problem=problem,
        at=at,
        states=moulds.STATES,
        use=moulds.master_use(db(), key, content["master"].get("demouldings")),
        stuffs=STUFFS,
        touched=touched,
        asked=asked,
        source=moulds.source_of(db(), content["master"]),
        products={p.name: r for r, p in mixes.products(db()).values()},
        silicones=_stuffs(),
        chosen=next(
            (p.name for r, p in mixes.products(db()).values() if r.code == content.get("mould_product")), ""
        ),
        lots=_lots(key),
        sent=request.form,
        currency=stores.setting(db(), "shop")["currency"],
    ), (422 if problem else 200)


def _stuffs() -> list[str]:
    """What a mould can be of: the shop's silicones and resins, and what the table of heat limits knows."""
    own = [
        product.name for _, product in mixes.products(db()).values() if product.kind in ("silicone", "resin")
    ]
    return own + [name for name in limits(stores.setting(db(), "heat")["limits"]) if name not in own]


def _lots(key: int) -> str:
    """Lots of the last batch mixed for this mould's own material."""
    batch_used = next(
        (
            batch
            for batch in mixes.batches(db(), 40)
            if batch.mould_id == key and batch.pour_id is None and batch.weighed
        ),
        None,
    )
    return mixes.lots_of(batch_used) if batch_used else ""


@blueprint.post("/<int:key>/made")
def make(key: int) -> ResponseReturnValue:
    """It was made: a new version with all its cavities alive; its first shot is a purge."""
    row = load_document("mould", key)
    content = documents.content(db(), row)
    use = moulds.master_use(db(), key, content["master"].get("demouldings"))
    try:
        require(
            not use.last or bool(request.form.get("copy_first")),
            "master",
            f"{use.done} demouldings",
            f"{tell(use.says)}; tick that a durable copy is cast, or that you go on all the same",
        )
    except Refused as refused:
        return _page(key, refused)
    mould_made = moulds.make(
        db(),
        row,
        request.form.get("material", "").strip()[:80],
        request.form.get("lot", "").strip()[:80],
        request.form.get("release", "").strip()[:80],
    )
    flash(f"Version {mould_made.version} is made. Its first shot is a purge and does not count.")
    return redirect(url_for("moulds_card.show", key=key))


@blueprint.post("/made/<int:version>/cavity")
def cavity(version: int) -> ResponseReturnValue:
    """A cavity is alive, to be trimmed, or dead, with the reason."""
    row = load(MouldMade, version)
    try:
        moulds.mark(
            db(),
            row,
            request.form.get("cavity", ""),
            request.form.get("state", ""),
            request.form.get("reason", ""),
        )
    except Refused as refused:
        db().rollback()
        return _page(row.mould_id, refused, version)
    return redirect(url_for("moulds_card.show", key=row.mould_id, _anchor=f"v{row.version}"))


@blueprint.post("/made/<int:version>/price")
def price(version: int) -> ResponseReturnValue:
    """What a mould cost, and how many shots are expected of it."""
    row = load(MouldMade, version)
    currency = str(stores.setting(db(), "shop")["currency"])
    cost = request.form.get("cost", "").strip().removesuffix(currency).strip()
    shots = request.form.get("shots", "").strip()
    try:
        moulds.price(
            db(),
            row,
            read(cost, currency).minor if cost else None,
            whole(shots, "shots expected", 1, moulds.MOST_SHOTS) if shots else None,
        )
    except Refused as refused:
        db().rollback()
        return _page(row.mould_id, refused, version)
    return redirect(url_for("moulds_card.show", key=row.mould_id, _anchor=f"v{row.version}"))


@blueprint.post("/made/<int:version>/<any(retire, take_back):way>")
def retire(version: int, way: str) -> ResponseReturnValue:
    """A mould is worn out, or comes back into use."""
    row = load(MouldMade, version)
    row.retired_at = now() if way == "retire" else None
    db().add(row)
    return redirect(url_for("moulds_card.show", key=row.mould_id, _anchor=f"v{row.version}"))

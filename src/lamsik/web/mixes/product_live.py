"""The product page's live exchange: edits in, what stands on the tin out."""

from flask import Blueprint

from lamsik.web.mixes.product_state import view
from lamsik.web.shared.live_document import exchanged

blueprint = Blueprint("mixes_product_live", __name__, url_prefix="/mixes/products")
current = exchanged(blueprint, "product", "mixes", lambda content, _: view(content))
"""The whole state of a saved product."""

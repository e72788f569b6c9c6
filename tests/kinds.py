"""Edits and files of documents of a kind, as tests ask for them."""

from functools import partial

from lamsik.documents import engine
from lamsik.documents.body.edits import BODY
from lamsik.documents.floats.edits import FLOAT, Shop
from lamsik.documents.moulds.edits import MOULD
from lamsik.documents.products.document import PRODUCT
from lamsik.formats import document_file

body_edit = partial(engine.apply, BODY)
mould_edit = partial(engine.apply, MOULD)
body_file, body_text = partial(document_file.read, BODY), partial(document_file.write, BODY)
float_file, float_text = partial(document_file.read, FLOAT), partial(document_file.write, FLOAT)
mould_file, mould_text = partial(document_file.read, MOULD), partial(document_file.write, MOULD)
product_file, product_text = partial(document_file.read, PRODUCT), partial(document_file.write, PRODUCT)


def float_edit(document, edit, waters, tables=None):
    return engine.apply(FLOAT, document, edit, Shop(waters, tables))

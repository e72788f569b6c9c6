"""The tables of a shop, by room. Masses in grams, lengths in millimetres, money in minor units, times UTC."""

from lamsik.store.tables.documents import Card, Document, Family, Revision, SkinMesh, Tracing
from lamsik.store.tables.mixes import Batch, Clock
from lamsik.store.tables.moulds import MouldMade, Pour
from lamsik.store.tables.orders import (
    CustodyItem,
    Customer,
    CustomerWord,
    Message,
    Order,
    OrderChange,
    OrderLine,
    Paper,
    Parcel,
    ParcelItem,
    Payment,
    Promise,
)
from lamsik.store.tables.paints import PaintPatch, PaintTool
from lamsik.store.tables.people import LogEntry, Person
from lamsik.store.tables.pieces import Piece, PieceStep, Route
from lamsik.store.tables.shared import Photo, SentForm, Setting, Typed, now
from lamsik.store.tables.stock import (
    Incident,
    Machine,
    Movement,
    PieceNeed,
    StandIn,
    StockItem,
    StockLot,
    Supplier,
)
from lamsik.store.tables.stores import Drill, Hardware, ShopWater, SlugStock
from lamsik.store.tables.weighing import Instrument, Observation, WeighedThing

__all__ = [
    "Batch",
    "Card",
    "Clock",
    "CustodyItem",
    "Customer",
    "CustomerWord",
    "Document",
    "Drill",
    "Family",
    "Hardware",
    "Incident",
    "Instrument",
    "LogEntry",
    "Message",
    "Machine",
    "MouldMade",
    "Movement",
    "Observation",
    "Order",
    "OrderChange",
    "OrderLine",
    "PaintPatch",
    "PaintTool",
    "Paper",
    "Parcel",
    "ParcelItem",
    "Payment",
    "Person",
    "Photo",
    "Piece",
    "PieceNeed",
    "PieceStep",
    "Pour",
    "Promise",
    "Revision",
    "Route",
    "SentForm",
    "Setting",
    "ShopWater",
    "SkinMesh",
    "SlugStock",
    "StandIn",
    "StockItem",
    "StockLot",
    "Supplier",
    "Tracing",
    "Typed",
    "WeighedThing",
    "now",
]

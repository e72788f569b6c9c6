"""Who orders in the invented shop, what is known of them, what of theirs is here."""

CUSTOMERS = (
    ("Ärla Brandt", "aerla@example.org"),
    ("Tove Ekmark", "by the ferry, Saturdays"),
    ("Jon Halloway", "jon@example.org"),
    ("三浦 かおり", "kaori@example.org"),
    ("Piet Vanderlo", "piet@example.org"),
    ("Siri Åkerøy", "siri@example.org"),
    ("Marek Dubný", "marek@example.org"),
    ("Lena Holt", "shop counter"),
    ("Ruaridh Fenn", "ruaridh@example.org"),
    ("Odile Marsac", "odile@example.org"),
)
KNOWN_OF = {
    "Ärla Brandt": {
        "mail": "aerla@example.org",
        "phone": "+00 555 0142",
        "address": "Ärla Brandt\nReed Lane 4\n0420 Landing",
        "sizes": "the small ones, hooks no. 4",
    },
    "Jon Halloway": {"mail": "jon@example.org", "speaks": "inches", "note": "writes late at night"},
    "Tove Ekmark": {
        "mail": "tove@example.org",
        "phone": "+00 555 0177",
        "address": "Tove Ekmark\nby the ferry\n0418 Tollgate",
    },
}
"""What is known of some of them beside how to reach them."""
LENT = (
    # whose, kind, what, condition, weight g, checked, by whom, place, bag
    (
        "Tove Ekmark",
        "bait",
        "her father's harbour lure",
        "varnish crazed, one eye gone",
        16.4,
        "genuine",
        "Maj, by the wire and the eyes",
        "shelf by the window, box 2",
        (("treble no. 4", 2, 0, ""), ("split ring, small", 2, 2, "")),
    ),
    ("Ärla Brandt", "reference bait", "smelt, the flank as it was", "", None, "", "", "shelf 1", ()),
)
"""Things of customers' that are here."""
DOUBLE = ("A. Brandt", "aerla@example.org")
"""One who is in the shop's list a second time."""
WROTE = (
    (
        "Ärla Brandt",
        "The two in smelt hang level and wobble at once. Could the next sink slower?",
    ),
    ("Tove Ekmark", "Lost one to a pike on Saturday, the other has teeth marks and runs as before."),
)

QUOTED = (
    "Tove Ekmark",
    # body, scheme, how many, clear coats of its own, price of one in cents
    ("Ferry runner 90", "Barred perch", 3, 4, 3400),
    ("Mudlark", "Roach at dusk", 4, None, 3000),
)
"""An order of several lines."""
READY_PRICE = 4200
"""What the bait that is ready costs, in cents."""
WAYS = (("At home", 490), ("Over the sea", 1450))
"""Where parcels go, and what that costs in cents."""

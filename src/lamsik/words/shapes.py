"""What is said of bodies: joints, grain, what is copied, forms to start from."""

from lamsik.core.shapes.joints import HINGE, LINKED, PIN

JOINTS = {
    LINKED: "linked eyelets: each segment pitches by itself",
    PIN: "upright pin: it swings sideways, pitch is shared",
    HINGE: "printed hinge: it swings sideways, pitch is shared",
}
"""By the kind of joint."""

GRAIN = (
    "Grain along the body, nose to tail; look for straight, even grain, and lay the growth rings upright so"
    " that the halves swell alike."
)
NO_GRAIN = "No grain: mark the nose end on the block."

POINTER = "Whether a copied shape may be sold is decided where you sell it: ask there."

FORMS = {
    "slim": "Long and easy; shoulders a third back, fine tail.",
    "stubby": "Short and fat with a tapered tail; carries a long lip.",
    "glider": "Tall flat flanks, no lip; swings from side to side.",
    "popper": "Blunt face that throws water, body narrowing to the tail.",
    "chugger": "Turned; a deep collar behind a flat face pushes bubbles, fat tail for casting.",
    "poppinghead": "Turned head for a feather tail: flat face, straight back to a short boss.",
    "divinghead": "Turned bullet head for a feather tail: goes under on the pull, swims up again.",
    "walker": "Cigar that stands tail-down and walks when twitched.",
    "deepflank": "High back and keeled belly of a small bream.",
    "tadpole": "All head, whip of a tail; sits nose-down over weed.",
    "stick": "Shouldered stick, thick at the tip and fine at the foot.",
    "antenna": "Pear body low on a stem, thin antenna above the water.",
}
"""What a form to start from is, by its key."""

INSERTS = {
    "screw": "screw eye",
    "wire": "through-wire",
    "tube": "tube or rattle",
    "slug": "metal slug",
    "plate": "lip in its slot",
    "stem": "stem of a float",
}
HOSTS = {
    "soft wood": "soft wood",
    "hard wood": "hard wood",
    "foam": "foam",
    "cast": "casting",
    "print": "print",
}
"""What goes in and what it goes into, in the table of clearances."""

OUTLINES = {"round": "rounded end", "square": "square end", "flared": "flared, narrow at its root"}
"""By the outline of a lip."""

"""What the core refuses, by the name of the rule; values are said as the quantity after their colon."""

REFUSALS: dict[str, str] = {
    "a-pack": "how much is in a pack: more than nothing",
    "a-use": "one use at least: over how many is it shared",
    "a-sum": "a sum, not below nothing",
    "something-left": "less than what a price brings: of this nothing is left",
    "a-zone": "the zone it goes to, as Overseas",
    "heaviest-rate": (
        "{most:~mass} at most to {zone}, and this weighs {mass:mass}: put a rate for more into the shop’s "
        "table, or send two parcels"
    ),
    "one-share": "percent or a sum, not both",
    "two-lengths": "two sizes of different lengths",
    "csv-two-units": "one unit for {column}: in the name of its column, or in a column called unit",
    "csv-number": "the number of an item of this shop, or empty for a new one",
    "csv-name": "a name for a new item",
    "csv-currency": "a currency beside the price, in a column called currency or as 4.80 EUR",
    "csv-pieces": "a number of pieces: this is counted, not weighed",
    "csv-amount": "nothing below 0, and less than ten million",
    "only-so-much": "only {left} are there by the books: count it if there is more",
    "used-since": "of what it brought only {left} are left: take back what came after it first",
    "counted-since": "it was counted on {on}: what came before that is in that count already",
    "not-mixed-yet": "weigh the parts and press Mixed on the weighing page",
    "weighed-already": "it is weighed for already, or further on",
    "what-was-taken-off": "what was taken off, as 3 trebles no. 4",
    "refit-first": "refit it, or say what took its place: {count} of the bag are not matched",
    "table-with-heads": "a table with schemes in its first row and a body at the head of each other",
    "address-lines": "an address of two lines at least: who, and where",
    "paper-needs-price": "a price on every line first",
    "paper-needs-accepted": "an order that is accepted: note their yes first",
    "paper-needs-paid": "a payment noted on the order first",
    "paper-needs-parcel": "a parcel: pack one first",
    "paper-needs-address": "an address of two lines at least on the customer's page",
    "a-subject": "a subject of one line",
    "places-are": "a place that can be filled: {listed}",
    "too-much-promised": "less than two years of work: look through what is promised",
    "there-is-one": "there is one of it",
    "one-price": "a price for each or for all of it, not both",
    "once-in-a-bag": "it is in the bag already: change its count",
    "mixed-already": "it is mixed already",
    "not-from-there": "as it stands now it cannot be said of it: {way}",
    "back-to-the-scale": "only one that is mixed and not poured goes back to the scale",
    "demould-what-is-set": "only what is poured and set is demoulded",
    "demould-first": "demould it first",
    "count-once": "only what is out of the mould is counted, and only once",
    "fails-before-counted": (
        "only what is poured and not counted fails: before that drop it, it is no shot of the mould"
    ),
    "poured-count-it": "it is poured already: count it, or tag it as failed",
    "drop-what-is-weighed": "only one that is weighed is dropped: what was used stays on the books",
    "fails-before-poured": "only one that is not poured fails: what was used stays on the books",
    "add-ballast": "add a ballast metal in Stores",
    "add-drill": "add a drill size in Stores",
    "allowed": "allowed is {low:~#length} to {high:~length}",
    "allowed-body": "allowed is {low:~#density} (the body's mean) to {value:~density}",
    "allowed-check": "allowed is {value:~#length} to {value2:~length}: check the unit or the scale",
    "allowed-mm": "allowed is 0.5 to 300 mm",
    "allowed-unit": "allowed is {least:~#length} to {most:~length}: is the unit right?",
    "amount-56": "a foam is lighter than its liquid, {liquid:density,2}",
    "axis-across": "an axis across the nose's",
    "bait-any": "no bait in any unit: see what else is in the file",
    "allowed-to-the-tail": "allowed is 0 to {length:~length}",
    "at-least-the-neck": "allowed is {low:~#length} to {high:~length}: at least the neck",
    "at-most-their-base": "allowed is {low:~#length} to {high:~length}: at most their base",
    "as-deep-as-the-key": (
        "allowed is {low:~#length} to {high:~length}: the hollow is at least as deep as the key is high"
    ),
    "within-the-master": "allowed is {low:~#length} to {high:~length}: within the master",
    "between-the-two": (
        "allowed is {low:~#density} to {high:~density}: between the filler's and the resin's"
    ),
    "foam-by-what-it-becomes": (
        "a foam is planned by what it becomes: give its cured density or how many times it expands (the"
        " tin, or a cup of your own, tells)"
    ),
    "balls-come": (
        "balls come whole: one {called} is {each:mass}, {n} are {value:mass}, {value2} are {value3:mass}"
    ),
    "balls-go": "balls go in a cavity; rods go in drilled holes",
    "behind-begins": "behind where it begins, {from_mm:~length}",
    "blank-held": "a blank is held under when {listed}, before anything is on it",
    "block-these": "a block of these measures holds {value:volume,1}: one of the figures is wrong",
    "body-time": "one body at a time: join them into one solid, or save each by itself",
    "box-lower": (
        "the box is lower than what lies in it: the master is {tall:length} high, and needs room over it"
    ),
    "box-smaller": (
        "the box is smaller than what lies in it: the master ends at {bare:length}, and "
        "{edge_mm:~length} of edge want {least:length,0}"
    ),
    "can-hurt": "a {kind} can hurt: say which caution stands beside it",
    "cannot-made": "it cannot be made a solid: move cavities and funnels apart",
    "cannot-quicker": (
        "more than {free:seconds,2}: it cannot be quicker than without any drag; check way, time and "
        "the weighed net"
    ),
    "carries-change": (
        "by {by} from {low:~#length} to {high:~length} it carries {value:#mass} to {value2:mass}: "
        "change another measure too"
    ),
    "cavities-block": "1 to {most_cavities} cavities in a block",
    "cavities-run": "cavities run into each other: move them apart",
    "cavity-alive": "no cavity is alive: trim one, or make a new mould",
    "cavity-holds": "the cavity holds {room:volume}",
    "cavity-holds-beside": "the cavity holds {room:volume} beside what lies in it",
    "cavity-holds-inserts": "the cavity holds {cavity_ml:volume}: one of the inserts is wrong",
    "characters": "one to 24 characters",
    "closed-body": "a closed body has at least 4",
    "colour-such": "a colour such as #4F7A36",
    "coordinate-number": "has a coordinate that is no number",
    "cuts-go": (
        "cuts go from nose to tail, stay inside the body and leave at least {value:~length} between "
        "them, top and bottom"
    ),
    "day-open": "no day is open for two years: set the shop's days in Stores",
    "denser-goes": "it must be denser than what goes over it, {light_g_cm3:~density}",
    "does-dive": "it does not dive at all: it stays at the surface as drawn",
    "dowel-wood": "one dowel and one wood at least",
    "each-key": "each key once",
    "each-mark": "each mark once",
    "each-part": "each part its own name",
    "each-parts": "one for each of {count} parts",
    "encloses-nothing": "it encloses nothing",
    "every-part": "every part needs more than 0",
    "every-part-needs": "every part needs more than 0: leave the part out if it is not mixed in",
    "expired-test": "expired: test a little first and give it a new date, or receive another tub",
    "faces-turned": (
        "faces are turned against each other, near ({spot}): let the program that made it turn all "
        "faces outward"
    ),
    "filler-another": "a filler of another density than the resin",
    "filler-volume": "{value:percent,0} filler by volume would be needed, and grains pack to 62 %",
    "finds-steady": (
        "it finds no steady attitude and blows out: a smaller lip, the tie further forward, or slower"
    ),
    "finite-capacities": "finite capacities are needed",
    "finite-numbers": "finite numbers are needed",
    "float-carries": "the float carries nothing to this mark",
    "float-needs": "a float needs a body before its size can be sought",
    "foam-cannot": (
        "this foam cannot be lighter than its free rise, {free_rise_g_cm3:density}: take a lighter "
        "foam, or warm it"
    ),
    "foam-cannot-lighter": "this foam cannot be lighter than its free rise, {value:density}",
    "foam-lighter": "the foam must be lighter than its liquid, {liquid_g_cm3:density,2}",
    "foam-lighter-liquid": "a foam is lighter than its liquid, {liquid_g_cm3:density,2}",
    "foot-leaves": (
        "at the foot it leaves {max:length} of wall: let the stem stand out {need:length} and begin the"
        " body there"
    ),
    "full-cure": "full cure cannot come before demoulding at {demould_h:~time}",
    "fullest-good": (
        "the fullest good tub holds {most:mass,1}, {value:mass,1} too little: mix less, or receive "
        "another tub"
    ),
    "further-aft": "further aft than {from_mm:~length}",
    "give-blade": "give the blade a name",
    "give-design": "give the design a name",
    "give-float": "give the float a name",
    "give-percentage": "give a percentage or drops",
    "gone-does": "more than 0 and at most {mass_g:~mass}: what is gone does not come back",
    "hang-trial": "hang a trial weight on the bait first",
    "heap-holds": "a heap holds air: it cannot be denser than its grains, {true_g_cm3:~density}",
    "hollow-cannot": "its hollow cannot be made out: a thicker wall, or fewer cuts through it",
    "inverse-25": "one of {length}, {diameter}, {loading}",
    "known": "known are {listed}",
    "layers-add": "layers must add up to 100 % within 1 %",
    "leaning-parting": "the leaning parting runs out of so low a box",
    "least-day": "at least one day of the week",
    "least-points": "at least 2 points are needed",
    "least-size": "at least one size, each name once",
    "least-slug": "at least the slug's {diameter_mm:~length}",
    "lengths": "1 to {most_lengths} lengths",
    "less-air": "less than in air, {air_g:~mass}: it displaces some water",
    "less-diameter": "less than the diameter, {diameter_mm:~length}",
    "less-half": "less than half the width, {value:~length}",
    "less-liquid": "less than the liquid itself takes: it did not rise",
    "less-part": "less than the part is long, {length_mm:~length}: nothing would be drilled",
    "less-whole": "less than the whole load, {line_g:mass}",
    "lifts-hull": "at most {value:length,0}: more lifts the hull clear of the water",
    "lighter-liquid": "it must be lighter than its liquid, {mixed:density,2}",
    "lip-tie": "there is no lip to tie on: fit one, or move the tie to the nose",
    "little-block": "so little for a block of {value:volume,1}: measure it again",
    "load-goes": "with this load it goes under",
    "loading-yet": "it has no loading yet: put one on",
    "loads": "1 to 12 loads",
    "mark-four": "mark the four corners in turn, clockwise from its top left",
    "mark-nose": "mark nose and tail apart",
    "mark-two": "mark two points on a ruler, or the corners of a sheet",
    "mark-two-points": "mark two points further apart: the longer, the better the scale",
    "master-reaches": "the master reaches out of the box there: move it in",
    "materials": "1 to {most_materials} materials",
    "mesh-body": "the mesh of this body is not in this shop: bring its STL in again",
    "mesh-file": "the mesh in the file is cut short",
    "ml": "more than 0 ml",
    "more-than": "more than 0 g",
    "name-belly": "name the belly or a part that is on the body",
    "name-each": "name each colour once",
    "name-mould": "name the mould",
    "name-part": "name the part as on the tin",
    "name-part-body": "name a part that is on the body",
    "name-product": "name the product",
    "name-size": "name the size",
    "name-table": "name the table",
    "name-water": "name one water at least",
    "narrower-strip": "narrower than the strip, {width_mm:~length}",
    "net-lift": "a net lift that was weighed, not 0",
    "nothing-sinker": "nothing or more: the sinker must hold it under; take a heavier one",
    "nothing-was": "nothing was weighed",
    "nothing-was-weighed": "nothing was weighed yet",
    "one-of": "one of {listed}",
    "only-foam": "only a foam rises",
    "only-tub": (
        "only {left_g:mass} are in the tub: stock cannot go below nothing; count it anew if there is more"
    ),
    "or": "{gelled} or {hot}",
    "outline-gap": "the outline has a gap along its length: close it into one line",
    "outlining-142": "3 to {most_points} points",
    "outside-inside": "outside or inside",
    "part-least": "one part at least has to be in the water",
    "parts": "1 to 16 parts",
    "parts-mix": "its parts mix to {mixed:density,2}: one of the densities is wrong",
    "pipe-inside": "pipe inside the foam's bore, bore inside the pipe",
    "points": "2 to 40 points",
    "pull-plan": "pull the plan apart: it needs at least {value:length} of width",
    "pull-profile": "pull the profile apart: it needs at least {value:length} of depth",
    "pulled-further": (
        "pulled further down it carries more: {called} gives {carried:mass}, {value} gave {value2:mass}"
    ),
    "put-line": "put a line tie on: there is nothing to tow it by",
    "put-plain": "put it on a plain ground of another colour, in even light",
    "radii-shares": "radii are shares from 0 to 1",
    "rounded-layers": (
        "rounded layers would add up to {summed:mass} of {total_g:mass}: use a finer scale or fewer layers"
    ),
    "say-filled": "say what is to be filled",
    "say-filler": "say with which filler: unfilled it has its own density",
    "say-mark": "say to which mark: shoulder, ring, tip",
    "say-water": "say in which water",
    "say-whether": "say whether it is {on_the_line} or {total}, its own loading included",
    "say-whether-mass": "say whether it is by mass or by volume: it stands on the tin",
    "say-whether-ratio": "say whether the ratio is by mass or by volume: it stands on the tin",
    "segments": "segments are {listed}",
    "share-every": "a share for every colour, or for none: pearl 70 %, black 30 %",
    "shares-add": "the shares must add up to 100 %",
    "shares-rise": "shares rise from 0 to 1",
    "shares-rise-nose": "shares rise from 0 (nose) to 1 (tail)",
    "shorter-time": "a shorter time: no body drags that much; check the weighed net",
    "shot-takes": ("one shot takes {value:mass,1} and about {jug_left_g:mass,0} stay in the jug: heat more"),
    "shots-plan": "that is {need} shots: plan at most {most_shots} at once",
    "sinker-own": "at most the sinker's own {sinker_g:~mass}: a float pulls up",
    "sinks-itself": "it sinks by itself: less loading or a larger body",
    "smaller-body": (
        "smaller: a {diameter_mm:~length} body keeps {wall_mm:~length} of wall round it nowhere"
    ),
    "sources-150": "at most {most_note} characters",
    "surface-broken": "its surface is broken{place}: mend it where it was made",
    "surface-crosses": "its surface crosses itself or is not closed, so it cannot be cut",
    "surfaces-meet": "surfaces meet inside it, near ({spot}): join the bodies into one solid",
    "thinner-else": "thinner than {most:length}, else it is solid",
    "those-left": "those left yield next to nothing: trim one, or make a new mould",
    "three-parts": "one to three parts",
    "more-than-went-on": (
        "no more than what left the cup can leave when it dries: weigh the pieces before and after, dry"
    ),
    "tick-first": "tick first: {says}",
    "too-much": ("too much for {most_shot} shot of {called}: take a table with larger sizes, or a bulk lead"),
    "too-small": "that is too small for a body: is the scale right?",
    "top-stay": "the top must stay above the bottom",
    "triangle-names": "a triangle names a corner that is not there",
    "triangles-thin": "at most {most_faces} triangles: thin it out where it was made",
    "tub-stores": "there is no tub of it in Stores: receive one first",
    "two-colours": "two colours at least",
    "two-different": "two different lengths at least",
    "two-different-allowances": "two different allowances for one cap: measure one cap and keep that",
    "two-sizes": "two sizes at least",
    "unit-known": "the unit '{unit}' is not one of {known}",
    "type-amount": "type an amount such as 48 or 48.50",
    "type-tin": "type it as on the tin, such as 100:45 by mass or 1:1 by volume",
    "type-example": "{quantity:example}",
    "unit-missing": "the unit is missing: {quantity:example}",
    "values-needed": "{count} values are needed, one for each share",
    "watertight-hole": "it is not watertight: there is a hole near ({spot}); close it where it was made",
    "weigh-air": (
        "weigh it in air first: the other water multiplies what it displaces, not its lift, and without"
        " its own mass that is not known"
    ),
    "weigh-down": "weigh it down to one mark at least",
    "weigh-float": ("weigh the float in air first: without its own mass it cannot be taken to another water"),
    "whole-outline": "the whole outline has to be in the picture, with some ground round it",
    "widths": "widths are 0 or more",
    "work-end": "work must end after it begins, on the same day",
    "working-day": "a working day has {value:time}: split the work",
    "would-less": (
        "{called} would be {exact:mass,3}, less than the scale's step of {step_g:~mass} shows: mix more"
    ),
}

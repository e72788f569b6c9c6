"""What is said of how a body floats, hangs and swims, and of its ballast."""

SAYS: dict[str, str] = {
    "a-cavity": "a cavity",
    "a-hanger": "a hanger",
    "a-joint": "a joint",
    "a-poured-end": "a poured end",
    "any-would-do": "any of these would do: {ways}",
    "as-wanted": "That is what you want of it.",
    "as-weighed-heavy": (
        "As weighed it is {over:mass} heavier than wanted: thinner clear, a smaller hook, or drill metal out."
    ),
    "as-weighed-lifts": (
        "As weighed it lifts {over:mass} more than wanted: add {over:mass} under water, wire on the "
        "hook shank or a heavier ring."
    ),
    "as-weighed-right": "As weighed it is right on the wanted behaviour.",
    "ball-more": "A ball more: {balls}",
    "ball-of": "{slug}",
    "ballast-answer": "{rows:*; }",
    "ballast-further-aft": "Ballast {aft:~length} further aft",
    "balls-alone": "{balls:counted,ball}",
    "balls-of": "{balls} × {slug}",
    "binds": "{what:^} binds: {by}. No single change that was tried frees it.",
    "binds-but": "{what:^} binds: {by}. {frees:^}.",
    "blank-as-assumed": "Blank as heavy as {material} at {density:density,2}",
    "blank-heavier": "Blank {off:mass,1} heavier than {material} at {density:density,2}",
    "blank-lighter": "Blank {off:mass,1} lighter than {material} at {density:density,2}",
    "blank-too-heavy": (
        "{cause}: it is {over:mass,1} too heavy for the wanted behaviour even without ballast. Smaller "
        "hooks or a thinner clear coat."
    ),
    "carry-metal-higher": (
        "It rolls back at {rolls:frequency}, and you want it {want}: carry the metal higher."
    ),
    "carry-metal-lower": "It rolls back at {rolls:frequency}, and you want it {want}: carry the metal lower.",
    "chamber-makes-lighter": "takes out {gain:mass} more than its balls weigh: it makes the bait lighter",
    "closed-chamber": (
        "{count} × {balls} in a closed chamber {bore:length} wide and {long:length} long, its middle "
        "{x:length} from the nose and {up:length} over the belly"
    ),
    "costs-inside": (
        "Inside it pushes nothing more aside, but its hole costs {wood:mass} of the body and takes "
        "{filler:mass} of filler: so {mass:mass} of metal."
    ),
    "denser-metal-would-do": "denser metal would do: tungsten instead of what is at hand",
    "differs-from-weighed-parts": (
        "{stage}: the scale differs by {delta:mass,,+} from parts that are all weighed; weigh again"
    ),
    "foam-of": "foam of {density:density,2}",
    "fresh-water-instead": "Fresh water instead",
    "front-poured": (
        "front {long:length} poured in {name} ({density:~density}): {volume:volume}, {mass:mass,1}"
    ),
    "glue-on-design": "the glue on the design",
    "grams-alone": "{grams:mass,1}",
    "grams-at-place": "{grams} {place}",
    "grams-instead": "{now:mass,1} instead of {was:mass,1}",
    "grams-of": "{grams:mass,1} {slug}",
    "hanging-under-water": "{tilt} hanging under water",
    "heavier-stick": "A heavier stick of {name} (+ {spread:density})",
    "heavier-than-solid-print": "heavier than a solid print: more ballast metal instead",
    "hole-breaks-out": "breaks out of the body",
    "hole-by-itself": "{metal} in a {drill:~length} hole at {x:length}, {deep:length} deep",
    "hole-makes-lighter": "takes out {gain:mass} more than it puts in: it makes the bait lighter",
    "hole-of-mass": "{amount} at {x:length}, {deep:length} deep",
    "hole-takes-more-than-it-gives": (
        "{total:mass} of {metal} would need a hole that takes out more than it puts in: denser metal, "
        "or a slug let in from outside."
    ),
    "holes-and": "{each:* and }",
    "holes-of-drill": "{number} holes of {drill:~length}, {slug}: {each:* and }",
    "hooks-on-it": "the hooks on it",
    "hooks-size-down": "Every hook one size down",
    "hooks-size-up": "Every hook one size up",
    "instead-put-in": "{wrong} Instead of what is in: {answer}.",
    "it-is": "It is {parts:* and }.",
    "larger-body": "a body {larger:percent,0} larger",
    "lead-at-the-bait": "A {lead:~mass} lead at the bait",
    "leaves-to": "leaves only {gap:length} to {what}",
    "lighter-body-would-do": "a lighter body would do: {density:density,2} instead of {now:#density,2}",
    "lighter-foam": "foam of at most {density:density,2}",
    "lighter-hooks": "hooks {over:mass,1} lighter in water (they pull {hooks:mass,1} now)",
    "lighter-wood": "lighter wood of at most {density:density,2}",
    "like-holes": (
        "{number} holes, each {metal} in a {drill:~length} hole, {deep:length} deep, {places} from the nose"
    ),
    "line-thicker": "Line a quarter thicker",
    "lip-between": "between deep and shallow",
    "lip-dives-deep": "lies along the axis: dives deep",
    "lip-flatter": "Lip 5° closer to the axis",
    "lip-narrower": "Lip {narrower:~length} narrower",
    "lip-shorter": "Lip {shorter:~length} shorter",
    "lip-stays-shallow": "stands across: stays shallow",
    "lip-steeper": "Lip 5° further across",
    "make-it": "Make it {rows:*; }.",
    "measure-water": "put a thermometer in the water",
    "microspheres": "{mass_share:percent} microspheres by mass ({volume_share:percent,0} by volume)",
    "microspheres-stiff": (
        "{mass_share:percent} microspheres by mass ({volume_share:percent,0} by volume); hard to pour, "
        "above some 42 % the mix no longer runs into thin parts"
    ),
    "more-ballast": "{more:mass,0} more ballast",
    "more-line-out": "{more:~distance} more line out",
    "more-than-plain-resin": (
        "{density:density,2} is more than plain resin: metal powder in the mix, or less ballast"
    ),
    "moved-aside-would-do": "the {part} at {x:length,0} is in the way: moved aside it would do",
    "nearest-ballast-off": "the nearest is {net:mass,,+} and {pitch:angle,,+} off",
    "no-density-so-heavy": (
        "no density makes it as heavy as the original: more ballast metal in the original's place"
    ),
    "no-density-so-light": (
        "no density makes it as heavy as the original: lighter hooks or less ballast metal in the "
        "original's place"
    ),
    "no-hole-there": (
        "{total:mass,1} would have to sit {x:length,0} from the nose, and no hole there leaves "
        "{wall:~length} of wall or keeps clear of the hangers: smaller drills or denser metal."
    ),
    "no-mix-so-light": (
        "no resin mix is so light: {volume_share:percent,0} microspheres by volume would be needed, and "
        "spheres pack to 62 %"
    ),
    "no-place-ahead-of-nose": (
        "No place inside does it: {total:mass,1} would have to sit {ahead:length,0} ahead of the nose. "
        "Leave the weight outside, or share it over two places."
    ),
    "no-place-behind-tail": (
        "No place inside does it: {total:mass,1} would have to sit {x:length,0} from the nose on a body "
        "of {length:length,0}. Leave the weight outside, or share it over two places."
    ),
    "no-slug-anywhere": "no slug at hand fits anywhere",
    "no-slug-fits": (
        "{ballast:mass} of ballast is wanted, but no slug at hand fits with {wall:~length} of wall "
        "left: smaller drills, denser metal or a thinner wall."
    ),
    "nothing-in-stores": "{wrong} There is no ballast metal or no drill in Stores to put it right with.",
    "nothing-weighed-yet": "Nothing is weighed yet: the first weighing of the {blank} tells the most.",
    "number-of-holes": "{number} holes: {each:* and }",
    "one-after-another": "{rows:* }",
    "one-hole": "{metal} in a {drill:~length} hole, {deep:length} deep, {places} from the nose",
    "one-more-clear": "One more clear coat",
    "overlaps-pour": "overlaps another pour",
    "pair-of-holes": (
        "a pair of {drill:~length} holes at {x:length}, {beside:length} to each side, {deep:length} "
        "deep, each {metal}"
    ),
    "place-alone": "{x:#length}",
    "place-instead": "at {now:length} instead of {was:length}",
    "place-with-unit": "{x:length}",
    "planned-still-fits": "{cause}: the planned {was:mass,1} of ballast still fits.",
    "pushed-aside-outside": (
        "Outside, the {air:mass} pull with {pull:mass} in water: the metal pushes {outside:mass} of "
        "water aside itself."
    ),
    "put-in": "{wrong} Put in: {answer}.",
    "rear-poured": "rear {long:length} poured in {name} ({density:~density}): {volume:volume}, {mass:mass,1}",
    "rod-tip-low": "Rod tip at the water",
    "rolls-back-livelier": (
        "B lies {bg:length} over G then, {now:length} with the weights outside: it will roll back livelier."
    ),
    "rolls-back-steadier": (
        "B lies {bg:length} over G then, {now:length} with the weights outside: it will roll back steadier."
    ),
    "runs-into": "runs into {what}",
    "runs-into-cavity": "runs into another cavity",
    "runs-into-hole": "runs into another hole",
    "runs-into-wire": "runs into the through-wire",
    "schemes-clear": "the scheme's clear",
    "schemes-coats": "the scheme's coats",
    "screw-eyes-would-do": "the through-wire stops the drill: screw eyes instead of it would do",
    "sea-water-instead": "Sea water instead",
    "sinks-pierced": "With its skin pierced it would sink: solid wood or closed foam would not.",
    "slug-at": "{mass:mass,1} {x:length} from the nose, {drill:~length} drill, {deep:length} deep",
    "stick-of": "a stick of {density:density,2}",
    "the-grams": "the {now:mass,1}",
    "the-lip-slot": "the lip slot",
    "the-original": "the original itself",
    "the-place": "at {now:length}",
    "thicker-rod-would-do": "a thicker rod would do: lead of {wider:~length} in a {wider:~length} drill",
    "thinner-wall-would-do": "a wall of {wall:~length} instead of {now:~length} would do",
    "tie-on-the-lip": "Tie on the lip, {out:~length} out",
    "time-in-the-tub": "time a rise or sink in the tub",
    "too-heavy": "{off:mass} too heavy for what you want",
    "too-heavy-bare": "Even without ballast it is {over:mass} too heavy for this. {lighter:^}.",
    "too-heavy-without-ballast": "even without ballast it is {over:mass} too heavy",
    "too-light": "{off:mass} too light for what you want",
    "too-light-but": "Too light to sink with {light:* or }: {sinks} sinks it.",
    "too-light-with-any": (
        "Too light to sink with any metal: even {metal} leaves it {net:mass,1} of lift. Before "
        "printing, make the chamber larger or the body smaller."
    ),
    "too-nose-down": "{tilt:angle,0} too far nose down",
    "too-nose-up": "{tilt:angle,0} too far nose up",
    "towed-faster": "Half as fast again",
    "trial-adds-nothing": "They add no weight in water; there is nothing to put inside.",
    "trial-turns-it-over": "With these on it hangs belly up: no ballast inside is wanted that does the same.",
    "trial-weighs-nothing": "The trial weights weigh nothing yet: type what each weighs.",
    "two-balls-more": "Two balls more: {balls}",
    "use-one-slug": (
        "{cause}: use a {now:mass,1} slug instead of {was:mass,1} ({drill:~length} drill, {deep:length} "
        "deep, {x:length} from the nose)."
    ),
    "use-slugs": "{cause}: use {count} slugs of {now:mass,1} in all instead of {was:mass,1} ({places:*; }).",
    "wall-left": "leaves only {wall:length} of wall",
    "walls-and-infill": "walls and infill at {part:percent,0} of solid",
    "water-warmer": "Water {warmer:warming} warmer",
    "weigh-allowed": "weigh what is only allowed for",
    "weigh-blank": "weigh the {blank}",
    "weigh-coats": "weigh before and after the coats",
    "weigh-fittings": "weigh lip, tie and hangers",
    "weigh-glue": "weigh before and after gluing",
    "weigh-hooks": "weigh the hooks and rings",
    "weigh-in-air-and-water": "weigh the {sealed} in air and held under water",
    "weigh-segments": "weigh each segment's blank",
    "weigh-slugs": "weigh each slug and mark its place",
    "weighs-less-than-before": (
        "{stage}: the piece weighs less than what was on it before; check the scale's zero"
    ),
    "what-lies-inside": "what lies inside",
}
"""By the name of the finding."""

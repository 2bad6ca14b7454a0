"""Limits of suspensions: geometry, springs, links."""

from nodulant.parts.limit import Limit, at_least, at_most, noted

TRAVEL_LIMITS: tuple[Limit, ...] = (
    at_least(
        "travel-reached", "Linkage reaches its travel", 1.0, "of wanted", "the owner's travel; a locked link ends it"
    ),
    at_most("bind", "Links bind in 3 degrees of roll", 0.5, "mm", "Nodulant default: what bushes take without harm"),
    at_least("anti-squat-least", "Anti-squat, least", 50.0, "%", "common practice: street 50 to 100 %"),
    at_most("anti-squat-most", "Anti-squat, most", 100.0, "%", "common practice: street 50 to 100 %"),
    noted(
        at_least(
            "link-separation", "Upper to lower link at the axle", 0.25, "of tyre diameter", "common practice: a quarter"
        ),
        "a rule of thumb for how a linkage feels under power: its forces are judged for themselves",
    ),
    noted(
        at_most("separation-front", "Link separation at the frame", 1.0, "x at the axle", "common practice: no more"),
        "a rule of thumb: anti-squat and forces are judged for themselves",
    ),
    at_least("convergence", "Upper links converge, each", 20.0, "deg", "common practice: 40 degrees in all"),
    at_most("joint-swing", "Joint's tilt", 1.0, "of its limit", "the joint's own limit, through bump, droop and roll"),
    at_least(
        "belly", "Lower links above the belly line", 0.0, "mm", "common practice: no lower than the axle tube", 5.0
    ),
    at_most("link-buckling", "Link pressed", 1.0, "of allowed", "Euler or Johnson over 2: Shigley, from memory"),
    at_most("link-pull", "Link pulled or pressed", 1.0, "of yield/1.5", "allowable stress design"),
    at_most("link-joint", "Link's joint", 1.0, "of its rating", "its maker's rating"),
    at_least("damper-closed", "Damper's stroke left in full bump", 6.0, "mm", "common practice: a quarter inch"),
    at_least("damper-open", "Damper's stroke left in full droop", 6.0, "mm", "common practice: a quarter inch"),
    at_least("coil-block", "Coil's stroke left in full bump", 6.0, "mm", "common practice: a quarter inch"),
    at_least("coil-seated", "Coil squeezed in full droop", 0.0, "mm", "a loose coil leaves its seat", 5.0),
    noted(
        at_least("ride-used", "Damper's stroke used at ride height", 35.0, "%", "common practice: about 40 to 50 %"),
        "taste: how much of the stroke is left for bump and droop is judged at both ends",
    ),
    noted(
        at_most("ride-used-most", "Damper's stroke used at ride height, most", 55.0, "%", "common practice"),
        "taste: how much of the stroke is left for bump and droop is judged at both ends",
    ),
    noted(
        at_least("frequency-least", "Ride frequency, least", 1.0, "Hz", "comfortable 1.0 to 1.2 Hz, from memory"),
        "comfort",
    ),
    noted(at_most("frequency-most", "Ride frequency, most", 2.0, "Hz", "sporty to 1.7 Hz, from memory"), "comfort"),
    at_most("spring-lean", "Spring's lean at ride height", 30.0, "deg", "Nodulant default: beyond it rate falls fast"),
    at_least("air-pressure-least", "Air spring's pressure at ride height", 40.0, "% of most", "common practice"),
    at_most("air-pressure-most", "Air spring's pressure at ride height, most", 80.0, "% of most", "common practice"),
    at_least("air-least", "Air spring above its least height", 0.0, "mm", "its maker's least height", 5.0),
    at_least("air-most", "Air spring below its most height", 0.0, "mm", "its maker's most height", 5.0),
    at_most("air-tilt", "Air spring's tilt at ride height", 10.0, "deg", "makers' common limit, from memory"),
    at_most("air-offset", "Air spring's offset at ride height", 12.0, "mm", "makers' common limit, from memory"),
    at_least("stop-there", "A bump stop ends the travel", 1.0, "yes", "common practice: a stop before metal"),
    at_most(
        "key-carried",
        "Torsion bar's key stands at a crossmember",
        60.0,
        "mm",
        "Nodulant default: half of a wide crossmember; the key's torque needs it",
    ),
    at_most("stop-square", "Bump stop met out of its axis", 15.0, "deg", "Nodulant default: rubber pushed aside tears"),
    at_most(
        "stop-aside", "Bump stop met beside its middle", 10.0, "mm", "Nodulant default: about a quarter of its width"
    ),
    at_most("stop-first", "Bump stop strikes before full bump", 1.0, "x bump", "the stop comes first"),
    at_least("bump-order", "Bump stop before metal", 0.0, "mm", "common practice: the stop comes first", 5.0),
    at_least("droop-order", "Limit strap before anything else", 0.0, "mm", "common practice: the strap ends it", 5.0),
    at_most("leaf-load", "Leaves left carry", 1.0, "of rated", "n/(n - k) of the stress: equal leaves"),
    at_most("joint-angle", "Shaft joint at ride height", 3.0, "deg", "common practice: 3 degrees at highway speed"),
    at_most("joint-binds", "Shaft joint through travel", 1.0, "of its limit", "the joint's own limit"),
    at_most("joints-cancel", "Shaft's unevenness left", 2.0, "deg", "as one joint at this angle; Nodulant default"),
    at_least("slip-engaged", "Splines engaged in full droop", 25.0, "mm", "common practice"),
    at_least("slip-room", "Splines left in full bump", 20.0, "mm", "common practice"),
    at_most(
        "critical-speed", "Shaft's speed", 0.7, "of critical", "common practice: seven tenths of the first critical"
    ),
    at_least("shaft-clearance", "Shaft's tube clears", 0.0, "mm", "the clearance that was asked for", 5.0),
    at_most("arch-middle", "Wheel off the middle of its arch", 10.0, "mm", "Nodulant default: what an eye sees"),
    at_least(
        "hose-slack", "Hose to spare at its longest", 20.0, "mm", "Nodulant default: no tension at droop and lock"
    ),
    at_least("link-room", "Room beside the rail", 12.7, "mm", "common practice: half an inch all round"),
    at_most("half-shaft-angle", "Half shaft's joints", 1.0, "of their limit", "the joint's own limit"),
    at_most("half-shaft-plunge", "Half shaft's plunge", 1.0, "of allowed", "the joints' own slide"),
)

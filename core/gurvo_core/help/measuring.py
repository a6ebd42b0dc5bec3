"""Timing, bolts, clearances and valves: what is read, pulled and judged."""

__all__ = ["TOPICS"]

from gurvo_core.ledger import Topic

TOPICS = (
    Topic(
        id="wheel_setup",
        title="Degree wheel and pointer",
        drawing="wheel",
        meant="Which wheel and which dial are on, so that what they show can be corrected for what they are.",
        by_hand=[
            "Wheel tight on the crank, pointer of stiff wire close to it and fixed to the block.",
            "Where it is zeroed does not matter: true TDC is found afterwards.",
        ],
        goes_wrong=["A wheel that slips, or a pointer that is brushed, and every later reading is off by as much."],
    ),
    Topic(
        id="wheel_check",
        title="Did the wheel move?",
        drawing="wheel",
        meant="Before the last readings are believed, the pointer is looked at where it stood.",
        by_hand=["Come to the same place the same way, and read again."],
        goes_wrong=["A degree that went unnoticed is a degree on every cam."],
    ),
    Topic(
        id="tdc_reading",
        title="One side of the top",
        drawing="stop",
        meant="What the pointer shows where the piston touches, or where the dial shows the same drop, on each side.",
        by_hand=["Always come the same way to it; touch, read, go away, come again."],
        goes_wrong=["One side is read while pressing, the other while just touching; slack of the bearings is in one of them."],
    ),
    Topic(
        id="lift_reading",
        title="Where a valve passes a lift",
        drawing="lobe",
        meant="Crank angle at which the valve is off its seat by the checking lift, opening or closing.",
        by_hand=[
            "Dial zeroed on the base circle, plunger in line with the follower. Come up to the lift the way the engine runs.",
            "If you went past, go back by more than the slack, and come again.",
        ],
        goes_wrong=["Read after turning back, chain or belt lies on its other side, and it is a degree or two off."],
        caution="Dial and hand clear before the crank is turned.",
    ),
    Topic(
        id="joint_ready",
        title="Before the first pull",
        drawing="order",
        meant="Threads, faces and bolts are as the figure supposes: dry, oiled, or with what the book names.",
        by_hand=["Clean holes to the bottom, bolts by hand first, all of them, then choose wrench and angle gauge."],
        goes_wrong=["Oil at the bottom of a blind hole cracks the block; a dry bolt reaches its torque and not its tension."],
    ),
    Topic(
        id="pull",
        title="One bolt, one stage",
        drawing="angle",
        meant="The bolts in their order, one after the other, each stage for all before the next begins.",
        by_hand=[
            "Smoothly and in one go; stop at the click, or read while it still turns.",
            "For an angle: mark socket and head with paint, or set the gauge to zero, and go on without letting back.",
        ],
        goes_wrong=["One that comes up much sooner or later than its siblings: dirt, a stripped thread, or one too many times used."],
        caution="If a bolt turns on and on without getting tighter, stop: it is about to break.",
    ),
    Topic(
        id="fits_ready",
        title="Gauges and temperature",
        drawing="bore",
        meant="With which gauges a clearance is measured, and whether part and gauge are equally warm.",
        by_hand=["Let both lie side by side for an hour. Zero the bore gauge in the micrometer that measured the journal."],
        goes_wrong=["A part from the washer is a hundredth larger than it will be."],
    ),
    Topic(
        id="fit_reading",
        title="A clearance, place by place",
        drawing="bore",
        meant="Bore less journal, or a gap; at several spots, since nothing is round.",
        by_hand=["Square to the axis, smallest for a bore, largest for a journal; where asked, twice, to see how well you repeat."],
        goes_wrong=["Bearing shells are measured at their parting line; caps are not torqued; dust lies under a shell."],
    ),
    Topic(
        id="fit_chosen",
        title="Which size goes where",
        drawing="bore",
        meant="Of the sizes there are, the one that brings each place nearest to the middle of its limits.",
        by_hand=["Take what is proposed, or choose another where you know more; the stock follows."],
        goes_wrong=["The colour on the old shell is ordered again, though the journal was ground."],
    ),
    Topic(
        id="lash_ready",
        title="Before the valves are set",
        drawing="gap",
        meant="Cold or warm as the figure supposes, followers free, cams in time.",
        by_hand=["Turn two rounds first, so that everything lies where it runs."],
        goes_wrong=["Oil between shim and bucket is measured with it."],
    ),
    Topic(
        id="lash_reading",
        title="The gap of one valve",
        drawing="gap",
        meant="The thickest blade that goes through, with a light drag.",
        by_hand=["One blade that goes and the next that does not; that is more than one that seems right."],
        goes_wrong=["A worn rocker has a hollow: the blade bridges it, and the true gap is larger."],
    ),
    Topic(
        id="lash_shims",
        title="Which shim goes where",
        drawing="shim",
        meant="Shims change places among valves before a new one is taken from stock.",
        by_hand=["Measure what is in, believe no printed figure, and put in what the list says."],
        goes_wrong=["Thicker shim, smaller gap: done the other way round, it is twice as wrong."],
    ),
)

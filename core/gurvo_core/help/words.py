"""Words of the trade, as whoever stands at the bench meets them in questions and hints."""

__all__ = ["WORDS"]

from gurvo_core.help.topic import Word


def _word(word: str, means: str, *forms: str) -> Word:
    return Word(word=word, means=means, forms=list(forms))


WORDS = (
    _word(
        "TDC", "Top dead centre: the piston at its highest. Once a turn; the firing one every second turn.", "true TDC", "top dead centre"
    ),
    _word("BDC", "Bottom dead centre: the piston at its lowest.", "bottom dead centre"),
    _word("degree wheel", "A disc with degrees that turns with the crank, read at a fixed pointer.", "wheel degrees"),
    _word("pointer error", "What the pointer shows when the piston truly is at its top; corrected in every reading."),
    _word("positive stop", "Something solid that stops the piston a little short of its top, on either side.", "piston stop"),
    _word("base circle", "The round part of a cam: there it does not lift, and the gap is at its largest."),
    _word("nose", "The highest part of a cam."),
    _word("lobe", "One cam of a camshaft, for one valve or one pair.", "lobes"),
    _word("follower", "What rides on the cam: bucket, rocker or finger.", "followers"),
    _word("centreline", "The middle between two equal lifts of a cam: where its nose would be if it were even on both sides."),
    _word("checking lift", "The small lift at which opening and closing are read, since the first movement cannot be told."),
    _word("card", "The maker's or grinder's paper of a cam: when each valve opens and closes, at which lift."),
    _word("overlap", "Exhaust and intake open together, around the top at the end of the exhaust stroke."),
    _word("advanced", "Its events come earlier than the card has them.", "advance"),
    _word("retarded", "Its events come later than the card has them.", "retard"),
    _word("phaser", "Turns a cam against its sprocket by oil pressure, between two stops.", "phasers"),
    _word("tight side", "The side of belt or chain that the driving wheel pulls; no slack may stay there."),
    _word("slack", "What belt or chain has too much; all of it belongs on the tensioner's side."),
    _word("tensioner", "Takes up the slack of belt or chain, by oil, spring or setting.", "tensioners"),
    _word("idler", "A wheel that only leads belt or chain.", "idlers"),
    _word(
        "coloured link",
        "A link made to lie on a mark when the chain is laid; it meets that mark again after many turns only.",
        "coloured links",
    ),
    _word("decides", "Said of a mark: where it must stand, and no other place will do."),
    _word("guides", "Said of a mark: it comes out near its place, and that is enough."),
    _word("witness marks", "Paint or scratches of your own across two parts, before they come apart.", "own mark"),
    _word("running direction", "The way the engine turns when it runs; turning by hand goes that way unless it is said otherwise."),
    _word("hard stop", "The crank meets something and stands still, unlike the spring of compression."),
    _word("stretch bolt", "Tightened into its yield, so used once only.", "stretch bolts", "one-time bolt"),
    _word("snug", "All parts lie on, and the bolt begins to stretch."),
    _word("stage", "What is done to all bolts of a joint before the next thing: a torque, an angle, a loosening.", "stages"),
    _word("siblings", "The other bolts of the same joint at the same stage."),
    _word("journal", "The round part of a shaft that runs in a bearing.", "journals"),
    _word("end float", "How far a shaft moves along its axis.", "end play"),
    _word("out of round", "How much a bore or journal differs across its diameters."),
    _word("taper", "How much a bore or journal differs along its length."),
    _word("crush", "How far bearing shells stand above their seat, so that the cap presses them in."),
    _word("ring gap", "The gap between a ring's ends when it stands square in its bore."),
    _word("plastic strip", "A soft thread that is squeezed in a bearing; its width tells the clearance.", "plastic strips"),
    _word("U", "Uncertainty: the true figure lies this near to the one that was read, 95 times of 100."),
    _word("cannot be told", "So near a limit that these gauges cannot say on which side it is."),
    _word("concession", "Accepted by the lead though it is out or cannot be told, with his reason."),
    _word("lash", "The gap between cam and follower, or rocker and valve.", "valve clearance"),
    _word("shim", "A disc of a known thickness that sets a valve's gap.", "shims"),
    _word("loose end", "Something temporary that is still in the engine, or something left undone on purpose.", "loose ends"),
    _word("strike", "To say of an entry that it was wrong, and why; it stays to be read."),
    _word("tape", "Everything that was recorded of this engine, newest first."),
    _word("hold point", "A place in the work where somebody else looks before it goes on.", "hold points"),
    _word("clearway", "Where shafts may stand without a valve meeting a piston or another valve."),
    _word("snap", "A cam under its springs turns by itself, suddenly.", "snaps"),
    _word("backlash", "How far a gear moves before its neighbour does."),
    _word("sealant", "What seals a joint without a gasket; from the tube on it has so many minutes.", "bead"),
    _word("long block", "An engine complete with head and drive, without what is bolted round it."),
    _word("dummy", "A rigid piece in place of the tensioner, while bolts are tightened."),
    _word("torque", "How hard a bolt is turned, in newton metres."),
    _word("dial", "A dial indicator: shows how far its plunger has moved, in hundredths.", "dial indicator"),
    _word("feeler", "A blade of a known thickness.", "feelers"),
)

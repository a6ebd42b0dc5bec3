"""From the side, in section: crank, mains and their caps by number, rods, pistons at their heights, head, sump and flywheel.

Front is to the left. Of two banks the first is drawn up and the second down, each as it is seen from its own side.
"""

__all__ = ["end_of", "moving_parts", "side_view"]

import math
from collections.abc import Iterator

from gurvo_core.engine import EngineDocument, Thing
from gurvo_core.scene.asked import bead_id, part_id
from gurvo_core.scene.names import kinds_named
from gurvo_core.scene.shapes import ScenePart, SceneView, Shape, box, line, ring, words
from gurvo_core.scene.sizes import Cylinder, Sizes

JOURNAL, PIN, WEB = 0.40, 0.34, 0.12  # of the bore: how thick each is drawn
PISTON_UP, PISTON_DOWN = 0.45, 0.27  # of the bore, from its pin
BELOW, ABOVE = 1.5, 1.55  # of the bore: room for the sump, and for the head and its cover


def side_view(document: EngineDocument, sizes: Sizes) -> SceneView:
    """Return what is seen from the side."""
    two = len({one.bank for one in sizes.cylinders}) > 1
    bore, top = sizes.bore, sizes.top
    parts = [
        ScenePart(id="block", name="Block", shapes=list(_block(sizes, two))),
        *_sump(sizes, two),
        ScenePart(id="flywheel", name="Flywheel end", shapes=_flywheel(sizes)),
        ScenePart(id="damper", name="Crank nose", shapes=_nose(sizes)),
        *_beads(sizes, two),
        *moving_parts(sizes),
        *_mains(sizes, two),
        ScenePart(id="seals", name="Crank seals", shapes=list(_seals(sizes))),
        *_heads(document, sizes),
        *_things(document, sizes),
    ]
    down = top + ABOVE * bore if two else BELOW * bore
    return SceneView(
        looking="side",
        left=-1.1 * bore,
        top=-top - ABOVE * bore,
        width=sizes.length + 3.2 * bore,
        height=top + ABOVE * bore + down,
        parts=parts,
        sketched=list(sizes.sketched),
    )


def moving_parts(sizes: Sizes) -> list[ScenePart]:
    """Return what is coupled to the crank, at the angle at which it stands."""
    return [*_pistons_and_rods(sizes), ScenePart(id="crank", name="Crankshaft", shapes=list(_crank(sizes)))]


def _way(cylinder: Cylinder) -> int:
    """Up for the first bank, down for the second."""
    return 1 if cylinder.bank == 0 else -1


def _block(sizes: Sizes, two: bool) -> Iterator[Shape]:
    wall = 0.08 * sizes.bore
    for way in (1, -1) if two else (1,):
        deck = -way * sizes.top
        yield line(-wall, deck, sizes.length + wall, deck)
        yield line(-wall, deck, -wall, 0)
        yield line(sizes.length + wall, deck, sizes.length + wall, 0)
    for one in sizes.cylinders:
        way, half = _way(one), sizes.bore / 2
        foot = -way * (sizes.stroke / 2 + 0.15 * sizes.bore)
        for side in (-half, half):
            yield line(one.x_mm + side, -way * sizes.top, one.x_mm + side, foot, faint=True)
        yield words(one.x_mm, -way * (sizes.top + (ABOVE - 0.2) * sizes.bore), str(one.number))
    yield words(-0.58 * sizes.bore, (-1.0 if two else 0.95) * sizes.bore, "front")


def _pin_y(one: Cylinder, sizes: Sizes) -> float:
    """Where a crank pin is drawn: at its height where each rod has a pin of its own; of two on one pin they would be two heights."""
    if one.pin_deg is None or sizes.shares_pins:
        return 0.0
    return -_way(one) * sizes.stroke / 2 * math.cos(math.radians(one.pin_deg))


def _pistons_and_rods(sizes: Sizes) -> Iterator[ScenePart]:
    rods, pistons = list[Shape](), list[Shape]()
    bore = sizes.bore
    for one in sizes.cylinders:
        way = _way(one)
        pin = -way * (sizes.rod + sizes.stroke / 2 - one.drop_mm)
        x = one.x_mm + (_beside(one, sizes) if sizes.shares_pins else 0)
        rods.append(line(one.x_mm, pin, x, _pin_y(one, sizes)))
        rods.append(ring(x, _pin_y(one, sizes), 0.48 * bore))
        middle = pin - way * (PISTON_UP - PISTON_DOWN) / 2 * bore
        pistons.append(box(one.x_mm, middle, 0.95 * bore, (PISTON_UP + PISTON_DOWN) * bore))
        pistons += [
            line(one.x_mm - 0.46 * bore, pin - way * up * bore, one.x_mm + 0.46 * bore, pin - way * up * bore) for up in (0.35, 0.27)
        ]
        pistons.append(ring(one.x_mm, pin, 0.2 * bore))
    yield ScenePart(id="rods", name="Connecting rods", shapes=rods)
    yield ScenePart(id="pistons", name="Pistons", shapes=pistons)


def _beside(one: Cylinder, sizes: Sizes) -> float:
    """Two rods on one pin sit side by side."""
    return (-0.12 if one.bank == 0 else 0.12) * sizes.bore


def _crank(sizes: Sizes) -> Iterator[Shape]:
    bore = sizes.bore
    pins = {one.x_mm: _pin_y(one, sizes) for one in sizes.cylinders}
    for x, y in pins.items():
        yield box(x, y, 0.42 * bore, PIN * bore)
        tall = abs(y) + (JOURNAL + PIN) / 2 * bore + 0.12 * bore
        for side in (-0.28, 0.28):
            yield box(x + side * bore, y / 2, WEB * bore, tall if y else 1.1 * bore)
    for x in sizes.mains:
        yield box(
            min(max(x, 0.14 * bore), sizes.length - 0.14 * bore), 0, 0.56 * bore if 0 < x < sizes.length else 0.3 * bore, JOURNAL * bore
        )
    yield box(-0.22 * bore, 0, 0.44 * bore, 0.28 * bore)
    yield box(sizes.length + 0.12 * bore, 0, 0.16 * bore, 0.7 * bore)


def _mains(sizes: Sizes, two: bool) -> Iterator[ScenePart]:
    """Caps below the crank; between two banks across it, where they are seen from above."""
    bore = sizes.bore
    shapes = [
        box(
            min(max(x, 0.26 * bore), sizes.length - 0.26 * bore),
            0 if two else 0.4 * bore,
            0.5 * bore,
            (0.62 if two else 0.34) * bore,
            text=str(n),
        )
        for n, x in enumerate(sizes.mains, 1)
    ]
    yield ScenePart(id="mains", name="Main caps and shells", shapes=shapes)


def _sump(sizes: Sizes, two: bool) -> Iterator[ScenePart]:
    """Below the crank; under two banks it lies behind what is drawn."""
    bore, length = sizes.bore, sizes.length
    if two:
        yield ScenePart(id="sump", name="Sump", shapes=[box(length / 2, 0, length + 0.5 * bore, 1.5 * bore, faint=True)])
        yield ScenePart(id="oil", name="Oil", shapes=[line(0, 0.68 * bore, length, 0.68 * bore)])
        return
    at, foot = 0.66 * bore, 1.15 * bore
    shapes = [line(-0.1 * bore, at, 0.1 * bore, foot), line(0.1 * bore, foot, length - 0.1 * bore, foot)]
    yield ScenePart(id="sump", name="Sump", shapes=[*shapes, line(length - 0.1 * bore, foot, length + 0.1 * bore, at)])
    yield ScenePart(id="oil", name="Oil", shapes=[line(0.02 * bore, 0.92 * bore, length - 0.02 * bore, 0.92 * bore)])


def _seals(sizes: Sizes) -> Iterator[Shape]:
    """A lip above and below the crank where it leaves the block, at both ends."""
    bore, wall = sizes.bore, 0.08 * sizes.bore
    for x, half in ((-wall, 0.2), (sizes.length + wall, 0.41)):
        yield from (box(x, side * half * bore, 0.14 * bore, 0.1 * bore) for side in (-1, 1))


def _beads(sizes: Sizes, two: bool) -> Iterator[ScenePart]:
    """Where the sump, or the halves of a case, meet."""
    wall, length = 0.08 * sizes.bore, sizes.length
    foot = (0.75 if two else 0.62) * sizes.bore
    yield ScenePart(id=bead_id("sump"), name="Bead of sealant", shapes=[line(-wall, foot, length + wall, foot)])
    yield ScenePart(id=bead_id("mains"), name="Bead of sealant", shapes=[line(-wall, 0, length + wall, 0)])


def _flywheel(sizes: Sizes) -> list[Shape]:
    return [
        box(sizes.length + 0.32 * sizes.bore, 0, 0.22 * sizes.bore, 2.1 * sizes.bore),
        words(sizes.length + 1.3 * sizes.bore, 0.0, "flywheel"),
    ]


def _nose(sizes: Sizes) -> list[Shape]:
    return [box(-0.58 * sizes.bore, 0, 0.26 * sizes.bore, 1.3 * sizes.bore)]


def _heads(document: EngineDocument, sizes: Sizes) -> Iterator[ScenePart]:
    """Head and cover as the outlines they have from the side, one of each bank."""
    bore, names = sizes.bore, [bank.name for bank in document.banks]
    for n, bank in enumerate(document.banks[:2]):
        way = 1 if n == 0 else -1
        said = names[n] if len(names) > 1 else ""
        gasket, head, cover = (-way * (sizes.top + up * bore) for up in (0.03, 0.42, 0.98))
        yield ScenePart(id=part_id("gaskets", bank.id), name="Head gasket", where=said, shapes=[line(0, gasket, sizes.length, gasket)])
        yield ScenePart(
            id=part_id("heads", bank.id),
            name="Cylinder head",
            where=said,
            shapes=[box(sizes.length / 2, head, sizes.length + 0.16 * bore, 0.68 * bore)],
        )
        yield ScenePart(
            id=part_id("cam covers", bank.id),
            name="Cover of the head",
            where=said,
            shapes=[box(sizes.length / 2, cover, sizes.length, 0.34 * bore)],
        )


def _things(document: EngineDocument, sizes: Sizes) -> Iterator[ScenePart]:
    """What is on for a while, a knob at the end on which it goes; several at one end one above the other."""
    bore, last = sizes.bore, sizes.length
    ends = {"front": (-0.58 * bore, -0.35 * bore), "rear": (last + 0.62 * bore, -0.6 * bore), "top": (last / 2, -sizes.top - 0.2 * bore)}
    count = dict.fromkeys(ends, 0)
    for thing in document.things:
        end = end_of(thing)
        x, y = ends[end]
        step = 0.26 * bore * count[end]
        count[end] += 1
        at = (x + step, y) if end == "top" else (x, max(y - step, -sizes.top - 1.4 * bore))
        yield ScenePart(id=f"thing:{thing.id}", name=thing.name, shapes=[ring(*at, 0.24 * bore)])


def end_of(thing: Thing) -> str:
    """At which end of the engine a thing goes on: as it says; a piston stop from above, what is at the flywheel there, else in front."""
    if thing.at is not None:
        return thing.at
    if thing.kind in {"piston_stop", "cover"}:
        return "top"
    return "rear" if "flywheel" in kinds_named(thing.name) else "front"

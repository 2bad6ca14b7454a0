"""Plates of a spring pocket: doublers, the cheeks of a raised mount, and its gussets."""

from nodulant.frame.here import OnRail
from nodulant.frame.ops.pockets.spring_pocket_plan import SpringPocketPlan
from nodulant.geometry.outline import polygon
from nodulant.parts.part import Face, Part, RoundHole, Seam, part_id

CHEEKS, GUSSET = ("cheek-outer", "cheek-inner"), "pocket-gusset"
FOOT_MM, LAP_SHARE, LAP_MM, LEAST_PLATE_MM = 40.0, 0.6, 80.0, 3.0
"""A cheek's foot past the slot's ends; how far down the wall it laps: a share of the rail's height, and at most."""


def lap_mm(rail_height_mm: float) -> float:
    """How far a cheek goes down its wall."""
    return min(LAP_SHARE * rail_height_mm, LAP_MM)


def pocket_parts(pocket: SpringPocketPlan, on: OnRail) -> list[Part]:
    """Doublers, cheeks where the bolt stands above the rail, and the gussets."""
    out = pocket.as_notch().parts(on)
    if pocket.raised(on.here.height):
        out += [_cheek(pocket, on, "outer", "cheek-outer"), _cheek(pocket, on, "inner", "cheek-inner")]
    if pocket.gusset_mm > 0:
        x, g, z = on.span.centre_mm, pocket.gusset_mm, on.here.height if pocket.raised(on.here.height) else 0.0
        beside = "the cheek on the cut line's side" if z > 0 else "the slot"
        out.append(
            Part(
                id=part_id(pocket.id, GUSSET, on.side),
                operation=pocket.id,
                role=GUSSET,
                side=on.side,
                name=f"Gusset beside {beside}, two of it",
                face="across",
                outline=polygon([(x, z), (x + g, z), (x, z + g)]),
                thickness_mm=max(pocket.plate_mm, LEAST_PLATE_MM),
                steel_id=pocket.steel_id,
                count=2,
            )
        )
    return out


def _cheek(pocket: SpringPocketPlan, on: OnRail, face: Face, role: str) -> Part:
    """A plate lapped on one wall that narrows to the bolt above it."""
    x, under, high = on.span.centre_mm, on.here.underside, on.here.height
    foot, top, up = pocket.length_mm / 2 + FOOT_MM, under + high, under + pocket.bolt_up_mm
    edge = pocket.edge_mm
    head = min(2 * edge, foot)
    corners = [(x - foot, top - lap_mm(high)), (x + foot, top - lap_mm(high)), (x + foot, top), (x + head, up + edge)]
    return Part(
        id=part_id(pocket.id, role, on.side),
        operation=pocket.id,
        role=role,
        side=on.side,
        name=f"Cheek of the raised mount, {face}",
        face=face,
        outline=polygon([*corners, (x - head, up + edge), (x - foot, top)]),
        thickness_mm=pocket.cheek_mm,
        steel_id=pocket.steel_id,
        holes=(RoundHole(x_mm=x, y_mm=up, diameter_mm=pocket.bolt().size.hole_mm),),
    )


def pocket_seams(pocket: SpringPocketPlan, on: OnRail, parts: list[Part]) -> list[Seam]:
    """Fillets around doublers and gussets, and along what a cheek laps: both ends and its lower edge."""
    rail, leg, out = f"rail/{on.side}", pocket.weld_leg_mm, []
    for part in parts:
        share = 1.0
        if part.role in CHEEKS:
            foot = pocket.length_mm + 2 * FOOT_MM
            share = min((foot + 2 * lap_mm(on.here.height)) / part.outline.length_mm(), 1.0)
        seam = Seam(part_a=rail, part_b=part.id, kind="fillet", leg_mm=leg, path=part.outline, welded_share=share)
        out.append(seam)
    return out

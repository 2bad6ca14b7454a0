"""A spring pocket's checks and its steps."""

from nodulant.frame.here import OnRail
from nodulant.frame.ops.pockets.spring_pocket_parts import FOOT_MM, lap_mm
from nodulant.frame.ops.pockets.spring_pocket_plan import SpringPocketPlan
from nodulant.frame.ops.welded import welded
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.bolts import hole_n
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.materials.weld import Line, group_load_n_per_mm, weld_group
from nodulant.parts.cautions import DUST, HOT
from nodulant.parts.specs import CheckSpec, HoldPoint, StepSpec
from nodulant.units.inline import as_length, as_place, as_thickness

ROOM_MM = 12.0
"""Free length beside a spring's or damper's body in its slot, both ends together (common practice: 6 mm each)."""


def pocket_checks(pocket: SpringPocketPlan, on: OnRail) -> tuple[CheckSpec, ...]:
    """Room along and across the slot, spacers, and what the spring's force asks for."""
    return (*_room(pocket, on), *(_waiting(pocket, on) if pocket.spring_n <= 0 else _loaded(pocket, on)))


def _room(pocket: SpringPocketPlan, on: OnRail) -> list[CheckSpec]:
    at, room = on.span.centre_mm, pocket.length_mm - pocket.body_mm
    rows = [
        CheckSpec(
            limit_id="pocket-room",
            value=room,
            formula="length - body",
            values={"length": pocket.length_mm, "body": pocket.body_mm},
            words="free length of the slot beside what stands in it at ride height; it swings through travel besides",
            station_mm=at,
            remedy=f"A slot of {as_length(pocket.body_mm + ROOM_MM)} or more.",
        ),
        CheckSpec(
            limit_id="sleeve-there",
            about="pocket",
            value=1.0 if pocket.sleeve else 0.0,
            formula="sleeves",
            values={"sleeves": 1.0 if pocket.sleeve else 0.0},
            words="spacers from the eye to both walls: without them the bolt pulls the walls in",
            station_mm=at,
            same_as_stock=pocket.sleeve,
            remedy="Weld spacers to the walls' insides, as long as the eye leaves room.",
        ),
    ]
    if pocket.line_mm > 0:
        values = {"width": on.here.width, "line": pocket.line_mm, "wall": on.here.wall, "body": pocket.body_mm}
        rows.append(
            CheckSpec(
                limit_id="pocket-room",
                about="across",
                value=on.here.width - pocket.line_mm - on.here.wall - pocket.body_mm,
                formula="width - line - wall - body",
                values=values,
                words="free width from the cut line to the other wall beside what stands in it; the cut's strength is reckoned through the whole width",
                station_mm=at,
                remedy="A cut line nearer to its face, or right through.",
            )
        )
    return rows


def _waiting(pocket: SpringPocketPlan, on: OnRail) -> list[CheckSpec]:
    rules = ("link-bolt", "tab-hole", *(("tab-bending", "weld-group") if pocket.raised(on.here.height) else ()))
    remedy = "The spring's force at full bump is not given."
    at = on.span.centre_mm
    return [CheckSpec(limit_id=rule, value=None, station_mm=at, missing=("spring_n",), remedy=remedy) for rule in rules]


def _loaded(pocket: SpringPocketPlan, on: OnRail) -> list[CheckSpec]:
    at, raised = on.span.centre_mm, pocket.raised(on.here.height)
    bolt, capacity = pocket.bolt(), pocket.bolt().shear_n(2)
    own = find_steel(pocket.steel_id).ultimate_mpa
    if raised:
        edge, metal, ultimate = pocket.edge_mm, pocket.cheek_mm, own
    else:
        edge = min(pocket.bolt_up_mm - pocket.depth_mm, on.here.height - pocket.bolt_up_mm)
        metal, ultimate = on.here.wall + pocket.plate_mm, min(own, find_steel(on.rail.steel_id).ultimate_mpa)
    hole = 2 * hole_n(bolt, edge, metal, ultimate)
    rows = [
        CheckSpec(
            limit_id="link-bolt",
            value=pocket.spring_n / capacity,
            formula="force / capacity",
            values={"force": pocket.spring_n, "capacity": capacity},
            words="2 shear planes, one at each wall",
            station_mm=at,
            remedy="A bigger bolt.",
        ),
        CheckSpec(
            limit_id="tab-hole",
            value=pocket.spring_n / hole,
            formula="force / capacity",
            values={"force": pocket.spring_n, "capacity": hole},
            words="bearing or tear-out of both cheeks"
            if raised
            else "bearing or tear-out of wall and doubler on both sides",
            station_mm=at,
            remedy="Thicker cheeks." if raised else "Doublers on both walls, or a bolt further from the slot's edge.",
        ),
    ]
    return [*rows, _leaning(pocket, on), _welds(pocket, on)] if raised else rows


def _leaning(pocket: SpringPocketPlan, on: OnRail) -> CheckSpec:
    """A cheek bent about the rail's top by half of what pushes inward; a gusset takes its leg off the arm."""
    wide = pocket.length_mm + 2 * FOOT_MM
    arm = max(pocket.bolt_up_mm - on.here.height - pocket.gusset_mm, 0.0)
    allowed = find_steel(pocket.steel_id).beside_weld_mpa / SAFETY_ON_YIELD
    values = {
        "across": pocket.across_n,
        "arm": arm,
        "modulus": wide * pocket.cheek_mm**2 / 6,
        "allowed": allowed,
    }
    return CheckSpec(
        limit_id="tab-bending",
        value=pocket.across_n / 2 * arm / (values["modulus"] * allowed),
        formula="across / 2 * arm / (modulus * allowed)",
        values=values,
        words="each cheek takes half of what leans inward, from the bolt to the gusset's top or the rail's",
        station_mm=on.span.centre_mm,
        remedy="A taller gusset, thicker cheeks, or a coilover that stands straighter.",
    )


def _welds(pocket: SpringPocketPlan, on: OnRail) -> CheckSpec:
    """One cheek's three welds as a group: half the force along it and half of what leans, at the bolt."""
    half, lap = pocket.length_mm / 2 + FOOT_MM, lap_mm(on.here.height)
    lines = (Line(-half, -lap, half, -lap), Line(-half, -lap, -half, 0.0), Line(half, -lap, half, 0.0))
    rise = pocket.bolt_up_mm - on.here.height
    upward = max(pocket.spring_n**2 - pocket.across_n**2, 0.0) ** 0.5
    force, at = (pocket.across_n / 2, 0.0, upward / 2), (0.0, 0.0, rise)
    worst, _ = group_load_n_per_mm(weld_group(lines), force, at)
    steel = min(find_steel(pocket.steel_id).beside_weld_mpa, find_steel(on.rail.steel_id).beside_weld_mpa)
    capacity = line_capacity(pocket.weld_leg_mm, min(pocket.cheek_mm, on.here.wall), steel)
    return CheckSpec(
        limit_id="weld-group",
        value=worst / capacity,
        formula="load / capacity",
        values={"load": worst, "capacity": capacity},
        words="N/mm along a cheek's two ends and its lower edge, the force at the bolt; the gusset not counted",
        station_mm=on.span.centre_mm,
        remedy="A bigger leg, thicker cheeks, or a mount that rises less.",
    )


def pocket_steps(pocket: SpringPocketPlan, datum: str) -> list[StepSpec]:
    """Doublers, the slot up to its line, the bolt; cheeks in zones, one left open for the gusset."""
    at = f"{as_place(pocket.place.offset_mm)} {datum}"
    through = "through the bottom flange"
    if pocket.line_mm > 0:
        through += f", across it up to the line {as_length(pocket.line_mm)} from the {pocket.line_from} face, whose wall stays whole"
    rows = [
        StepSpec(
            key="corners",
            phase="cut",
            title="Drill the slot's corners",
            detail=f"{at}: {as_thickness(2 * pocket.corner_radius_mm)} in each, before any wheel comes near.",
            minutes=20,
            tools=("drill",),
            cautions=(DUST,),
            acts=("drills-corners",),
        ),
        StepSpec(
            key="slot",
            phase="cut",
            title="Cut the slot for the coilover",
            detail=f"{at}: {as_length(pocket.length_mm)} long {through}, {as_length(pocket.depth_mm)} up the walls. Where the bolt stands above the rail, the same through the top flange.",
            minutes=60,
            tools=("cut-off wheel", "file"),
            cautions=(DUST, HOT),
            hold=HoldPoint(kind="reading", ask="Middle of the slot from its datum", reading="position"),
            acts=("cuts",),
        ),
        welded(
            key="bolt",
            phase="fit",
            title="Set the bolt and weld its spacers",
            detail=f"{as_length(pocket.bolt_up_mm)} above the underside, square to the rail: drilled through both walls from one side, or the cheeks tacked on one dummy bolt through both; spacers welded to the insides, eye free between them.",
            minutes=60,
            with_tools=("drill", "square"),
            acts=("goes-inside",),
        ),
    ]
    if pocket.gusset_mm > 0:
        rows.append(
            welded(
                key="zones",
                phase="plate",
                title="Weld in zones, the gusset's left open",
                detail=f"Front end, rear end, lower edge, on the far side first; on the {pocket.line_from} side leave {as_length(pocket.gusset_mm)} under the bolt unwelded until the gusset is tacked there, then close it and the gusset.",
                minutes=60,
                acts=("welds", "welds-mount"),
            )
        )
    if pocket.plate_mm > 0:
        rows.append(
            welded(
                key="doublers",
                phase="plate",
                title="Doublers on both walls",
                detail=f"{as_thickness(pocket.plate_mm)}, long edges first, tapered ends last.",
                minutes=90,
                with_tools=("clamps",),
                hides="the walls around the bolt",
            )
        )
    return rows

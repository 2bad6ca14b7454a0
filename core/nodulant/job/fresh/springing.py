"""Springs, dampers, stops, straps, shafts and hoses as they begin beside a suspension."""

from nodulant.axles.hose import Hose
from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.points import HardPoint
from nodulant.axles.springs import (
    AirSpring,
    AntiRollBar,
    BarRun,
    BumpStop,
    Coilover,
    Damper,
    HalfShaft,
    LeafPack,
    Springs,
    StopOnDamper,
    StopOnFrame,
    Strap,
    TorsionBar,
)
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import UnknownReference
from nodulant.driveline.driveline import Driveline
from nodulant.job.fresh.stand import Stand, at
from nodulant.survey.vehicle import Survey

REACH_MM, OUT = 470.0, 0.68
"""Of a coilover on a wishbone: from eye to eye, and how far out along the arm it stands."""


def springs_of(kind: str, on: Stand, own: Suspension) -> Springs:
    """Springs of a kind beside a layout; raises UnknownReference where there is no such kind."""
    independent = own.layout.independent
    y = min(on.half - 220, 480.0) if independent else on.inner - (85.0 if kind == "air" else 35.0)
    if kind == "coilover":
        return _coilover(on, own, y)
    if kind == "air":
        return AirSpring(
            lower=at(0, y, 20),
            upper=at(on.x, y, on.z + 220),
            ride_mm=200,
            least_mm=85,
            most_mm=310,
            area_mm2=12_000,
            area_per_mm=-6,
            volume_mm3=2.4e6,
            most_bar=7,
            diameter_mm=165,
        )
    if kind == "leaf":
        seat = getattr(own.layout, "seat", None)
        return LeafPack(seat=seat if isinstance(seat, HardPoint) else at(0, on.web + 40, -60), rate_n_per_mm=35)
    if kind == "torsion":
        if not isinstance(own.layout, DoubleWishbone | Strut):
            raise UnknownReference(
                "no arm of this layout twists a bar", field="/kind", found=kind, acceptable="coilover, air, leaf"
            )
        return TorsionBar(diameter_mm=26, length_mm=1100)
    raise UnknownReference(
        "there is no such spring", field="/kind", found=kind, acceptable="coilover, air, leaf, torsion"
    )


def _coilover(on: Stand, own: Suspension, y: float) -> Coilover:
    plain = Coilover(
        lower=at(-62, y, -40),
        upper=at(on.x - 52, y - 20, on.z + 433),
        rate_n_per_mm=32,
        free_mm=360,
        block_mm=110,
        open_mm=562,
        closed_mm=372,
        body_mm=76,
    )
    layout = own.layout
    if isinstance(layout, Strut):
        return plain.model_copy(update={"lower": layout.foot, "upper": layout.top})
    if not isinstance(layout, DoubleWishbone):
        return plain
    f, r, b = layout.lower_front, layout.lower_rear, layout.lower_ball
    out = round(((f.y_mm + r.y_mm) / 2) * (1 - OUT) + b.y_mm * OUT)
    up = round(((f.z_mm + r.z_mm) / 2 - on.z) * (1 - OUT) + b.z_mm * OUT) + 25
    update = {
        "on": "lower-arm",
        "lower": at(4, out, up),
        "upper": at(on.x + 4, out - 60, on.z + up + REACH_MM),
        "rate_n_per_mm": 60.0,
        "body_mm": 58.0,
    }
    return plain.model_copy(update=update)


def damper_of(on: Stand, own: Suspension) -> Damper:
    """A damper that stands beside an air or leaf spring."""
    y = min(on.half - 260, 440.0) if own.layout.independent else on.inner - 30
    return Damper(
        lower=at(-90, y, -40), upper=at(on.x - 100, y - 20, on.z + 390), open_mm=540, closed_mm=330, body_mm=55
    )


def stop_of(own: Suspension) -> BumpStop:
    """A stop that has given all it gives just before full bump."""
    gives = 25.0
    return BumpStop(gap_mm=max(own.bump_mm - gives - 5, 10.0), gives_mm=gives)


def stop_place_of(kind: str, on: Stand, own: Suspension) -> StopOnFrame | StopOnDamper:
    """A stop on the frame above what strikes it, or on the damper's shaft; raises UnknownReference for another place."""
    stop = own.stop or stop_of(own)
    if kind == "damper":
        return StopOnDamper()
    if kind != "frame":
        raise UnknownReference("there is no such place", field="/kind", found=kind, acceptable="frame, damper")
    tall = 60.0
    if isinstance(own.layout, DoubleWishbone | Strut):
        f, r, b = own.layout.lower_front, own.layout.lower_rear, own.layout.lower_ball
        y = (f.y_mm + r.y_mm) / 2 * 0.5 + b.y_mm * 0.5
        up = ((f.z_mm + r.z_mm) / 2 - on.z) * 0.5 + b.z_mm * 0.5 + 20
        # half way out the arm rises half as far as the wheel
        return StopOnFrame(
            base=at(on.x, y, on.z + up + tall + stop.gap_mm / 2), pad=at(0, y, up), on="lower-arm", tall_mm=tall
        )
    y = on.web - 30
    return StopOnFrame(base=at(on.x, y, on.z + 40 + tall + stop.gap_mm), pad=at(0, y, 40), tall_mm=tall)


def strap_of(on: Stand, own: Suspension) -> Strap:
    """A strap that is taut just before the wanted droop is used up."""
    y, above = (min(on.half - 300, 400.0) if own.layout.independent else on.inner - 60), 140.0
    return Strap(
        lower=at(60, y, 0), upper=at(on.x + 60, y, on.z + above), length_mm=float(round(above + own.droop_mm - 5))
    )


def anti_roll_of(on: Stand) -> AntiRollBar:
    """A bar whose arms end beside the tyres."""
    return AntiRollBar(drop=at(60, min(on.half - 300, 420.0), -40))


def bar_run_of(on: Stand, own: Suspension) -> BarRun:
    """A bar whose arms lie level at ride height and run forward of the drop links, which hang from them."""
    bar = own.anti_roll or anti_roll_of(on)
    link = 120.0
    return BarRun(
        bend=at(on.x + bar.drop.x_mm - bar.arm_mm, bar.length_mm / 2, on.z + bar.drop.z_mm + link), link_mm=link
    )


def half_shaft_of(on: Stand) -> HalfShaft:
    """A shaft from a differential in the middle to the wheel."""
    return HalfShaft(inner=at(on.x, 170, on.z + 10), outer=at(0, on.half - 120, 0))


def hose_of(on: Stand, own: Suspension) -> Hose:
    """A brake hose from the rail to the wheel, or to the middle of a live axle that does not steer."""
    wheel = own.axle == "front" or own.layout.independent
    return Hose(
        name=f"{own.axle} brake hose",
        frame=at(on.x - 60, on.inner + 60 if wheel else 120, on.z + 180),
        wheel=at(-60, on.half - 100 if wheel else 120, 60),
        length_mm=420,
    )


def driveline_of(survey: Survey, on: Stand) -> Driveline:
    """A shaft from behind the gearbox to ahead of the axle."""
    behind = next((c.x_mm for c in survey.crossmembers if "gearbox" in c.name), on.x - 1400)
    return Driveline(
        rides="rail",
        gearbox=at(behind + 150, 0, on.z + 70),
        gearbox_deg=survey.rear.pinion_angle_deg or 3.0,
        pinion=at(-260, 0, 0),
    )


def bearing_of(line: Driveline, on: Stand) -> HardPoint:
    """A carrier bearing half the way to the axle."""
    return at((line.gearbox.x_mm + on.x) / 2, line.gearbox.y_mm, line.gearbox.z_mm - 20)

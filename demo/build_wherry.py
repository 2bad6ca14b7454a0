"""Writes demo/wherry.nodulant.json: the invented van, its survey and three options."""

from pathlib import Path

from nodulant.frame.ops.boxing import Boxing
from nodulant.frame.ops.narrow import Narrow
from nodulant.frame.ops.notch import Cap, Liner, Notch, SidePlate
from nodulant.frame.ops.notch_shape import ArcShape, TrapezoidShape
from nodulant.frame.ops.raise_into import Raise
from nodulant.frame.ops.splice_plates import Box
from nodulant.frame.ops.zstep import Gusset, ZStep
from nodulant.frame.place import Place
from nodulant.job.document import Design, DesignRevision, JobFile, OptionFile, Shop, SurveyRevision
from nodulant.loads.plan import AxleLinks, LoadPlan, StopPads
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.rail import Rail, Station
from nodulant.survey.vehicle import Axle, Datum, Feature, Mass, Rails, Seat, Survey
from nodulant.targets.drop import DropEntry, Keeps, Targets

AT = "2026-10-03T17:20:00+00:00"


def rail(wall: float) -> Rail:
    """150 x 60 x 5 channel, web outboard, kicked up 12 mm at the tail."""
    rows = [
        (-620, 0, 120),
        (-300, 0, 150),
        (400, 0, 150),
        (1200, 0, 150),
        (1900, 0, 150),
        (2610, 0, 150),
        (3100, 0, 150),
        (3480, 6, 138),
    ]
    stations = tuple(Station(x_mm=x, underside_z_mm=z, height_mm=h, width_mm=60, wall_mm=wall) for x, z, h in rows)
    return Rail(web_y_mm=410, inside_radius_mm=5, steel_id="mild", stations=stations)


SURVEY = Survey(
    vehicle="Tindrel Wherry",
    notes="Forward-control van, ladder frame, leaf-sprung live rear axle.",
    datum=Datum(feature_id="front-hanger"),
    wheelbase_mm=2610,
    front=Axle(tyre="215/75R16", loaded_radius_mm=343, track_mm=1640, hub_z_left_mm=-158, hub_z_right_mm=-157),
    rear=Axle(
        tyre="215/75R16",
        loaded_radius_mm=341,
        track_mm=1620,
        hub_z_left_mm=-153,
        hub_z_right_mm=-152.5,
        tube_diameter_mm=76,
        tube_gap_left_mm=115,
        tube_gap_right_mm=114,
        pinion_angle_deg=4.5,
    ),
    rails=Rails(left=rail(5.0), right=rail(5.0)),
    features=(
        Feature(id="front-axle", name="front axle line", kind="axle-line", x_mm=0),
        Feature(id="cab-crossmember", name="cab crossmember, rear face", kind="crossmember", x_mm=640),
        Feature(id="front-hanger", name="front hanger bolt, rear spring", kind="hanger", x_mm=2090),
        Feature(id="rear-axle", name="rear axle line", kind="axle-line", x_mm=2610),
        Feature(id="rear-hanger", name="rear hanger bolt, rear spring", kind="hanger", x_mm=3130),
        Feature(
            id="line-clip-hole", name="brake line clip hole", kind="hole", x_mm=2380, height_mm=105, diameter_mm=11
        ),
        Feature(id="tail-crossmember", name="tail crossmember, front face", kind="crossmember", x_mm=3390),
    ),
    crossmembers=(
        Crossmember(id="nose", name="nose", x_mm=-560, profile="channel", height_mm=90, width_mm=50, wall_mm=4),
        Crossmember(
            id="engine", name="engine", x_mm=310, profile="box", height_mm=80, width_mm=60, wall_mm=4, end="welded"
        ),
        Crossmember(id="cab", name="cab", x_mm=615, profile="channel", height_mm=110, width_mm=50, wall_mm=4),
        Crossmember(id="gearbox", name="gearbox", x_mm=1250, profile="channel", height_mm=110, width_mm=50, wall_mm=4),
        Crossmember(
            id="hanger",
            name="front hanger",
            x_mm=2090,
            profile="tube",
            height_mm=70,
            width_mm=70,
            wall_mm=4,
            end="welded",
        ),
        Crossmember(id="tail", name="tail", x_mm=3415, profile="channel", height_mm=110, width_mm=50, wall_mm=4),
    ),
    masses=(
        Mass(id="powertrain", name="Engine and gearbox", mass_kg=265, x_mm=280, z_mm=210),
        Mass(id="cab", name="Cab front", mass_kg=240, x_mm=-260, z_mm=560),
        Mass(id="crew", name="Crew of two", mass_kg=160, x_mm=-60, z_mm=640),
        Mass(id="tank", name="Fuel tank, full", mass_kg=58, x_mm=1480, z_mm=40),
        Mass(id="body", name="Bakery body and floor", mass_kg=520, x_mm=300, to_x_mm=3440, z_mm=620),
        Mass(id="payload", name="Ovens, racks and bread", mass_kg=560, x_mm=800, to_x_mm=3300, z_mm=680),
    ),
    seats=(
        Seat(id="front-leaf-front", name="Front spring, front hanger", axle="front", x_mm=-480, share=0.5),
        Seat(id="front-leaf-rear", name="Front spring, rear hanger", axle="front", x_mm=480, share=0.5),
        Seat(id="rear-leaf-front", name="Rear spring, front hanger", axle="rear", x_mm=2090, share=0.5),
        Seat(id="rear-leaf-rear", name="Rear spring, rear hanger", axle="rear", x_mm=3130, share=0.5),
    ),
)

SEATS = (*SURVEY.seats[:2], Seat(id="coilover", name="Coilover upper crossmember", axle="rear", x_mm=2610, share=1.0))
TARGETS = Targets(
    drop_mm=60.325,
    entries=(
        DropEntry(
            id="coilovers",
            name="Coilovers in place of leaf springs",
            mechanism="springs",
            amount_mm=None,
            keeps=Keeps(camber=True, toe=True, anti_dive=False),
            costs_travel=True,
        ),
        DropEntry(id="tyres", name="Same tyres", mechanism="tyre", amount_mm=0.0),
    ),
    bump_mm=90,
    droop_mm=80,
)
UPPER = Crossmember(
    id="upper", name="coilover upper", x_mm=2610, profile="channel", height_mm=100, width_mm=60, wall_mm=5, end="welded"
)
LOADS = LoadPlan(
    links=(AxleLinks(upper_x_mm=2160, upper_z_mm=60, lower_x_mm=1980, lower_z_mm=-70),),
    stops=StopPads(x_mm=2610),
)
BOX = Boxing(
    id="box-rear",
    name="Boxing over the axle",
    start=Place(anchor_id="rear-axle", offset_mm=-420),
    end=Place(anchor_id="rear-axle", offset_mm=420),
    thickness_mm=5,
    fit="over-lips",
)
ARC = Notch(
    id="axle-notch",
    name="Arc notch over the axle",
    place=Place(anchor_id="rear-axle", offset_mm=0),
    shape=ArcShape(radius_mm=60),
    depth_mm=58,
    liner=Liner(thickness_mm=6),
    outer_plate=SidePlate(thickness_mm=4, overlap_mm=190),
)
TRAPEZOID = ARC.model_copy(
    update={
        "name": "Straight-sided notch over the axle",
        "shape": TrapezoidShape(top_width_mm=96, mouth_width_mm=140, corner_radius_mm=14),
    }
)


STEP = ZStep(
    id="rear-step",
    name="Rear step, 75 mm",
    place=Place(anchor_id="rear-axle", offset_mm=-1010),
    rise_mm=75,
    method="post",
    box=Box(wall_mm=8, depth_mm=150),
    weld="two-sided-ground",
    outer_plate=SidePlate(thickness_mm=6, overlap_mm=280, end="taper"),
    inner_plate=SidePlate(thickness_mm=6, overlap_mm=280, end="taper"),
    gusset=Gusset(leg_mm=70, thickness_mm=6),
)
BOX_LONG = BOX.model_copy(
    update={
        "start": Place(anchor_id="rear-axle", offset_mm=-800),
        "end": Place(anchor_id="rear-axle", offset_mm=500),
        "thickness_mm": 6.0,
        "weld_leg_mm": 5.0,
    }
)
PLATED = Notch(
    id="axle-notch",
    name="Boxed and plated notch over the axle",
    place=Place(anchor_id="rear-axle", offset_mm=0),
    shape=ArcShape(radius_mm=60),
    depth_mm=58,
    liner=Liner(thickness_mm=6),
    outer_plate=SidePlate(thickness_mm=6, overlap_mm=260),
    inner_plate=SidePlate(thickness_mm=6, overlap_mm=260),
    cap=Cap(thickness_mm=6, height_mm=60, overlap_mm=330),
)
BOX_FRONT = Boxing(
    id="box-front",
    name="Boxing at the front subframe",
    start=Place(anchor_id="front-axle", offset_mm=-430),
    end=Place(anchor_id="front-axle", offset_mm=420),
    thickness_mm=6,
    weld_leg_mm=5,
)
NARROWED = Narrow(
    id="narrow-front",
    name="Narrowed front",
    end=Place(anchor_id="front-axle", offset_mm=560),
    inward_mm=30,
    run_mm=110,
    box=Box(wall_mm=6),
    weld="two-sided-ground",
)
POCKET = Raise(
    id="front-pocket",
    name="Pocket for the front subframe",
    place=Place(anchor_id="front-axle", offset_mm=0),
    length_mm=150,
    depth_mm=60,
    inner_depth_mm=50,
    floor_mm=6,
    box_mm=6,
    overlap_mm=240,
)
FRONT_SEATS = (
    Seat(id="subframe-front", name="Front subframe, front mounts", axle="front", x_mm=-260, share=0.5),
    Seat(id="subframe-rear", name="Front subframe, rear mounts", axle="front", x_mm=260, share=0.5),
)
LOW_TARGETS = Targets(
    drop_mm=135,
    entries=(
        DropEntry(id="step", name="Rear rail step", mechanism="z-step", amount_mm=75.0),
        DropEntry(
            id="coilovers",
            name="Coilovers in place of leaf springs",
            mechanism="springs",
            amount_mm=60.0,
            keeps=Keeps(camber=True, toe=True, anti_dive=False),
            costs_travel=True,
        ),
    ),
    bump_mm=90,
    droop_mm=80,
)
LOW_FLOOR = Design(
    targets=LOW_TARGETS,
    operations=(STEP, BOX_LONG, PLATED, NARROWED, BOX_FRONT, POCKET),
    seats=(*FRONT_SEATS, SEATS[2]),
    crossmembers=(UPPER,),
    loads=LOADS,
)


def job() -> JobFile:
    """The demo job file."""
    arc, straight = (
        Design(targets=TARGETS, operations=(BOX, notch), seats=SEATS, crossmembers=(UPPER,), loads=LOADS)
        for notch in (ARC, TRAPEZOID)
    )
    return JobFile(
        name="Wherry low-floor",
        shop=Shop(name="Fennimore Yard"),
        surveys=(SurveyRevision(number=1, at=AT, by="ada", survey=SURVEY),),
        options=(
            OptionFile(
                id="arc",
                name="Arc notch and coilovers",
                note="Half pipe liner, boxed over the axle.",
                revisions=(DesignRevision(number=1, at=AT, by="ada", design=arc),),
            ),
            OptionFile(
                id="straight",
                name="Straight-sided notch",
                note="Formed liner that works over its whole width.",
                revisions=(DesignRevision(number=1, at=AT, by="ada", design=straight),),
            ),
            OptionFile(
                id="step",
                name="Step, narrowed front, raised pocket",
                note="Rear rails stepped 75 mm, front rails narrowed 30 mm a side, front subframe raised into a pocket.",
                revisions=(DesignRevision(number=1, at=AT, by="ada", design=LOW_FLOOR),),
            ),
        ),
    )


if __name__ == "__main__":
    text = job().model_dump_json(indent=1, exclude_none=False)
    (Path(__file__).parent / "wherry.nodulant.json").write_text(text + "\n")

"""Writes demo/brackmoor.nodulant.json: the invented wagon on boxed rails, lifted, in mm, with two options."""

from pathlib import Path

from nodulant.frame.ops.bolted import BoltGroup
from nodulant.frame.ops.bracket import Bracket, BracketGusset, Tabs
from nodulant.frame.ops.hole import Sleeve, WebHole
from nodulant.frame.ops.notch import Liner, Notch, SidePlate
from nodulant.frame.ops.notch_shape import TrapezoidShape
from nodulant.frame.ops.repair import MountHole, Repair
from nodulant.frame.place import Place
from nodulant.job.document import Design, DesignRevision, JobFile, OptionFile, Shop, SurveyRevision
from nodulant.loads.plan import AxleLinks, JackPoint, LoadPlan
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.rail import Rail, Station
from nodulant.survey.vehicle import Axle, Datum, Feature, Mass, Rails, Seat, Survey
from nodulant.targets.drop import DropEntry, Keeps, Targets

AT = "2026-11-07T08:05:00+00:00"


def rail(rusty: bool) -> Rail:
    """110 x 70 x 3.5 box, kicked up over the rear axle, two fifths of its wall lost to rust at the rear body mount on the left."""
    rows = [
        (-700, 40, 100, 0.0),
        (-250, 30, 110, 0.0),
        (350, 0, 110, 0.0),
        (1500, 0, 110, 0.0),
        (1600, 0, 110, 0.0),
        (1630, 0, 110, 1.4),
        (1770, 0, 110, 1.4),
        (1800, 0, 110, 0.0),
        (2020, 0, 110, 0.0),
        (2240, 95, 110, 0.0),
        (2920, 95, 110, 0.0),
        (3200, 75, 105, 0.0),
        (3500, 60, 100, 0.0),
    ]
    stations = tuple(
        Station(x_mm=x, underside_z_mm=z, height_mm=h, width_mm=70, wall_mm=3.5, rust_loss_mm=lost if rusty else 0.0)
        for x, z, h, lost in rows
    )
    return Rail(kind="rect-tube", web_y_mm=430, inside_radius_mm=4, steel_id="mild", stations=stations)


SURVEY = Survey(
    vehicle="Brackmoor Four",
    notes="Utility wagon on boxed rails; live axles front and rear, tube to rail measured at the rear.",
    datum=Datum(plane="underside of the straight part between the doors", feature_id="cab-mount"),
    wheelbase_mm=2590,
    front=Axle(tyre="37x12.50R17", loaded_radius_mm=446, track_mm=1560, hub_z_left_mm=-46, hub_z_right_mm=-47),
    rear=Axle(
        tyre="37x12.50R17",
        loaded_radius_mm=445,
        track_mm=1560,
        hub_z_left_mm=-38.5,
        hub_z_right_mm=-38.5,
        tube_diameter_mm=83,
        tube_gap_left_mm=92,
        tube_gap_right_mm=92,
        pinion_angle_deg=3.0,
    ),
    rails=Rails(left=rail(True), right=rail(False)),
    features=(
        Feature(id="front-axle", name="front axle line", kind="axle-line", x_mm=0),
        Feature(id="cab-mount", name="cab body mount", kind="body-mount", x_mm=820, height_mm=60, diameter_mm=16),
        Feature(id="box-bolt", name="steering box, rear bolt", kind="steering", side="left", x_mm=-380),
        Feature(id="rear-mount", name="rear body mount", kind="body-mount", x_mm=1700, height_mm=60, diameter_mm=16),
        Feature(id="rear-axle", name="rear axle line", kind="axle-line", x_mm=2590),
        Feature(id="loom-hole", name="loom hole", kind="hole", side="left", x_mm=1240, height_mm=72, diameter_mm=22),
        Feature(id="rear-hanger", name="rear spring, front hanger", kind="hanger", x_mm=2010),
    ),
    crossmembers=(
        Crossmember(
            id="nose", name="nose", x_mm=-640, profile="box", height_mm=80, width_mm=60, wall_mm=3, end="welded"
        ),
        Crossmember(
            id="engine", name="engine", x_mm=240, profile="box", height_mm=70, width_mm=90, wall_mm=3, end="welded"
        ),
        Crossmember(id="gearbox", name="gearbox", x_mm=1060, profile="tube", height_mm=63, width_mm=63, wall_mm=3.5),
        Crossmember(
            id="tank", name="tank", x_mm=1950, profile="tube", height_mm=70, width_mm=70, wall_mm=3.5, end="welded"
        ),
        Crossmember(
            id="damper", name="damper", x_mm=2650, profile="tube", height_mm=70, width_mm=70, wall_mm=3.5, end="welded"
        ),
        Crossmember(
            id="tail", name="tail", x_mm=3440, profile="box", height_mm=80, width_mm=50, wall_mm=3, end="welded"
        ),
    ),
    masses=(
        Mass(id="engine", name="Engine and gearbox", mass_kg=310, x_mm=190, z_mm=290),
        Mass(id="transfer", name="Transfer case", mass_kg=62, x_mm=1010, z_mm=90),
        Mass(id="body", name="Body and trim", mass_kg=640, x_mm=-300, to_x_mm=3400, z_mm=560),
        Mass(id="crew", name="Crew of two", mass_kg=160, x_mm=1280, z_mm=640),
        Mass(id="tank", name="Fuel tank, full", mass_kg=72, x_mm=2120, z_mm=60),
        Mass(id="cargo", name="Tools and spares", mass_kg=260, x_mm=2300, to_x_mm=3350, z_mm=480),
    ),
    seats=(
        Seat(id="front-leaf-front", name="Front spring, front hanger", axle="front", x_mm=-560, share=0.5),
        Seat(id="front-leaf-rear", name="Front spring, rear hanger", axle="front", x_mm=560, share=0.5),
        Seat(id="rear-leaf-front", name="Rear spring, front hanger", axle="rear", x_mm=2010, share=0.5),
        Seat(id="rear-leaf-rear", name="Rear spring, rear hanger", axle="rear", x_mm=3170, share=0.5),
    ),
)

SEATS = (
    Seat(id="coil-buckets", name="Front coil buckets", axle="front", x_mm=0, share=1.0),
    *SURVEY.seats[2:],
)
TARGETS = Targets(
    drop_mm=-40,
    entries=(
        DropEntry(
            id="springs",
            name="Longer rear leaf springs",
            mechanism="springs",
            amount_mm=-40.0,
            keeps=Keeps(camber=True, toe=True, anti_dive=False),
            costs_travel=True,
        ),
    ),
    bump_mm=150,
    droop_mm=120,
)
LOADS = LoadPlan(
    links=(AxleLinks(axle="front", upper_x_mm=640, upper_z_mm=90, lower_x_mm=700, lower_z_mm=-60),),
    jack=JackPoint(x_mm=1900, side="left"),
    grip=0.8,
)
LOWER = Bracket(
    id="lower-link",
    name="Front lower link bracket",
    place=Place(anchor_id="front-axle", offset_mm=700),
    face="outer",
    height_mm=55,
    width_mm=150,
    tall_mm=90,
    thickness_mm=6,
    tabs=Tabs(thickness_mm=8, width_mm=80, standoff_mm=50, edge_mm=30, bolt_size="M16"),
    gusset=BracketGusset(leg_mm=35, thickness_mm=6),
    fixing="welded-and-bolted",
    bolts=BoltGroup(size="M12", grade="10.9", per_end=2, edge_mm=25, sleeves=True),
    along_n=18_000,
    up_n=2_500,
)
SLEEVED = tuple(
    WebHole(
        id=f"box-sleeve-{n}",
        name=f"Sleeved hole {n}, steering box",
        side="left",
        place=Place(anchor_id="box-bolt", offset_mm=offset),
        height_mm=height,
        diameter_mm=25.0,
        work="sleeve",
        sleeve=Sleeve(bolt_size="M12", grade="10.9", outside_mm=25, wall_mm=5.75, steel_id="s355"),
    )
    for n, (offset, height) in enumerate(((0.0, 52.0), (-110.0, 52.0)), start=1)
)
REPAIR = Repair(
    id="mount-repair",
    name="Rear body mount, left",
    side="left",
    start=Place(anchor_id="rear-mount", offset_mm=-130),
    end=Place(anchor_id="rear-mount", offset_mm=130),
    thickness_mm=4.0,
    mount=MountHole(feature_id="rear-mount", height_mm=60, diameter_mm=16),
)
SHAPE = TrapezoidShape(top_width_mm=124, mouth_width_mm=172, corner_radius_mm=13)
WELDED = Notch(
    id="rear-notch",
    name="Welded notch over the rear axle",
    place=Place(anchor_id="rear-axle", offset_mm=0),
    shape=SHAPE,
    depth_mm=40,
    liner=Liner(thickness_mm=5),
    outer_plate=SidePlate(thickness_mm=5, overlap_mm=180),
    inner_plate=SidePlate(thickness_mm=5, overlap_mm=180),
)
BOLT_IN = Notch(
    id="rear-notch",
    name="Bolt-in notch bracket over the rear axle",
    place=Place(anchor_id="rear-axle", offset_mm=0),
    shape=SHAPE,
    depth_mm=42,
    liner=Liner(thickness_mm=8),
    outer_plate=SidePlate(thickness_mm=8, overlap_mm=200, inset_mm=4, end="square"),
    inner_plate=SidePlate(thickness_mm=8, overlap_mm=200, inset_mm=4, end="square"),
    bolts=BoltGroup(size="M12", grade="10.9", per_end=8, edge_mm=25, sleeves=True),
)


def job() -> JobFile:
    """The demo job file."""
    welded, bolted = (
        Design(targets=TARGETS, operations=(LOWER, *SLEEVED, REPAIR, notch), seats=SEATS, loads=LOADS)
        for notch in (WELDED, BOLT_IN)
    )
    rows = (
        ("welded", "Welded notch", "Liner and plates welded in.", welded),
        ("bolt-in", "Bolt-in notch", "The rail over the tank is not heated.", bolted),
    )
    return JobFile(
        name="Brackmoor on stilts",
        shop=Shop(name="Fennimore Yard", style="mm"),
        surveys=(SurveyRevision(number=1, at=AT, by="ada", survey=SURVEY),),
        options=tuple(
            OptionFile(
                id=id_, name=name, note=note, revisions=(DesignRevision(number=1, at=AT, by="ada", design=design),)
            )
            for id_, name, note, design in rows
        ),
    )


if __name__ == "__main__":
    text = job().model_dump_json(indent=1, exclude_none=False)
    (Path(__file__).parent / "brackmoor.nodulant.json").write_text(text + "\n")

"""What follows from wheel, tyre and arch: facts of the Travel stage, and the check of the arch."""

from nodulant.checks.check import Check
from nodulant.checks.wheel_rules import arch_check
from nodulant.evaluate.suspensions.travel_drawing import Fact
from nodulant.job.document import Inputs
from nodulant.parts.tyre import parse_tyre
from nodulant.parts.wheel import measuring_rim_mm, section_on
from nodulant.suspension.study import Study, wheel_of
from nodulant.units.inline import as_length


def wheel_facts(inputs: Inputs, s: Study) -> tuple[Fact, ...]:
    """Offset, backspacing, section width on the rim, hub faces, and how the wheel sits in its arch."""
    own, setting = s.suspension, s.setting
    axle = inputs.survey.front if own.axle == "front" else inputs.survey.rear
    wheel, size = wheel_of(own, inputs.survey), own.tyre or axle.tyre
    out: list[Fact] = []
    if wheel is not None:
        words = f"offset {as_length(wheel.face_mm)}; half the rim, {as_length(wheel.lip_mm)} of lip and the offset"
        out.append(Fact(name="Wheel's backspacing", value=wheel.back_mm, unit="mm", words=words))
        if setting is not None:
            apart = 2 * (setting.half_track_mm + wheel.face_mm)
            words = "mounting faces, from track and offset: an axle or hubs of this width carry these wheels"
            out.append(Fact(name="Hub faces apart", value=apart, unit="mm", words=words))
    if wheel is not None and size:
        tyre = parse_tyre(size)
        words = f"{as_length(tyre.section_width_mm)} on a rim of about {measuring_rim_mm(tyre):.0f}; {as_length(5)} per half inch of rim, from memory"
        out.append(Fact(name="Tyre's section on this rim", value=section_on(tyre, wheel), unit="mm", words=words))
    if axle.arch is not None and setting is not None:
        x, _, z = setting.hub
        off = x - axle.arch.middle_x_mm
        words = f"{'behind' if off > 0 else 'ahead of'} the middle of the arch" if abs(off) > 0.05 else "in the middle"
        out.append(Fact(name="Wheel in its arch at ride height", value=abs(off), unit="mm", words=words))
        if size:
            free = parse_tyre(size).free_diameter_mm / 2
            above = axle.arch.top_z_mm - z - free
            words = "from the top of the tyre to the top of the arch; below 0 the tyre is tucked behind it"
            out.append(Fact(name="Gap over the tyre at ride height", value=above, unit="mm", words=words))
    return tuple(out)


def arch_checks(inputs: Inputs, studies: list[Study]) -> list[Check]:
    """Every axle whose arch was surveyed."""
    out = []
    for s in studies:
        axle = inputs.survey.front if s.suspension.axle == "front" else inputs.survey.rear
        if s.setting is not None and axle.arch is not None:
            out.append(arch_check(s.suspension.axle, s.setting.hub[0], axle.arch, inputs.design.limits))
    return out

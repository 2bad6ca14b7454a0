"""Boxing: a plate that closes the open side of a channel between two stations."""

from collections.abc import Iterable

from nodulant.base.errors import InputError
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.plates.boxing_parts import boxing_outline, boxing_part, boxing_seam
from nodulant.frame.ops.plates.boxing_plan import BoxingPlan, Fit, boxing_additions
from nodulant.frame.ops.plates.boxing_work import boxing_readings, boxing_steps
from nodulant.frame.ops.plates.in_lengths import butts_between, in_lengths, seam_mm
from nodulant.frame.place import Place, resolve
from nodulant.parts.part import Part, Seam
from nodulant.parts.specs import CheckSpec, ReadingSpec, StepSpec
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature

__all__ = ["Boxing", "Fit"]


class Boxing(BoxingPlan):
    """A boxing plate from ``start`` to ``end``: over the flange lips, flush with them or inside."""

    @property
    def anchor(self) -> Place:
        """Its front end."""
        return self.start

    @property
    def closes(self) -> float:
        """How far inside the lips its outer face lies, mm."""
        return self.set_in_mm()

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """From end to end; raises InputError where the rail is a box by itself."""
        if rail.closed or rail.kind == "top-hat":
            raise InputError(
                "this rail has no open side to box",
                field=field,
                found=rail.kind,
                acceptable="a channel, with or without lips; use a plate instead",
            )
        start = resolve(self.start, features, f"{field}/start")
        return Span(start, resolve(self.end, features, f"{field}/end"))

    def roles(self) -> tuple[str, ...]:
        """The plate."""
        return ("boxing",)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """The plate as columns."""
        return boxing_additions(self, span.start_mm, span.end_mm, rail, carried)

    def parts(self, on: OnRail) -> list[Part]:
        """The plate, cut out where the rail is."""
        return in_lengths(boxing_part(self, on.side, boxing_outline(self, on)), self.lengths, on)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Butts of a plate in lengths first, then the fillet around the whole."""
        around = [
            boxing_seam(self, on.side, part).model_copy(update={"long_mm": seam_mm(part, parts)})
            if len(parts) > 1
            else boxing_seam(self, on.side, part)
            for part in parts
        ]
        return [*butts_between(parts), *around]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """The gap between stitches; nothing where the seam is whole."""
        if self.seam == "full":
            return ()
        gap, thin = self.pitch_mm - self.bead_mm, min(self.thickness_mm, on.here.wall)
        most = min(12 * thin, 200.0)
        return (
            CheckSpec(
                limit_id="stitch-gap",
                about="seam",
                value=gap / most,
                formula="gap / most",
                values={"gap": gap, "most": most},
                words="clear length between two stitches, in which the plate may buckle and water stands",
                station_mm=on.span.centre_mm,
                remedy="Shorter pitch or longer stitches, or a full seam.",
            ),
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Inside work, fit and weld."""
        return boxing_steps(self)

    def readings(self, datum: str) -> list[ReadingSpec]:
        """The plate's thickness."""
        return boxing_readings(self)

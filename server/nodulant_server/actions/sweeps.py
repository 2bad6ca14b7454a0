"""Keep the sweep of a stored revision as evidence, and tell whether it still is one."""

from django.utils import timezone

from nodulant.evaluate.clearances.kept_sweep import KeptSweep, SweepOnFile, kept, swept_hash
from nodulant.evaluate.clearances.sweep import SweepResult
from nodulant.job.document import Inputs
from nodulant_server.actions.log import inputs_of
from nodulant_server.models import Option, SweepKept
from nodulant_server.roles import Acting


def keep_sweep(acting: Acting, option: Option, inputs: Inputs, result: SweepResult) -> bool:
    """Keep a sweep where it was of the option's newest revision and survey; False where it was of a draft."""
    head = option.head()
    found = kept(inputs, result)
    if found.of != swept_hash(inputs_of(option.job, head.design())):
        return False
    SweepKept.objects.update_or_create(
        option=option,
        defaults={
            "revision": head.number,
            "document": found.model_dump(mode="json"),
            "at": timezone.now(),
            "by": acting.name,
        },
    )
    return True


def sweep_on_file(option: Option) -> SweepOnFile | None:
    """The option's kept sweep; ``fresh`` while its newest revision and survey are what was swept."""
    row = SweepKept.objects.filter(option=option).first()
    if row is None:
        return None
    swept = KeptSweep.model_validate(row.document)
    now = swept_hash(inputs_of(option.job, option.head().design()))
    return SweepOnFile(revision=row.revision, at=row.at.isoformat(), by=row.by, fresh=swept.of == now, swept=swept)

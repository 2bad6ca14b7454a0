"""The operations there are: a new one is a new file and a line here."""

from typing import Annotated

from pydantic import Field

from nodulant.frame.ops.boxing import Boxing
from nodulant.frame.ops.notch import Notch

Operation = Annotated[Notch | Boxing, Field(discriminator="kind")]

"""From inputs to an evaluation: pure, no hidden state."""

from nodulant.evaluate.evaluation import Evaluation, InvalidInputs, SectionAt, Want
from nodulant.evaluate.run import evaluate, sections_at

__all__ = ["Evaluation", "InvalidInputs", "SectionAt", "Want", "evaluate", "sections_at"]

"""The book: what a project really cost."""

from carpentry.record.spent import AtYard, Spent, SpentLine, spent_on

__all__ = ["AtYard", "Spent", "SpentLine", "spent_on"]

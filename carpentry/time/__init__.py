"""When: in which order, how long, what must dry before what, by when to begin.

Days are asked with their steps, hours and weather; ``plan_of_days`` answers when each step is done,
proven where it says so, what can wait, and what would do where a day is missed.
"""

from carpentry.time.asked import Days, Instead, TimedStep
from carpentry.time.days_file import days_answer, days_document, read_days_file
from carpentry.time.plan import DaysPlan, PlannedStep, WouldDo, first_plan_of_days, plan_of_days

__all__ = [
    "Days",
    "DaysPlan",
    "Instead",
    "PlannedStep",
    "TimedStep",
    "WouldDo",
    "days_answer",
    "days_document",
    "first_plan_of_days",
    "plan_of_days",
    "read_days_file",
]

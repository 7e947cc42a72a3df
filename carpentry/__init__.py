"""The rules of the trade and every computation of Grain Tally.

Read the modules in the order of the work: ``length``, ``sizes``, ``parts``, ``cutting``,
``buying``, ``project``. Nothing in here knows of Django or of a screen.
"""

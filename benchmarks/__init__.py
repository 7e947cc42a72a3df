"""Figures measured in one run, as ratios: ``make bench``."""

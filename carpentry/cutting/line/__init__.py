"""Cutting on a line: boards that are crosscut, with flaws and without."""

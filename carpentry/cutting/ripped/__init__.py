"""Cutting boards that are ripped: ``rip_patterns`` of a section, loads of a board, and the ways to
a cheaper plan where those are too many to list."""

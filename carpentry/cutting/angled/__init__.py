"""Cutting a line of parts with angled ends, which may lie close and share saw lines."""

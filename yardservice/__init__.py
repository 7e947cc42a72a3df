"""A small simulated price service of a lumber yard, a process of its own.

It stands in for the services that yards run: seeded prices that drift from week to week, items that
run out, and faults on demand. Its protocol is described in docs/price-service.md. It knows nothing
of the application.
"""

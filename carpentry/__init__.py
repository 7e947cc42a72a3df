"""The rules of the trade and every computation of Grain Tally.

Read the rooms in the order of the work; a later one may import an earlier one, never the reverse:

- ``language``: lengths, money, faults, the fields and tables that builders type
- ``lumber``: real sizes, woods, own materials, the rack, the lexicon that words are read by
- ``design``: parts, their ends and edges, lists of them; measures with their formulas, runs
- ``cutting``: from a cut problem to a checked plan with its proof
- ``buying``: prices, packs, fasteners, coating, the shopping list
- ``project``: settings, materials, hardware, the tally and what is claimed of it
- ``planning``: what a plan rests on, what happened since, what has to be planned anew
- ``trip``: what happens at the yard, the cart, the receipt

Nothing in here knows of Django or of a screen. ``python -m carpentry`` is its terminal.
"""

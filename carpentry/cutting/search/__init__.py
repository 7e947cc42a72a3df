"""The search for the cheapest purchase that holds everything, whatever is cut and however.

``model`` says what it has to know, ``cheapest`` searches, ``covering`` bounds by linear programs,
``holding`` asks whether a purchase is enough, ``purchases`` lists those that are still possible.
"""

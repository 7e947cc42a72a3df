"""Prints every figure of the product, measured now, on this machine."""

import resource

from benchmarks.application import application, front_end, packages, round_trip
from benchmarks.crowd import crowd
from benchmarks.days import days
from benchmarks.desk import desk
from benchmarks.fresh import fresh_lines, fresh_rips, fresh_specials
from benchmarks.growth import growth
from benchmarks.lines import against_the_pencil, bin_packing, home_projects, large, steady
from benchmarks.measures import formulas, runs
from benchmarks.reporting import report
from benchmarks.ripped import rips
from benchmarks.shapes import shapes
from benchmarks.shop import killed_server, shop

if __name__ == "__main__":
    home_projects()
    against_the_pencil()
    large()
    bin_packing()
    steady()
    rips()
    fresh_lines()
    fresh_rips()
    fresh_specials()
    formulas()
    runs()
    shapes()
    shop()
    days()
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    report("peak memory of all that", f"{peak:.0f} MB")
    front_end()
    crowd()
    desk()
    killed_server()
    with application():
        from benchmarks.tablet import slow_tablet
        from benchmarks.yard import none_of_these, slow_phone

        round_trip()
        growth()
        packages()
        none_of_these()
        slow_phone()
        slow_tablet()

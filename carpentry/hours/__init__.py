"""When there is time: the clock on the wall and its zone, free hours, durations, the weather."""

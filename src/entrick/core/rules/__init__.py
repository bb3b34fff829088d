"""Rules of the trade that are no constructions themselves: motions of cams, teeth of gears, threads
by table."""

"""Physics: gas law and tanks, atmosphere, pumps, motors, cycles, simulation. Knows no file and no
kind of system."""

"""What puts a water system right. Minutes are judgement, no source."""

from zerodip.diagnosis.parts import Remedy

__all__ = [
    "AIR",
    "BIGGER",
    "CHECK",
    "FILTER",
    "LEAK",
    "LESS",
    "NEW_TANK",
    "OPEN_TANK",
    "OUTSIDE",
    "PIPE",
    "PLATES",
    "PUMP",
    "RELIEF",
    "RENEWER",
    "RESET",
    "RE_AIR",
    "SUCTION",
    "SUPPLY",
    "THAW",
    "WELL",
]

AIR = Remedy(
    id="air",
    kind="air",
    says="Drain, set the pre-charge, soap the valve; the cap is the real seal.",
    minutes=30,
)
NEW_TANK = Remedy(
    id="replace_tank", kind="job", says="Replace the tank or its bladder.", minutes=90
)
RE_AIR = Remedy(id="re_air", kind="job", says="Drain the tank and let it take air.", minutes=45)
BIGGER = Remedy(
    id="bigger", kind="setting", says="Add a tank, or a bigger one: see Sizes.", minutes=120
)
OPEN_TANK = Remedy(
    id="open_tank", kind="fix", says="Open the tank's valve; read each tank's air.", minutes=5
)
LEAK = Remedy(id="leak", kind="fix", says="Find the leak in the house and mend it.", minutes=60)
RELIEF = Remedy(
    id="replace_relief", kind="job", says="Replace the relief valve, never plug it.", minutes=30
)
CHECK = Remedy(
    id="check_valve", kind="person", says="Replace the check or foot valve.", minutes=180
)
PUMP = Remedy(id="pump", kind="person", says="Have the pump pulled and looked at.", minutes=240)
PIPE = Remedy(id="pipe", kind="person", says="Have the pipe in the well pulled.", minutes=300)
WELL = Remedy(
    id="well", kind="person", says="Draw less at once; have the well looked at.", minutes=120
)
SUCTION = Remedy(
    id="suction", kind="fix", says="Tighten and seal the suction side; prime again.", minutes=60
)
OUTSIDE = Remedy(
    id="pipe_outside",
    kind="person",
    says="Have the pipe in the ground found and mended.",
    minutes=300,
)
THAW = Remedy(
    id="thaw",
    kind="fix",
    says="Breaker off; thaw it gently, never with a flame; look for cracks; lag it.",
    minutes=60,
)
FILTER = Remedy(id="filter", kind="fix", says="Change the filter cartridge.", minutes=15)
RESET = Remedy(
    id="reset_cut_off", kind="job", says="Hold the lever in to reset, and find why.", minutes=20
)
PLATES = Remedy(
    id="plates", kind="fix", says="Read the plates again; decide anew by them.", minutes=10
)
LESS = Remedy(
    id="draw_less", kind="nothing", says="Draw less at once, or take a stronger pump.", minutes=0
)
SUPPLY = Remedy(
    id="supply", kind="person", says="Ask the supplier about the inlet pressure.", minutes=60
)
RENEWER = Remedy(
    id="renewer",
    kind="fix",
    says="Drain and re-air the tank, and replace the air control.",
    minutes=60,
)

export default {
 "WaterSystem": {
  "kind": {
   "kind": "choice",
   "title": "Kind of system",
   "dimension": "number",
   "options": [
    "well_bladder",
    "well_air",
    "cistern",
    "boosted"
   ],
   "optional": false
  },
  "name": {
   "kind": "words",
   "title": "Name",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "site": {
   "kind": "part",
   "title": "Site",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "switch": {
   "kind": "part",
   "title": "Switch",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "tanks": {
   "kind": "parts",
   "title": "Tanks",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "pump": {
   "kind": "part",
   "title": "Pump",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "relief": {
   "kind": "part",
   "title": "Relief valve",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "supply": {
   "kind": "part",
   "title": "Supply",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "demand": {
   "kind": "part",
   "title": "Demand",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "found": {
   "kind": "part",
   "title": "As found",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "SiteConditions": {
  "altitude_m": {
   "kind": "quantity",
   "title": "Altitude",
   "dimension": "length",
   "options": [],
   "optional": true
  },
  "now_k": {
   "kind": "quantity",
   "title": "Temperature at the tank today",
   "dimension": "temperature",
   "options": [],
   "optional": true
  },
  "mean_k": {
   "kind": "quantity",
   "title": "The season's mean there",
   "dimension": "temperature",
   "options": [],
   "optional": true
  },
  "coldest_k": {
   "kind": "quantity",
   "title": "Coldest there",
   "dimension": "temperature",
   "options": [],
   "optional": true
  },
  "warmest_k": {
   "kind": "quantity",
   "title": "Warmest there",
   "dimension": "temperature",
   "options": [],
   "optional": true
  }
 },
 "Switch": {
  "nuts": {
   "kind": "choice",
   "title": "Adjusting nuts",
   "dimension": "number",
   "options": [
    "two",
    "one",
    "points"
   ],
   "optional": true
  },
  "low_pressure_cut_off": {
   "kind": "flag",
   "title": "Low-pressure cut-off",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "trip_below_cut_in_pa": {
   "kind": "quantity",
   "title": "Trip below cut-in",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "least_cut_in_gauge_pa": {
   "kind": "quantity",
   "title": "Switch range: lowest cut-in",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "most_cut_out_gauge_pa": {
   "kind": "quantity",
   "title": "Switch range: highest cut-out",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "least_differential_pa": {
   "kind": "quantity",
   "title": "Least differential",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "most_differential_pa": {
   "kind": "quantity",
   "title": "Greatest differential",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "earth_present": {
   "kind": "flag",
   "title": "Earth wire at the switch",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "Tank": {
  "volume_m3": {
   "kind": "quantity",
   "title": "Tank volume",
   "dimension": "volume",
   "options": [],
   "optional": false
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Tank maximum pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "acceptance_m3": {
   "kind": "quantity",
   "title": "Bladder acceptance",
   "dimension": "volume",
   "options": [],
   "optional": true
  },
  "pre_charge_gauge_pa": {
   "kind": "quantity",
   "title": "This tank's own pre-charge",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "ConstantFlow": {
  "motor": {
   "kind": "choice",
   "title": "Motor",
   "dimension": "number",
   "options": [
    "submersible",
    "surface"
   ],
   "optional": true
  },
  "power_w": {
   "kind": "quantity",
   "title": "Motor power",
   "dimension": "power",
   "options": [],
   "optional": true
  },
  "start_lag_s": {
   "kind": "quantity",
   "title": "Start lag",
   "dimension": "duration",
   "options": [],
   "optional": true
  },
  "ramp_s": {
   "kind": "quantity",
   "title": "Delivery ramps up over",
   "dimension": "duration",
   "options": [],
   "optional": true
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Pump's maximum pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "flow_m3_s": {
   "kind": "quantity",
   "title": "Pump flow",
   "dimension": "flow",
   "options": [],
   "optional": false
  },
  "dead_head_gauge_pa": {
   "kind": "quantity",
   "title": "Dead-head, measured",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "RatedPoint": {
  "motor": {
   "kind": "choice",
   "title": "Motor",
   "dimension": "number",
   "options": [
    "submersible",
    "surface"
   ],
   "optional": true
  },
  "power_w": {
   "kind": "quantity",
   "title": "Motor power",
   "dimension": "power",
   "options": [],
   "optional": true
  },
  "start_lag_s": {
   "kind": "quantity",
   "title": "Start lag",
   "dimension": "duration",
   "options": [],
   "optional": true
  },
  "ramp_s": {
   "kind": "quantity",
   "title": "Delivery ramps up over",
   "dimension": "duration",
   "options": [],
   "optional": true
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Pump's maximum pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "lift_m": {
   "kind": "quantity",
   "title": "Lift, water to gauge",
   "dimension": "length",
   "options": [],
   "optional": true
  },
  "inlet_gauge_pa": {
   "kind": "quantity",
   "title": "Inlet pressure, comes on top",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "flow_m3_s": {
   "kind": "quantity",
   "title": "Pump flow",
   "dimension": "flow",
   "options": [],
   "optional": false
  },
  "gauge_pa": {
   "kind": "quantity",
   "title": "at a gauge pressure of",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "dead_head_gauge_pa": {
   "kind": "quantity",
   "title": "Dead-head, measured",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "HeadCurve": {
  "motor": {
   "kind": "choice",
   "title": "Motor",
   "dimension": "number",
   "options": [
    "submersible",
    "surface"
   ],
   "optional": true
  },
  "power_w": {
   "kind": "quantity",
   "title": "Motor power",
   "dimension": "power",
   "options": [],
   "optional": true
  },
  "start_lag_s": {
   "kind": "quantity",
   "title": "Start lag",
   "dimension": "duration",
   "options": [],
   "optional": true
  },
  "ramp_s": {
   "kind": "quantity",
   "title": "Delivery ramps up over",
   "dimension": "duration",
   "options": [],
   "optional": true
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Pump's maximum pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "lift_m": {
   "kind": "quantity",
   "title": "Lift, water to gauge",
   "dimension": "length",
   "options": [],
   "optional": true
  },
  "inlet_gauge_pa": {
   "kind": "quantity",
   "title": "Inlet pressure, comes on top",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "points": {
   "kind": "parts",
   "title": "Pump curve",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "drop_pipe": {
   "kind": "part",
   "title": "Drop pipe",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "CurvePoint": {
  "flow_m3_s": {
   "kind": "quantity",
   "title": "Flow",
   "dimension": "flow",
   "options": [],
   "optional": false
  },
  "head_m": {
   "kind": "quantity",
   "title": "Head",
   "dimension": "length",
   "options": [],
   "optional": false
  }
 },
 "Pipe": {
  "length_m": {
   "kind": "quantity",
   "title": "Pipe length",
   "dimension": "length",
   "options": [],
   "optional": false
  },
  "diameter_m": {
   "kind": "quantity",
   "title": "Pipe inside diameter",
   "dimension": "diameter",
   "options": [],
   "optional": false
  },
  "c_factor": {
   "kind": "quantity",
   "title": "Hazen–Williams C",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "Relief": {
  "present": {
   "kind": "flag",
   "title": "Relief valve seen",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "setting_gauge_pa": {
   "kind": "quantity",
   "title": "Relief setting",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "Supply": {
  "yield_m3_s": {
   "kind": "quantity",
   "title": "Well yield",
   "dimension": "flow",
   "options": [],
   "optional": true
  },
  "lowest_inlet_gauge_pa": {
   "kind": "quantity",
   "title": "Lowest inlet pressure, pump on",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "highest_inlet_gauge_pa": {
   "kind": "quantity",
   "title": "Highest inlet pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "treated": {
   "kind": "flag",
   "title": "Water treated for drinking",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "labelled": {
   "kind": "flag",
   "title": "Tank and lines labelled non-potable",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "Demand": {
  "peak_draw_m3_s": {
   "kind": "quantity",
   "title": "Peak draw",
   "dimension": "flow",
   "options": [],
   "optional": true
  },
  "daily_m3": {
   "kind": "quantity",
   "title": "Water used in a day",
   "dimension": "volume",
   "options": [],
   "optional": true
  },
  "lowest_tap_m": {
   "kind": "quantity",
   "title": "Lowest tap above the gauge",
   "dimension": "length",
   "options": [],
   "optional": true
  },
  "highest_tap_m": {
   "kind": "quantity",
   "title": "Highest tap above the gauge",
   "dimension": "length",
   "options": [],
   "optional": true
  },
  "wanted_tap_gauge_pa": {
   "kind": "quantity",
   "title": "Pressure wanted there",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "highest_tap_pipe": {
   "kind": "part",
   "title": "Pipe to the highest tap",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "pressure_reducer": {
   "kind": "flag",
   "title": "Pressure-reducing valve after the tank",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "pipe_max_gauge_pa": {
   "kind": "quantity",
   "title": "Pipe rating",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "Found": {
  "pre_charge_gauge_pa": {
   "kind": "quantity",
   "title": "Pre-charge found, drained",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "last_pre_charge_gauge_pa": {
   "kind": "quantity",
   "title": "Pre-charge left last time",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "last_years_ago": {
   "kind": "quantity",
   "title": "Years since then",
   "dimension": "years",
   "options": [],
   "optional": true
  },
  "cut_in_gauge_pa": {
   "kind": "quantity",
   "title": "Cut-in found",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "cut_out_gauge_pa": {
   "kind": "quantity",
   "title": "Cut-out found",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "caught_m3": {
   "kind": "quantity",
   "title": "Water caught between them, power off",
   "dimension": "volume",
   "options": [],
   "optional": true
  }
 },
 "CompressorSystem": {
  "kind": {
   "kind": "choice",
   "title": "Kind of system",
   "dimension": "number",
   "options": [
    "compressor"
   ],
   "optional": false
  },
  "name": {
   "kind": "words",
   "title": "Name",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "site": {
   "kind": "part",
   "title": "Site",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "switch": {
   "kind": "part",
   "title": "Switch",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "receivers": {
   "kind": "parts",
   "title": "Receivers",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "pump": {
   "kind": "part",
   "title": "Compressor",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "relief": {
   "kind": "part",
   "title": "Safety valve",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "use": {
   "kind": "part",
   "title": "Air use",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "leak_test": {
   "kind": "part",
   "title": "Leak watch",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "delivery_k": {
   "kind": "quantity",
   "title": "Air enters the receiver at",
   "dimension": "temperature",
   "options": [],
   "optional": true
  },
  "click_warming_k": {
   "kind": "quantity",
   "title": "Air warmer at the click by, as found",
   "dimension": "temperature_step",
   "options": [],
   "optional": true
  }
 },
 "Receiver": {
  "volume_m3": {
   "kind": "quantity",
   "title": "Receiver volume",
   "dimension": "volume",
   "options": [],
   "optional": false
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Receiver plate, maximum",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "AirPump": {
  "points": {
   "kind": "parts",
   "title": "Free air delivery",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Compressor's maximum pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "power_w": {
   "kind": "quantity",
   "title": "Motor power",
   "dimension": "power",
   "options": [],
   "optional": true
  }
 },
 "FreeAirPoint": {
  "gauge_pa": {
   "kind": "quantity",
   "title": "at a gauge pressure of",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "flow_m3_s": {
   "kind": "quantity",
   "title": "Free air delivery",
   "dimension": "air_flow",
   "options": [],
   "optional": false
  }
 },
 "AirUse": {
  "use_m3_s": {
   "kind": "quantity",
   "title": "Air used, free air",
   "dimension": "air_flow",
   "options": [],
   "optional": true
  },
  "wanted_gauge_pa": {
   "kind": "quantity",
   "title": "Pressure the tools need",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "LeakTest": {
  "from_gauge_pa": {
   "kind": "quantity",
   "title": "Leak watch, pressure first",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "to_gauge_pa": {
   "kind": "quantity",
   "title": "Leak watch, pressure later",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "seconds": {
   "kind": "quantity",
   "title": "Leak watch, time",
   "dimension": "duration",
   "options": [],
   "optional": false
  }
 },
 "TanklessSystem": {
  "kind": {
   "kind": "choice",
   "title": "Kind of system",
   "dimension": "number",
   "options": [
    "tankless"
   ],
   "optional": false
  },
  "name": {
   "kind": "words",
   "title": "Name",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "site": {
   "kind": "part",
   "title": "Site",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "switch": {
   "kind": "part",
   "title": "Switch",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "pump": {
   "kind": "part",
   "title": "Pump",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "battery": {
   "kind": "part",
   "title": "Voltage",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "outlets": {
   "kind": "parts",
   "title": "Outlets",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "accumulator": {
   "kind": "part",
   "title": "Accumulator",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "DemandPump": {
  "works": {
   "kind": "choice",
   "title": "Works as",
   "dimension": "number",
   "options": [
    "diaphragm",
    "centrifugal"
   ],
   "optional": true
  },
  "intercept_v": {
   "kind": "quantity",
   "title": "Voltage to turn it over",
   "dimension": "voltage",
   "options": [],
   "optional": true
  },
  "second_v": {
   "kind": "quantity",
   "title": "A second voltage",
   "dimension": "voltage",
   "options": [],
   "optional": true
  },
  "second_dead_head_gauge_pa": {
   "kind": "quantity",
   "title": "Dead-head at it, measured",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "nominal_v": {
   "kind": "quantity",
   "title": "Nominal voltage",
   "dimension": "voltage",
   "options": [],
   "optional": true
  },
  "points": {
   "kind": "parts",
   "title": "Pump curve",
   "dimension": "number",
   "options": [],
   "optional": false
  },
  "power_w": {
   "kind": "quantity",
   "title": "Motor power",
   "dimension": "power",
   "options": [],
   "optional": true
  }
 },
 "PressurePoint": {
  "flow_m3_s": {
   "kind": "quantity",
   "title": "Flow",
   "dimension": "flow",
   "options": [],
   "optional": false
  },
  "gauge_pa": {
   "kind": "quantity",
   "title": "Pressure",
   "dimension": "pressure",
   "options": [],
   "optional": false
  }
 },
 "Battery": {
  "least_v": {
   "kind": "quantity",
   "title": "Lowest voltage",
   "dimension": "voltage",
   "options": [],
   "optional": false
  },
  "most_v": {
   "kind": "quantity",
   "title": "Highest voltage",
   "dimension": "voltage",
   "options": [],
   "optional": false
  }
 },
 "Outlet": {
  "name": {
   "kind": "words",
   "title": "Outlet",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "flow_m3_s": {
   "kind": "quantity",
   "title": "Flow",
   "dimension": "flow",
   "options": [],
   "optional": false
  },
  "gauge_pa": {
   "kind": "quantity",
   "title": "at a gauge pressure of",
   "dimension": "pressure",
   "options": [],
   "optional": false
  }
 },
 "Accumulator": {
  "volume_m3": {
   "kind": "quantity",
   "title": "Accumulator volume",
   "dimension": "volume",
   "options": [],
   "optional": false
  },
  "max_gauge_pa": {
   "kind": "quantity",
   "title": "Accumulator maximum pressure",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 },
 "Settings": {
  "cut_in_gauge_pa": {
   "kind": "quantity",
   "title": "Cut-in",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "cut_out_gauge_pa": {
   "kind": "quantity",
   "title": "Cut-out",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "pre_charge_gauge_pa": {
   "kind": "quantity",
   "title": "Pre-charge",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "air_renewed": {
   "kind": "flag",
   "title": "Drained and re-aired",
   "dimension": "number",
   "options": [],
   "optional": true
  }
 },
 "Practice": {
  "follows": {
   "kind": "choice",
   "title": "Practice",
   "dimension": "number",
   "options": [
    "own",
    "workspace"
   ],
   "optional": true
  },
  "reason": {
   "kind": "words",
   "title": "Reason",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "pre_charge_school": {
   "kind": "choice",
   "title": "Way of pre-charging",
   "dimension": "number",
   "options": [
    "two_below",
    "two_to_three_below",
    "five_below",
    "computed"
   ],
   "optional": true
  },
  "run_time_school": {
   "kind": "choice",
   "title": "Shortest run",
   "dimension": "number",
   "options": [
    "minute",
    "half_minute",
    "by_power"
   ],
   "optional": true
  },
  "differential_school": {
   "kind": "choice",
   "title": "Differential",
   "dimension": "number",
   "options": [
    "keep",
    "leave",
    "widen"
   ],
   "optional": true
  },
  "check_school": {
   "kind": "choice",
   "title": "Check interval",
   "dimension": "number",
   "options": [
    "half_year",
    "yearly",
    "five_years",
    "measured"
   ],
   "optional": true
  },
  "cut_off_school": {
   "kind": "choice",
   "title": "Low-pressure cut-off",
   "dimension": "number",
   "options": [
    "either",
    "fit",
    "avoid"
   ],
   "optional": true
  },
  "gas_exponent": {
   "kind": "quantity",
   "title": "Gas exponent (1 slow, 1.4 fast)",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "gauge_error_pa": {
   "kind": "quantity",
   "title": "Gauge error",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "loss_per_year_pa": {
   "kind": "quantity",
   "title": "Air lost in a year",
   "dimension": "pressure",
   "options": [],
   "optional": true
  },
  "warming_k": {
   "kind": "quantity",
   "title": "Warming after setting",
   "dimension": "temperature_step",
   "options": [],
   "optional": true
  }
 },
 "GaugeSpec": {
  "name": {
   "kind": "words",
   "title": "Name",
   "dimension": "number",
   "options": [],
   "optional": true
  },
  "reads": {
   "kind": "choice",
   "title": "Reads",
   "dimension": "number",
   "options": [
    "system",
    "air"
   ],
   "optional": true
  },
  "scale_gauge_pa": {
   "kind": "quantity",
   "title": "End of the scale",
   "dimension": "pressure",
   "options": [],
   "optional": false
  },
  "grade": {
   "kind": "choice",
   "title": "Grade",
   "dimension": "number",
   "options": [
    "4A",
    "3A",
    "2A",
    "1A",
    "A",
    "B",
    "C",
    "D"
   ],
   "optional": true
  },
  "low_pa": {
   "kind": "quantity",
   "title": "Shows too little by",
   "dimension": "pressure",
   "options": [],
   "optional": true
  }
 }
} as const

export default {
 "systems": [
  {
   "id": "us",
   "title": "psi · gal"
  },
  {
   "id": "metric",
   "title": "bar · L"
  },
  {
   "id": "kpa",
   "title": "kPa · L"
  }
 ],
 "dimensions": {
  "pressure": {
   "us": "psi",
   "metric": "bar",
   "kpa": "kPa"
  },
  "volume": {
   "us": "gal",
   "metric": "L",
   "kpa": "L"
  },
  "flow": {
   "us": "gpm",
   "metric": "L/min",
   "kpa": "L/min"
  },
  "air_volume": {
   "us": "ft3",
   "metric": "L",
   "kpa": "L"
  },
  "air_flow": {
   "us": "cfm",
   "metric": "L/min",
   "kpa": "L/min"
  },
  "voltage": {
   "us": "V",
   "metric": "V",
   "kpa": "V"
  },
  "share": {
   "us": "percent",
   "metric": "percent",
   "kpa": "percent"
  },
  "length": {
   "us": "ft",
   "metric": "m",
   "kpa": "m"
  },
  "diameter": {
   "us": "in",
   "metric": "mm",
   "kpa": "mm"
  },
  "temperature": {
   "us": "degF",
   "metric": "degC",
   "kpa": "degC"
  },
  "temperature_step": {
   "us": "F",
   "metric": "K",
   "kpa": "K"
  },
  "power": {
   "us": "hp",
   "metric": "kW",
   "kpa": "kW"
  },
  "duration": {
   "us": "s",
   "metric": "s",
   "kpa": "s"
  },
  "rate": {
   "us": "per_hour",
   "metric": "per_hour",
   "kpa": "per_hour"
  },
  "per_minute": {
   "us": "per_minute",
   "metric": "per_minute",
   "kpa": "per_minute"
  },
  "daily": {
   "us": "per_day",
   "metric": "per_day",
   "kpa": "per_day"
  },
  "years": {
   "us": "years",
   "metric": "years",
   "kpa": "years"
  },
  "number": {
   "us": "one",
   "metric": "one",
   "kpa": "one"
  }
 },
 "units": {
  "psi": {
   "symbol": "psi",
   "factor": 6894.757293168,
   "offset": 0.0,
   "decimals": 1,
   "step": 1
  },
  "bar": {
   "symbol": "bar",
   "factor": 100000.0,
   "offset": 0.0,
   "decimals": 2,
   "step": 0.05
  },
  "kPa": {
   "symbol": "kPa",
   "factor": 1000.0,
   "offset": 0.0,
   "decimals": 0,
   "step": 5
  },
  "gal": {
   "symbol": "gal",
   "factor": 0.003785411784,
   "offset": 0.0,
   "decimals": 1,
   "step": 1
  },
  "L": {
   "symbol": "L",
   "factor": 0.001,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "gpm": {
   "symbol": "gpm",
   "factor": 6.30901964e-05,
   "offset": 0.0,
   "decimals": 1,
   "step": 0.5
  },
  "L/min": {
   "symbol": "L/min",
   "factor": 1.6666666666666667e-05,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "ft": {
   "symbol": "ft",
   "factor": 0.3048,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "m": {
   "symbol": "m",
   "factor": 1.0,
   "offset": 0.0,
   "decimals": 1,
   "step": 1
  },
  "in": {
   "symbol": "in",
   "factor": 0.0254,
   "offset": 0.0,
   "decimals": 2,
   "step": 0.25
  },
  "mm": {
   "symbol": "mm",
   "factor": 0.001,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "degF": {
   "symbol": "°F",
   "factor": 0.5555555555555556,
   "offset": 255.3722222222222,
   "decimals": 0,
   "step": 1
  },
  "degC": {
   "symbol": "°C",
   "factor": 1.0,
   "offset": 273.15,
   "decimals": 0,
   "step": 1
  },
  "F": {
   "symbol": "°F",
   "factor": 0.5555555555555556,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "K": {
   "symbol": "K",
   "factor": 1.0,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "hp": {
   "symbol": "hp",
   "factor": 745.69987158227,
   "offset": 0.0,
   "decimals": 2,
   "step": 0.25
  },
  "kW": {
   "symbol": "kW",
   "factor": 1000.0,
   "offset": 0.0,
   "decimals": 2,
   "step": 0.1
  },
  "s": {
   "symbol": "s",
   "factor": 1.0,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "per_hour": {
   "symbol": "/h",
   "factor": 0.0002777777777777778,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "per_minute": {
   "symbol": "/min",
   "factor": 0.016666666666666666,
   "offset": 0.0,
   "decimals": 1,
   "step": 1
  },
  "per_day": {
   "symbol": "/day",
   "factor": 1.1574074074074073e-05,
   "offset": 0.0,
   "decimals": 0,
   "step": 1
  },
  "ft3": {
   "symbol": "ft³",
   "factor": 0.028316846592,
   "offset": 0.0,
   "decimals": 2,
   "step": 0.5
  },
  "cfm": {
   "symbol": "cfm",
   "factor": 0.0004719474432,
   "offset": 0.0,
   "decimals": 1,
   "step": 0.5
  },
  "V": {
   "symbol": "V",
   "factor": 1.0,
   "offset": 0.0,
   "decimals": 1,
   "step": 0.1
  },
  "percent": {
   "symbol": "%",
   "factor": 0.01,
   "offset": 0.0,
   "decimals": 0,
   "step": 5
  },
  "years": {
   "symbol": "y",
   "factor": 1.0,
   "offset": 0.0,
   "decimals": 1,
   "step": 1
  },
  "one": {
   "symbol": "",
   "factor": 1.0,
   "offset": 0.0,
   "decimals": 2,
   "step": 1
  }
 }
} as const

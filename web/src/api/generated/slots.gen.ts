export default {
 "place": {
  "title": "Step",
  "dimension": "number",
  "fields": {}
 },
 "gauge.used": {
  "title": "Gauge used",
  "dimension": "number",
  "fields": {}
 },
 "gauge.error": {
  "title": "Gauge reads to within",
  "dimension": "pressure",
  "fields": {}
 },
 "gauge.low": {
  "title": "Gauge shows too little by",
  "dimension": "pressure",
  "fields": {}
 },
 "gauge.air_low": {
  "title": "Air gauge shows too little by",
  "dimension": "pressure",
  "fields": {}
 },
 "found.gauge": {
  "title": "Gauge now",
  "dimension": "pressure",
  "fields": {}
 },
 "found.pre_charge": {
  "title": "Pre-charge found, tank drained",
  "dimension": "pressure",
  "fields": {}
 },
 "found.cut_in": {
  "title": "Cut-in as found",
  "dimension": "pressure",
  "fields": {}
 },
 "found.cut_out": {
  "title": "Cut-out as found",
  "dimension": "pressure",
  "fields": {}
 },
 "found.rating": {
  "title": "Rating under the cover",
  "dimension": "number",
  "fields": {}
 },
 "found.corrosion": {
  "title": "Corrosion",
  "dimension": "number",
  "fields": {}
 },
 "found.leaks": {
  "title": "Leaks seen",
  "dimension": "number",
  "fields": {}
 },
 "found.water_at_valve": {
  "title": "Water at the air valve",
  "dimension": "number",
  "fields": {}
 },
 "decided": {
  "title": "Settings decided on",
  "dimension": "number",
  "fields": {}
 },
 "air.inflator": {
  "title": "Inflator delivers",
  "dimension": "air_flow",
  "fields": {}
 },
 "air.left": {
  "title": "Pre-charge left",
  "dimension": "pressure",
  "fields": {}
 },
 "air.cap": {
  "title": "Valve cap back on",
  "dimension": "number",
  "fields": {}
 },
 "set.turned": {
  "title": "Turned",
  "dimension": "number",
  "fields": {
   "first": "number",
   "second": "number",
   "after": "number"
  }
 },
 "set.near": {
  "title": "How near",
  "dimension": "number",
  "fields": {}
 },
 "set.replaced": {
  "title": "Switch replaced",
  "dimension": "number",
  "fields": {}
 },
 "try": {
  "title": "Switch as left",
  "dimension": "number",
  "fields": {
   "after": "number",
   "first": "number",
   "second": "number",
   "cut_in_gauge_pa": "pressure",
   "cut_out_gauge_pa": "pressure"
  }
 },
 "lap": {
  "title": "Pump run",
  "dimension": "number",
  "fields": {
   "run_s": "duration",
   "rest_s": "duration"
  }
 },
 "bucket": {
  "title": "Bucket test",
  "dimension": "number",
  "fields": {
   "from_gauge_pa": "pressure",
   "to_gauge_pa": "pressure",
   "caught_m3": "volume"
  }
 },
 "leak": {
  "title": "Leak watch",
  "dimension": "number",
  "fields": {
   "first_gauge_pa": "pressure",
   "later_gauge_pa": "pressure",
   "seconds": "duration"
  }
 },
 "drain": {
  "title": "Drain",
  "dimension": "number",
  "fields": {}
 },
 "prove.dip": {
  "title": "Dip seen at the taps",
  "dimension": "number",
  "fields": {}
 },
 "signed": {
  "title": "Signed by",
  "dimension": "number",
  "fields": {}
 },
 "note": {
  "title": "Remark",
  "dimension": "number",
  "fields": {
   "text": "number"
  }
 },
 "safe.area": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.isolated": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.power_up": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.bystanders": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.pit": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.power_off": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.proved_dead": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.house_shut": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.hose": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.drained": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.supply_shut": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.glasses": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.bled": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.cover": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.house_open": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.label": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.customer_told": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 },
 "safe.cock_shut": {
  "title": "Confirmed",
  "dimension": "number",
  "fields": {}
 }
} as const

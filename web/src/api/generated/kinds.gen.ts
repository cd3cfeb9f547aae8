export default {
  "well_bladder": "Well, bladder tank",
  "well_air": "Well, plain tank",
  "cistern": "Cistern or rainwater",
  "boosted": "Boosted supply",
  "compressor": "Air compressor",
  "tankless": "Tankless demand pump",
} as const

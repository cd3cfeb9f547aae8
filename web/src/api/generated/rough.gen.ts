export default {
  "well_bladder": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s"],
  "well_air": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s"],
  "cistern": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s"],
  "boosted": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s"],
  "compressor": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s"],
  "tankless": ["cut_in_gauge_pa", "cut_out_gauge_pa"],
} as const

export default {
  "well_bladder": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s", "pre_charge_gauge_pa", "dead_head_gauge_pa"],
  "well_air": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s", "dead_head_gauge_pa"],
  "cistern": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s", "pre_charge_gauge_pa", "dead_head_gauge_pa"],
  "boosted": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s", "pre_charge_gauge_pa", "dead_head_gauge_pa"],
  "compressor": ["cut_in_gauge_pa", "cut_out_gauge_pa", "volume_m3", "flow_m3_s"],
  "tankless": ["cut_in_gauge_pa", "cut_out_gauge_pa"],
} as const

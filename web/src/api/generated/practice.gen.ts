export default {
 "us": {
  "pre_charge_school": {
   "two_below": "2 psi below cut-in",
   "two_to_three_below": "2 psi to 3 psi below cut-in",
   "five_below": "5 psi below cut-in",
   "computed": "Computed from draw, start lag and tank"
  },
  "run_time_school": {
   "minute": "A minute or more",
   "half_minute": "Half a minute is tolerable",
   "by_power": "A minute, two from 1 hp up"
  },
  "differential_school": {
   "keep": "Keep the usual 20 psi",
   "leave": "Leave that nut alone",
   "widen": "Widen it"
  },
  "check_school": {
   "half_year": "Every half year",
   "yearly": "Every year",
   "five_years": "Every five years",
   "measured": "From the measured loss"
  },
  "cut_off_school": {
   "either": "Either way",
   "fit": "Fit it",
   "avoid": "Avoid it"
  }
 },
 "metric": {
  "pre_charge_school": {
   "two_below": "0.14 bar below cut-in",
   "two_to_three_below": "0.14 bar to 0.21 bar below cut-in",
   "five_below": "0.34 bar below cut-in",
   "computed": "Computed from draw, start lag and tank"
  },
  "run_time_school": {
   "minute": "A minute or more",
   "half_minute": "Half a minute is tolerable",
   "by_power": "A minute, two from 1 hp up"
  },
  "differential_school": {
   "keep": "Keep the usual 1.38 bar",
   "leave": "Leave that nut alone",
   "widen": "Widen it"
  },
  "check_school": {
   "half_year": "Every half year",
   "yearly": "Every year",
   "five_years": "Every five years",
   "measured": "From the measured loss"
  },
  "cut_off_school": {
   "either": "Either way",
   "fit": "Fit it",
   "avoid": "Avoid it"
  }
 },
 "kpa": {
  "pre_charge_school": {
   "two_below": "14 kPa below cut-in",
   "two_to_three_below": "14 kPa to 21 kPa below cut-in",
   "five_below": "34 kPa below cut-in",
   "computed": "Computed from draw, start lag and tank"
  },
  "run_time_school": {
   "minute": "A minute or more",
   "half_minute": "Half a minute is tolerable",
   "by_power": "A minute, two from 1 hp up"
  },
  "differential_school": {
   "keep": "Keep the usual 138 kPa",
   "leave": "Leave that nut alone",
   "widen": "Widen it"
  },
  "check_school": {
   "half_year": "Every half year",
   "yearly": "Every year",
   "five_years": "Every five years",
   "measured": "From the measured loss"
  },
  "cut_off_school": {
   "either": "Either way",
   "fit": "Fit it",
   "avoid": "Avoid it"
  }
 }
} as const

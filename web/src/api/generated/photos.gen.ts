export default {
  "switch": "Switch",
  "tank": "Tank plate",
  "pump": "Pump plate",
  "wires": "Wires",
  "other": "Something else",
} as const

"""Zero Dip's core: the arithmetic, the rules and the judgement of pressure-switched pumps.

Pure Python, standard library only. Inside, every number is SI (Pa, m³, m³/s, m, s, K, W); gauge and
absolute pressure are told apart by name. Start at `zerodip.decide.decide` and
`zerodip.document.read_document`.
"""

__version__ = "0.1.0"

/** The version of Python's package, put in by the build. */
declare const __PYODIDE__: string

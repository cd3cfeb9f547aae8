"""The file format: fields, documents, their schema, and files to begin with."""

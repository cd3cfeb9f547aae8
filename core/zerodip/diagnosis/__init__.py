"""From what is seen, heard and measured to the cause: evidence, inference, the next check."""

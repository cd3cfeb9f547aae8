"""Setting a switch as an estimation problem: every try teaches how far this switch moves per
turn."""

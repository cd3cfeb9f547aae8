"""Documents: what a visit hands over, in words of one unit system. How they look is not decided
here."""

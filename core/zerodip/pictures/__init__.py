"""What the screens draw, worked out here: ribbons of water and of air, the tankless window."""

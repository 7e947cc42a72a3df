"""What projects come to, and what they have cost."""

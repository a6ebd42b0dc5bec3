"""What the speed claims rest on: ./gurvo benchmark prints them all, measured in one run."""

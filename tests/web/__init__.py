"""What the web works out by itself, run by Node without a browser."""

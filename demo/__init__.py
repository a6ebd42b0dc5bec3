"""The made-up workshop of the demo: a small hill-country works. Nobody and nothing here exists."""

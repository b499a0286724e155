"""Speeds and sizes as ratios measured side by side in one run, written to docs/benchmarks.md."""

"""Document and time to picture, document and range to samples; pieces for playing; exports."""

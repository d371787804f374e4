"""The craft: notation, work on the hook, proof, measures, grading. Pure, no I/O."""

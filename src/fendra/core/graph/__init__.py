"""The graph that effects and expressions become: nodes, operations, tracing, time, passes."""

"""What Fandle can do, one module a verb: a situation in, a frozen answer out.

The only place that says which parts of the core are asked, in which order, and what is done where one has no answer.
"""

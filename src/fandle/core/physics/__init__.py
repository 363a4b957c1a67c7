"""Compiled kernels of the motion of balls. SI units and radians; never raise, NaN means no answer."""

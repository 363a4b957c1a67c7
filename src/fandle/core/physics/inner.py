"""Kernels called by kernels: compiled as far as their callers need, without machine code of their own.

Left to itself numba makes a library of every kernel, with all that it calls linked in and optimised again, and
machine code and wrappers for Python besides: more than half of the compilation. What a caller needs is a kernel's
own code before that; all of it is linked once, where Python calls in (docs/decisions/kernel-cache.md). This leans on
numba's inner parts, so that its version is bounded on both sides; tests/core/physics/test_compiling.py says when they
moved.
"""

from typing import Any

import numba.core.compiler
import numba.core.compiler_lock
import numba.core.event

NUMBA: Any = numba.core  # without types


def lean(dispatcher: Any) -> None:
    """Compile this kernel so wherever another kernel calls it, and wholly once Python does."""
    inner: set[tuple[Any, ...]] = set()
    template, from_python = dispatcher.get_call_template, dispatcher._compile_for_args

    def called_by_kernel(given: Any, named: Any) -> Any:
        kinds = tuple(dispatcher.fold_argument_types(given, named)[1])
        with NUMBA.compiler_lock.global_compiler_lock:
            if kinds not in dispatcher.overloads:
                _compile(dispatcher, kinds)
                inner.add(kinds)
            return template(given, named)

    def called_by_python(*given: Any, **named: Any) -> Any:
        with NUMBA.compiler_lock.global_compiler_lock:
            while inner:
                del dispatcher.overloads[inner.pop()]
            return from_python(*given, **named)

    dispatcher.get_call_template, dispatcher._compile_for_args = called_by_kernel, called_by_python


def _compile(dispatcher: Any, kinds: tuple[Any, ...]) -> None:
    """As far as LLVM's code of this kernel alone; its caller links that, and all that this one calls."""
    flags = NUMBA.compiler.Flags()
    dispatcher.targetdescr.options.parse_as_flags(flags, dispatcher.targetoptions)
    flags.no_compile = flags.no_cpython_wrapper = flags.no_cfunc_wrapper = True
    told = {"dispatcher": dispatcher, "args": kinds, "return_type": None}
    with NUMBA.event.trigger_event("numba:compile", data=told):
        found = NUMBA.compiler.compile_extra(
            dispatcher.typingctx, dispatcher.targetctx, dispatcher.py_func, kinds, None, flags, {}
        )
    found.library._finalized = True
    key = (dispatcher, kinds)  # in place of the function that Python would call
    libraries = dict.fromkeys([found.library, *found.library._linking_libraries])
    dispatcher.targetctx.insert_user_function(key, found.fndesc, list(libraries))
    dispatcher.overloads[kinds] = found._replace(entry_point=key)

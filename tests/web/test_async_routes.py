"""No route on the event loop works anything out or reads the club: while it does, nothing else is answered."""

import ast
from pathlib import Path

import pytest

WEB = Path(__file__).parent.parent.parent / "src/fandle/web"
# what async routes call themselves: solvers and threads are asked, replies are put together; none of these reads a
# record, solves anything, or takes longer for a larger club. A name is added only after looking at what it does.
LIGHT = {
    "BadInputError", "Counts", "RedirectResponse", "Response", "Teller", "_Told", "_answered", "_drift", "_example",
    "_from_log", "_page", "_told", "_variation", "abs", "all_processors", "answer", "at_once", "body", "checked", "compared",
    "decode", "drill_of", "dumps", "enter", "get", "isinstance", "known", "len", "max", "model_dump", "now", "of", "page_of",
    "page_text", "parse_qs", "pass_response", "plan", "preferred", "read", "received", "require_target", "room_for_long",
    "rounded", "run", "run_in_threadpool", "said", "screen_of", "set_cookie", "library_of", "show", "solve", "str", "strategy", "streamed", "sum",
    "trust_map", "upper", "vary", "works_of",
}  # fmt: skip
ROUTES = {"get", "post", "put", "patch", "delete"}


def async_routes() -> list[tuple[Path, ast.AsyncFunctionDef]]:
    """Every route that is answered on the event loop."""
    found = []
    for path in sorted(WEB.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.AsyncFunctionDef) and any(
                isinstance(d, ast.Call) and isinstance(d.func, ast.Attribute) and d.func.attr in ROUTES
                for d in node.decorator_list
            ):
                found.append((path, node))
    return found


def own_calls(node: ast.AST) -> set[str]:
    """What a function calls itself, leaving out what is called in the functions that it hands to others."""
    called: set[str] = set()
    for child in ast.iter_child_nodes(node):
        if isinstance(child, ast.FunctionDef | ast.AsyncFunctionDef | ast.Lambda):
            continue
        if isinstance(child, ast.Call):
            called.add(child.func.attr if isinstance(child.func, ast.Attribute) else getattr(child.func, "id", "?"))
        called |= own_calls(child)
    return called


def body_calls(route: ast.AsyncFunctionDef) -> set[str]:
    return set().union(*(own_calls(ast.Module([line], [])) for line in route.body))


@pytest.mark.parametrize("route", async_routes(), ids=lambda route: f"{route[0].stem}-{route[1].name}")
def test_an_async_route_hands_its_work_on(route: tuple[Path, ast.AsyncFunctionDef]) -> None:
    path, function = route
    heavy = body_calls(function) - LIGHT
    assert heavy == set(), f"{path.relative_to(WEB)}: {function.name} calls {sorted(heavy)} on the event loop"


def test_there_are_such_routes_and_a_bad_one_is_found() -> None:
    assert len(async_routes()) > 25
    bad = ast.parse("async def post(request):\n    return [row for row in log.every(request.app.state.database)]").body[
        0
    ]
    assert isinstance(bad, ast.AsyncFunctionDef)
    assert body_calls(bad) - LIGHT == {"every"}

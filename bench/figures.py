"""``make figures``: file and function sizes, documentation, annotations, import loops and the tests' share."""

import ast
import statistics
import subprocess
from pathlib import Path

import networkx as nx

ROOT = Path(__file__).resolve().parents[1]
SKIP = ("migrations/", "schema.d.ts", "node_modules")


def files(*patterns: str) -> list[Path]:
    """Tracked source files."""
    listed = subprocess.run(["git", "ls-files", *patterns], cwd=ROOT, check=True, capture_output=True, text=True).stdout
    return [ROOT / name for name in listed.split() if not any(s in name for s in SKIP)]


def lines(path: Path) -> int:
    """Lines that are not blank."""
    return sum(bool(line.strip()) for line in path.read_text().splitlines())


def functions(path: Path) -> list[ast.FunctionDef]:
    """Every function of a file."""
    return [n for n in ast.walk(ast.parse(path.read_text())) if isinstance(n, ast.FunctionDef)]


def outer_functions(path: Path) -> list[ast.FunctionDef]:
    """Functions and methods, without those inside other functions."""
    tree = ast.parse(path.read_text())
    places = [tree, *(n for n in tree.body if isinstance(n, ast.ClassDef))]
    return [n for place in places for n in place.body if isinstance(n, ast.FunctionDef)]


def body(function: ast.FunctionDef) -> int:
    """Lines of a function's body, its docstring left out."""
    inner = function.body[1:] if ast.get_docstring(function) else function.body
    return inner[-1].end_lineno - inner[0].lineno + 1 if inner else 0


def annotated(function: ast.FunctionDef) -> bool:
    """Whether all arguments and the answer are annotated."""
    arguments = [a for a in function.args.args + function.args.kwonlyargs if a.arg not in {"self", "cls"}]
    return function.returns is not None and all(a.annotation for a in arguments)


def import_loops() -> int:
    """Loops among the core's and the server's modules, late imports included."""
    graph = nx.DiGraph()
    for path in files("core/**/*.py", "server/**/*.py"):
        name = ".".join(path.relative_to(ROOT).with_suffix("").parts[1:]).removesuffix(".__init__")
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom) and node.module and node.module.startswith("nodulant"):
                graph.add_edge(name, node.module)
    return sum(1 for part in nx.strongly_connected_components(graph) if len(part) > 1)


def main() -> None:
    """Print the table."""
    python, web, tests = (
        files("core/**/*.py", "server/**/*.py"),
        files("web/src/**/*.ts", "web/src/**/*.tsx"),
        files("tests/**/*.py"),
    )
    every = python + web
    sizes = [lines(p) for p in every if lines(p)]
    made = [f for p in python for f in functions(p)]
    lengths = sorted(body(f) for f in made)
    public = [f for p in files("core/**/*.py") for f in outer_functions(p) if not f.name.startswith("_")]
    all_lines = sum(lines(p) for p in files("*.py", "*.ts", "*.tsx"))
    rows = (
        ("files: median / longest, lines", f"{statistics.median(sizes):.0f} / {max(sizes)}"),
        (
            "functions: median / 90th percentile / longest",
            f"{statistics.median(lengths):.0f} / {lengths[int(0.9 * len(lengths))]} / {lengths[-1]}",
        ),
        (
            "public functions of the core documented",
            f"{100 * sum(bool(ast.get_docstring(f)) for f in public) / len(public):.0f} %",
        ),
        ("functions fully annotated", f"{100 * sum(annotated(f) for f in made) / len(made):.0f} %"),
        ("import loops", str(import_loops())),
        ("tests' share of the lines", f"{100 * sum(lines(p) for p in tests) / all_lines:.0f} %"),
    )
    for name, value in rows:
        print(f"{name:48} {value}")
    for path in sorted(every, key=lines)[-5:]:
        print(f"  {lines(path):4} {path.relative_to(ROOT)}")
    for function in sorted(made, key=body)[-5:]:
        print(f"  {body(function):4} {function.name}")


if __name__ == "__main__":
    main()

#!/usr/bin/env python3
"""Where the time of a build goes: job-seconds by folder, the ten slowest files, the share of headers.

  scripts/build_times.py build/release                    of a folder that ninja has built
  scripts/build_times.py build/demo ../before/build/demo  the same, and as a ratio to another build
  scripts/build_times.py --headers                        what including vole/vole.hpp costs, against five standard headers

Seconds are those of the jobs as they ran, so they grow when the machine is busy: compare what was built in the same hour, with
nothing beside it. The share of headers is measured by compiling the include lines of ten sources and nothing else.
"""
import argparse
import collections
import os
import re
import resource
import subprocess
import sys
import tempfile

STANDARD = "".join(f"#include <{name}>\n" for name in ("string", "vector", "functional", "memory", "map"))


def jobs(build):
    """The last run of each job, as seconds by what it makes."""
    seconds = {}
    with open(os.path.join(build, ".ninja_log"), encoding="utf-8") as log:
        for line in log:
            parts = line.rstrip("\n").split("\t")
            if len(parts) == 5:
                seconds[parts[3]] = (int(parts[1]) - int(parts[0])) / 1000
    return seconds


def source_of(output):
    """src/scene/stage.cpp for CMakeFiles/vole_core.dir/src/scene/stage.cpp.o"""
    return re.sub(r"(^|/)CMakeFiles/[^/]*\.dir/", r"\1", output).removesuffix(".o")


def folder_of(output):
    parts = os.path.dirname(source_of(output)).split("/")
    return "/".join(parts[:2]) or "."


def by_folder(seconds):
    sums = collections.Counter()
    counts = collections.Counter()
    for output, time in seconds.items():
        if output.endswith((".o", ".gch")):
            sums[folder_of(output)] += time
            counts[folder_of(output)] += 1
    return sums, counts


def compile_seconds(command, text, folder):
    """Processor time of a compiler that reads this text; the best of three."""
    with tempfile.NamedTemporaryFile("w", suffix=".cpp", dir=folder, delete=False) as file:
        file.write(text)
    try:
        best = None
        for _ in range(3):
            before = resource.getrusage(resource.RUSAGE_CHILDREN).ru_utime
            subprocess.run([*command, "-c", file.name, "-o", "/dev/null"], check=True, stderr=subprocess.DEVNULL)
            used = resource.getrusage(resource.RUSAGE_CHILDREN).ru_utime - before
            best = used if best is None else min(best, used)
        return best
    finally:
        os.unlink(file.name)


def share_of_headers(build, slowest):
    """Of the slowest sources: what their includes cost, as a share of the whole."""
    headers = whole = 0.0
    for output, _ in slowest:
        found = subprocess.run(["ninja", "-C", build, "-t", "commands", "-s", output], capture_output=True, text=True, check=False)
        words = found.stdout.split()
        if "-c" not in words:
            continue
        source = words[words.index("-c") + 1]
        if not source.endswith(".cpp") or not os.path.isfile(source):
            continue
        words = [word for word in words[: words.index("-o")] if word != "-MD"]
        with open(source, encoding="utf-8") as file:
            text = file.read()
        includes = "".join(line + "\n" for line in text.splitlines() if line.startswith("#include"))
        folder = os.path.dirname(source)
        try:
            headers += compile_seconds(words, includes, folder)
            whole += compile_seconds(words, text, folder)
        except subprocess.CalledProcessError:
            continue
    return headers / whole if whole else None


def print_headers():
    root = os.path.join(os.path.dirname(os.path.abspath(__file__)), "..")
    command = [os.environ.get("CXX", "g++"), "-std=c++20", "-O2", "-I" + os.path.join(root, "include")]
    with tempfile.TemporaryDirectory() as folder:
        # In turns, so that a machine that slows down slows both.
        turns = [(compile_seconds(command, STANDARD, folder), compile_seconds(command, '#include "vole/vole.hpp"\n', folder)) for _ in range(5)]
    standard, vole = (min(seconds) for seconds in zip(*turns))
    print(f"five headers of the standard library: {standard:.2f} s; vole/vole.hpp: {vole:.2f} s; {vole / standard:.2f} times")


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("build", nargs="?", help="a folder that ninja has built")
    parser.add_argument("other", nargs="?", help="another, to compare with")
    parser.add_argument("--headers", action="store_true", help="compile vole/vole.hpp alone")
    options = parser.parse_args()
    if options.headers:
        return print_headers()
    if not options.build:
        parser.error("name a folder that ninja has built, or say --headers")
    for build in filter(None, (options.build, options.other)):
        if not os.path.isfile(os.path.join(build, ".ninja_log")):
            sys.exit(f"{build}: ninja has built nothing here")
    seconds = jobs(options.build)
    other = jobs(options.other) if options.other else None
    sums, counts = by_folder(seconds)
    other_sums = by_folder(other)[0] if other else {}
    print("job-seconds  files  folder" + ("  (times the other build)" if other else ""))
    for folder, time in sums.most_common():
        ratio = f"  ({time / other_sums[folder]:.2f})" if other_sums.get(folder) else ""
        print(f"{time:11.1f}  {counts[folder]:5}  {folder}{ratio}")
    total = sum(sums.values())
    print(f"{total:11.1f}  {sum(counts.values()):5}  in all" + (f"  ({total / sum(other_sums.values()):.2f})" if other else ""))
    compiled = [(output, time) for output, time in seconds.items() if output.endswith(".o")]
    slowest = sorted(compiled, key=lambda job: -job[1])[:10]
    print("\nthe slowest")
    for output, time in slowest:
        print(f"{time:11.1f}  {source_of(output)}")
    share = share_of_headers(options.build, slowest)
    if share is not None:
        print(f"\nheaders are {share:.0%} of compiling these")


if __name__ == "__main__":
    main()

#!/usr/bin/env python3
"""Does what docs/tutorial.md says, from an empty folder, and compares its pictures with those made on the way.

    tutorial_test.py TUTORIAL FOLDER_OF_VOLE BUILD_TREE [--update]

A fenced block "sh" is run; "LANGUAGE FILE" is written to the file, "LANGUAGE append FILE" added to its end. A picture
screenshots/tutorial-NAME.png is the NAME.png that a command has made; --update puts it there.
"""
import filecmp
import os
import pathlib
import re
import shutil
import subprocess
import sys
import tempfile


def main():
    update = "--update" in sys.argv
    tutorial, tool, build = (pathlib.Path(word).resolve() for word in sys.argv[1:4])
    environment = dict(os.environ, PATH=f"{tool}:{os.environ['PATH']}", CMAKE_PREFIX_PATH=str(build))
    text = tutorial.read_text()
    blocks = re.findall(r"^```(\w+)([^\n]*)\n(.*?)^```$", text, re.DOTALL | re.MULTILINE)
    commands = 0
    with tempfile.TemporaryDirectory() as folder:
        work = pathlib.Path(folder)
        for language, where, body in blocks:
            if language == "sh":
                commands += 1
                ran = subprocess.run(["sh", "-ec", body], cwd=work, env=environment, text=True,
                                     stdout=subprocess.PIPE, stderr=subprocess.STDOUT)
                if ran.returncode != 0:
                    sys.exit(f"failed:\n{body}\n{ran.stdout}")
            elif where.split()[:1] == ["append"]:
                with open(work / where.split()[1], "a") as file:
                    file.write(body)
            elif where.strip():
                (work / where.strip()).write_text(body)
        pictures = re.findall(r"\(screenshots/tutorial-([\w-]+)\.png\)", text)
        for name in pictures:
            made, shown = work / f"{name}.png", tutorial.parent / "screenshots" / f"tutorial-{name}.png"
            if update:
                shutil.copyfile(made, shown)
            elif not filecmp.cmp(made, shown, shallow=False):
                sys.exit(f"{shown} is not what the commands make: run this with --update, and look at it")
    if commands < 6 or len(pictures) < 2:
        sys.exit(f"only {commands} commands and {len(pictures)} pictures were found")
    print(f"{commands} blocks of commands and {len(pictures)} pictures are as the tutorial has them")


main()

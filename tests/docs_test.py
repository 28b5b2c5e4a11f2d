#!/usr/bin/env python3
"""Reads what the pages show, so that they cannot fall behind: links and headings, TOML against the schemas, C++ names against
the headers, commands against the program.

  docs_test.py REPOSITORY VOLE
"""
import json
import os
import re
import shlex
import subprocess
import sys
import tempfile
import tomllib
import unittest

import jsonschema

ROOT, VOLE = (os.path.abspath(word) for word in sys.argv[1:3])
PAGES = ["README.md"] + sorted("docs/" + name for name in os.listdir(os.path.join(ROOT, "docs")) if name.endswith(".md"))
GAMES = ["examples/allotment", "examples/milkround", "examples/towpath", "docs/yard"]
# What a game says of its own in the pages, beside what they define.
OTHERS = set("size begin end push_back data c_str empty contains find count str value front back substr length".split())


def text_of(path):
    with open(os.path.join(ROOT, path), encoding="utf-8") as file:
        return file.read()


def blocks(page, language):
    """The code blocks of a language, each with the line on which it begins."""
    found = []
    for match in re.finditer(r"^```" + language + r"\n(.*?)^```$", text_of(page), re.M | re.S):
        found.append((text_of(page)[: match.start()].count("\n") + 2, match.group(1)))
    return found


def words_of_headers():
    words = set()
    for top in ("include", "hosts/include"):
        for folder, _, files in os.walk(os.path.join(ROOT, top)):
            for name in files:
                with open(os.path.join(folder, name), encoding="utf-8") as file:
                    words.update(re.findall(r"\w+", file.read()))
    return words


def is_wrong(error):
    """Part of a file lacks what the file must have; so that is no error here."""
    if error.validator == "required":
        return False
    if error.validator in ("anyOf", "oneOf") and error.context:
        choices = {}
        for inner in error.context:
            choices.setdefault(inner.schema_path[0], []).append(inner)
        return all(any(is_wrong(inner) for inner in choice) for choice in choices.values())
    return True


def all_schemas():
    with tempfile.TemporaryDirectory() as folder:
        subprocess.run([VOLE, "schema", "-o", folder], check=True, stdout=subprocess.DEVNULL)
        schemas = {}
        for name in os.listdir(folder):
            with open(os.path.join(folder, name), encoding="utf-8") as file:
                schemas[name.split(".")[0]] = json.load(file)
        return schemas


def keys_of(schema):
    """All keys that a schema names, however deep."""
    keys = set()
    if isinstance(schema, dict):
        keys.update(schema.get("properties", {}))
        for part in schema.values():
            keys |= keys_of(part)
    elif isinstance(schema, list):
        for part in schema:
            keys |= keys_of(part)
    return keys


class Docs(unittest.TestCase):
    maxDiff = None

    def test_links_lead_to_pages_headings_and_pictures(self):
        def anchors(page):
            plain = re.sub(r"```.*?```", "", text_of(page), flags=re.S)
            return {re.sub(r"[^\w\- ]", "", heading.lower()).strip().replace(" ", "-") for heading in re.findall(r"^#+ (.*)$", plain, re.M)}

        for page in PAGES:
            for target in re.findall(r"\]\(([^)\s]+)\)", text_of(page)):
                if "://" in target:
                    continue
                path, _, anchor = target.partition("#")
                with self.subTest(page=page, target=target):
                    full = os.path.normpath(os.path.join(os.path.dirname(page), path)) if path else page
                    self.assertTrue(os.path.exists(os.path.join(ROOT, full)))
                    if anchor:
                        self.assertIn(anchor, anchors(full))

    def test_toml_is_what_a_file_may_say(self):
        schemas = {name: jsonschema.Draft202012Validator(schema) for name, schema in all_schemas().items()}
        for page in PAGES:
            for line, text in blocks(page, "toml"):
                with self.subTest(page=page, line=line):
                    content = tomllib.loads(text)
                    if set(content) <= {"tileset", "colours", "numbers"}:
                        continue  # the table of `vole level import`, for which there is no schema
                    # Components may stand alone, without the kind that has them.
                    tries = [(name, schema, content) for name, schema in schemas.items()] + [("kinds", schemas["kinds"], {"a": content})]
                    wrong = {}
                    for name, schema, what in tries:
                        wrong[name] = [error.message for error in schema.iter_errors(what) if is_wrong(error)]
                        if not wrong[name]:
                            break
                    else:
                        fewest = min(wrong, key=lambda name: len(wrong[name]))
                        self.fail(f"no file may say this; nearest is a {fewest} file: {wrong[fewest]}")

    def test_tables_of_keys_name_keys_that_there_are(self):
        keys = set()
        for schema in all_schemas().values():
            keys |= keys_of(schema)
        for row in re.findall(r"^\| (`[^|]*) \|", text_of("docs/files.md"), re.M):
            for word in re.findall(r"`\[*(\w+)[\]`.=]", row):
                with self.subTest(row=row, word=word):
                    self.assertIn(word, keys)

    def test_what_tables_of_keys_set_are_keys_too(self):
        keys = set()
        for schema in all_schemas().values():
            keys |= keys_of(schema)
        names_of_games = {"beds", "step", "done", "calm", "bulb", "worth", "3"}
        for row in re.findall(r"^\|.*\|$", text_of("docs/files.md"), re.M):
            for words in re.findall(r"`([^`]*)`", row):
                for word in re.findall(r"^(\w+) = |[{,] (\w+) = ", words):
                    key = word[0] or word[1]
                    with self.subTest(words=words):
                        self.assertTrue(key.isupper() or key in keys | names_of_games, f"no file has a key {key}")

    def test_cpp_names_what_is_there(self):
        known = words_of_headers()
        for page in PAGES:
            parts = blocks(page, "cpp")
            own = set(re.findall(r"(?:struct|class|void|int|bool|float|auto&?) (\w+)", "\n".join(text for _, text in parts)))
            for line, text in parts:
                code = re.sub(r"//.*", "", re.sub(r'"(?:[^"\\]|\\.)*"', '""', text))
                used = set(re.findall(r"vole::(\w+)", code)) | set(re.findall(r"(?:\.|->)(\w+)\(", code))
                with self.subTest(page=page, line=line):
                    self.assertEqual(sorted(used - known - own - OTHERS), [])
                for header in re.findall(r"#include <(vole/[^>]+)>", text):
                    with self.subTest(page=page, line=line, header=header):
                        self.assertTrue(any(os.path.exists(os.path.join(ROOT, top, header)) for top in ("include", "hosts/include")))

    def test_commands_are_understood_and_do_what_they_say(self):
        helps = {}
        for page in PAGES:
            if page == "docs/tutorial.md":
                continue  # tutorial_test.py does all of it
            for line, text in blocks(page, "sh"):
                for command in text.splitlines():
                    words = shlex.split(command, comments=True)
                    if len(words) < 2 or words[0] != "vole" or words[1].startswith("-"):
                        continue
                    with self.subTest(page=page, line=line, command=command):
                        # "vole level import" is a command of two words.
                        sub = words[1:3] if words[1] == "level" else words[1:2]
                        key = " ".join(sub)
                        if key not in helps:
                            helps[key] = subprocess.run([VOLE, *sub, "--help"], capture_output=True, text=True, check=True).stdout
                        for option in (word for word in words if word.startswith("--")):
                            self.assertIn(option, helps[key])
                        if words[1] == "preview" and "--watch" not in words and "-o" in words:
                            self.preview(words[1:])

    def preview(self, words):
        games = [game for game in GAMES if os.path.exists(os.path.join(ROOT, game, words[1]))]
        self.assertNotEqual(games, [], "no example has this file")
        at = words.index("-o") + 1
        with tempfile.TemporaryDirectory() as folder:
            words[at] = os.path.join(folder, os.path.basename(words[at]))
            said = ""
            for game in games:
                ran = subprocess.run([VOLE, *words], cwd=os.path.join(ROOT, game), capture_output=True, text=True, check=False)
                if ran.returncode == 0 and os.path.getsize(words[at]) > 0:
                    return
                said += ran.stderr
            self.fail(said)


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])

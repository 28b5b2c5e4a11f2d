"""Checks TOML files against the JSON Schemas that `vole schema` writes, by a validator that is not ours.

usage: validate_schemas.py SCHEMA_FOLDER FILE...   prints what is wrong; exits 1 if anything is
"""

import json
import pathlib
import sys
import tomllib

import jsonschema

KINDS = {"game.toml": "game", "controls.toml": "controls", "kinds.toml": "kinds"}


def schema_for(path):
    name = path.name
    if name in KINDS:
        return KINDS[name]
    parts = name.split(".")
    return "run" if parts[-1] == "run" else parts[-2]


def main():
    folder = pathlib.Path(sys.argv[1])
    wrong = 0
    for text in sys.argv[2:]:
        path = pathlib.Path(text)
        schema = json.loads((folder / f"{schema_for(path)}.schema.json").read_text())
        jsonschema.Draft202012Validator.check_schema(schema)
        content = tomllib.loads(path.read_text())
        for error in jsonschema.Draft202012Validator(schema).iter_errors(content):
            where = "/".join(str(part) for part in error.absolute_path)
            print(f"{path}: {where}: {error.message}")
            wrong += 1
    return 1 if wrong else 0


sys.exit(main())

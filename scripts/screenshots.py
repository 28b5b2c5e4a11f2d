#!/usr/bin/env python3
"""Makes the pictures in docs/screenshots anew, from the demo data and a build.

  scripts/screenshots.py build/release

Those of the tutorial are made by tests/tutorial_test.py --update; page.png is a photograph of a browser.
"""
import pathlib
import struct
import subprocess
import sys
import tempfile
import zlib

root = pathlib.Path(__file__).resolve().parent.parent
shots = root / "docs/screenshots"
ground = bytes((0x2f, 0x2b, 0x45, 0xff))


def read_png(path):
    """Rows of RGBA, of a PNG as Vole writes it."""
    data, at, packed = path.read_bytes(), 8, b""
    while at < len(data):
        length, kind = struct.unpack(">I4s", data[at:at + 8])
        if kind == b"IHDR":
            width, height = struct.unpack(">II", data[at + 8:at + 16])
        if kind == b"IDAT":
            packed += data[at + 8:at + 8 + length]
        at += length + 12
    raw, rows, above = zlib.decompress(packed), [], bytearray(width * 4)
    for y in range(height):
        start = y * (width * 4 + 1)
        filtered, row = raw[start], bytearray(raw[start + 1:start + 1 + width * 4])
        for x in range(len(row)):
            left = row[x - 4] if x >= 4 else 0
            corner = above[x - 4] if x >= 4 else 0
            if filtered == 1:
                row[x] = row[x] + left & 255
            elif filtered == 2:
                row[x] = row[x] + above[x] & 255
            elif filtered == 3:
                row[x] = row[x] + (left + above[x]) // 2 & 255
            elif filtered == 4:
                guess = left + above[x] - corner
                near = min((abs(guess - left), 0, left), (abs(guess - above[x]), 1, above[x]), (abs(guess - corner), 2, corner))
                row[x] = row[x] + near[2] & 255
        rows.append(bytes(row))
        above = row
    return rows


def write_png(path, rows):
    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
    head = struct.pack(">IIBBBBB", len(rows[0]) // 4, len(rows), 8, 6, 0, 0, 0)
    path.write_bytes(b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) +
                     chunk(b"IDAT", zlib.compress(b"".join(b"\0" + row for row in rows), 9)) + chunk(b"IEND", b""))


def stack(path, first, second):
    """One below the other."""
    above, below = read_png(first), read_png(second)
    width = max(len(above[0]), len(below[0]))
    write_png(path, [row + ground * ((width - len(row)) // 4) for row in above + below])


def menus(work, play):
    """The ready scenes: settings over a title, keys, high scores that were there already."""
    recording = 'game = "{}"\nticks = {}\nscene = "title"\ninputs = [{}]\n'
    (work / "settings.run").write_text(recording.format(
        "allotment", 60, '"10 settings +; +1 settings -", "40 *asked \\"key ArrowDown\\""'))
    play("allotment", f"--replay {work / 'settings.run'} --scale 2", "part-4.png")
    play("milkround", "--scene keys --ticks 20 --scale 2", "part-5.png")
    best = ", ".join(f'{{ name = "{name}", points = {points}, mark = {points} }}' for name, points in
                     (("Hazel", 512), ("Moss", 430), ("Reed", 388), ("Bram", 301), ("Tansy", 164)))
    holds = f"[values.'high scores']\nbest = [{best}]\nlast_name = 'Moss'\n"
    (work / "scores.run").write_text(
        'game = "towpath"\nticks = 30\nscene = "high scores"\nwith = "points = 347\\nunit = \'m\'"\ninputs = []\n'
        f"[[arrived]]\ntick = 0\n[[arrived.values]]\nname = 'high scores'\nholds = \'\'\'{holds}\'\'\'\n")
    play("towpath", f"--replay {work / 'scores.run'} --scale 2", "part-6.png")
    stack(work / "part-7.png", work / "part-4.png", work / "part-5.png")
    stack(work / "menus.png", work / "part-7.png", work / "part-6.png")


def main():
    if len(sys.argv) != 2:
        sys.exit(__doc__)
    build = pathlib.Path(sys.argv[1]).resolve()
    with tempfile.TemporaryDirectory() as folder:
        work = pathlib.Path(folder)

        def preview(words, name, game="examples/allotment"):
            subprocess.run([build / "cli/vole", "preview", *words.split(), "-o", work / name], cwd=root / game, check=True)
            return work / name

        def play(game, words, name):
            subprocess.run([build / f"examples/{game}/{game}", "--headless", *words.split(), "--shot", f"{work / name}"],
                           cwd=root / "examples" / game, check=True)

        for words, name in (("kinds.toml", "kinds.png"), ("kinds.toml --kind vole --show jump", "jump.png"),
                            ("levels/beds.level.toml --show reach --kind vole", "reach.png"),
                            ("assets/cellar.tileset.toml --show edges", "edges.png"),
                            ("assets/earth.tileset.toml", "tileset.png"), ("assets/magpie.sheet.toml", "magpie.gif")):
            preview(words, name)
        preview("levels/yard.level.toml --show shapes", "collisions.png", "docs/yard")
        stack(work / "rules.png", preview("assets/vole.sheet.toml --show rules", "part-1.png"),
              preview("kinds.toml --kind dog --show mind", "part-2.png", "examples/milkround"))
        subprocess.run([build / "cli/vole", "atlas", root / "examples/allotment", "-o", work / "packed"], check=True,
                       stdout=subprocess.DEVNULL)
        stack(work / "sheet.png", preview("assets/vole.sheet.toml", "part-3.png"), work / "packed/atlas-1.png")
        harvest = "--replay recordings/harvest.run"
        play("allotment", f"{harvest} --xray", "xray.png@700")
        play("allotment", f"{harvest} --xray camera,pivots", "camera.png@583")
        play("allotment", harvest, "planks.png@640")
        play("allotment", harvest, "cellar.png@1560")
        play("milkround", "--replay recordings/round.run", "milkround.png@520")
        play("towpath", "--replay recordings/home.run", "towpath.png@900")
        menus(work, play)
        for picture in sorted(work.iterdir()):
            if picture.suffix in (".png", ".gif") and not picture.name.startswith("part-"):
                (shots / picture.name).write_bytes(picture.read_bytes())
                print(shots / picture.name)


if __name__ == "__main__":
    main()

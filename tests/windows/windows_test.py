#!/usr/bin/env python3
"""Plays what `vole package --target windows` makes under wine, without a window and in one, and compares with native runs:

  windows_test.py WINE NATIVE_ALLOTMENT ALLOTMENT_FOLDER ALLOTMENT.zip NEW_GAME.zip WORK
"""
import os
import re
import shutil
import subprocess
import sys
import time
import unittest
import zipfile

sys.path.insert(0, os.path.dirname(os.path.dirname(os.path.abspath(__file__))))
from pictures import cut_canvas, differing_pixels, enlarge, fingerprints, lightness, size_of  # noqa: E402

WINE, NATIVE, SOURCE, ALLOTMENT, NEW_GAME, WORK = (os.path.abspath(word) for word in sys.argv[1:7])
CANVAS = (320, 180)
# A folder that no narrow encoding of Windows can name whole.
FOLDER = os.path.join(WORK, "Грядка 畑 ñ")


def unpacked(package):
    with zipfile.ZipFile(package) as archive:
        archive.extractall(FOLDER)
        names = archive.namelist()
    return os.path.join(FOLDER, names[0].split("/")[0])


def program_of(folder):
    return next(os.path.join(folder, name) for name in os.listdir(folder) if name.endswith(".exe"))


def run(folder, *words):
    ran = subprocess.run([WINE, program_of(folder), *words], cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.PIPE,
                         text=True, check=False, timeout=120)
    return ran.returncode, ran.stdout, ran.stderr


def native(*words):
    ran = subprocess.run([NATIVE, "--headless", *words], stdout=subprocess.PIPE, text=True, check=False)
    return ran.returncode, ran.stdout


def key(name, seconds):
    subprocess.run(["xdotool", "keydown", name], check=True)
    time.sleep(seconds)
    subprocess.run(["xdotool", "keyup", name], check=True)


def window_of(title):
    found = subprocess.run(["timeout", "60", "xdotool", "search", "--sync", "--onlyvisible", "--name", title],
                           stdout=subprocess.PIPE, text=True, check=False)
    if not found.stdout.strip():
        raise RuntimeError(f'no window "{title}"')
    return found.stdout.split()[-1]


class Playing:
    """The program in a window of the test's own display."""

    def __init__(self, *words, **options):
        self.started = subprocess.Popen([WINE, *words], **options)

    def __enter__(self):
        return self.started

    def __exit__(self, *_):
        if self.started.poll() is None:
            self.started.kill()
        self.started.wait()


class Windows(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        shutil.rmtree(FOLDER, ignore_errors=True)
        cls.allotment = unpacked(ALLOTMENT)
        cls.new_game = unpacked(NEW_GAME)

    def work(self, name):
        return os.path.join(WORK, name)

    def test_a_package_has_one_program_that_asks_for_nothing_but_the_system(self):
        names = os.listdir(self.allotment)
        self.assertEqual([name for name in names if name.endswith((".exe", ".dll"))], ["allotment.exe"])
        for licence in ("vole", "SDL2", "gcc", "mingw-w64", "fmt", "glm"):
            self.assertIn(licence + ".txt", os.listdir(os.path.join(self.allotment, "licences")))
        listing = subprocess.run(["x86_64-w64-mingw32-objdump", "-p", program_of(self.allotment)],
                                 stdout=subprocess.PIPE, text=True, check=True).stdout
        self.assertIn("(Windows GUI)", listing)
        wanted = {name.lower() for name in re.findall(r"DLL Name: (\S+)", listing)}
        of_the_system = {"advapi32.dll", "gdi32.dll", "imm32.dll", "kernel32.dll", "msvcrt.dll", "ole32.dll",
                         "oleaut32.dll", "setupapi.dll", "shell32.dll", "user32.dll", "version.dll", "winmm.dll"}
        self.assertLessEqual(wanted, of_the_system)
        with open(program_of(self.allotment), "rb") as file:
            program = file.read()
        for text in ("The Allotment", "allotment.exe", "ProductVersion"):
            self.assertIn(text.encode("utf-16-le"), program)
        self.assertIn(b"longPathAware", program)

    def test_the_icon_has_the_sizes_that_are_asked_for(self):
        icon, picture = os.path.join(SOURCE, "build/windows/resource/game.ico"), os.path.join(SOURCE, "assets/icon.png")
        sides = [size_of(f"{icon}[{i}]") for i in range(6)]
        self.assertEqual(sides, [(side, side) for side in (16, 24, 32, 48, 64, 256)])
        self.assertEqual(fingerprints([f"{icon}[4]"], "-background", "gray", "-flatten"),
                         fingerprints([picture], "-background", "gray", "-flatten"))
        self.assertEqual(fingerprints([f"{icon}[5]"], "-background", "gray", "-flatten"),
                         fingerprints([picture], "-background", "gray", "-flatten", "-filter", "point", "-resize", "256x256"))
        # The small ones are means: all over, as light as the picture.
        for i in range(4):
            self.assertAlmostEqual(lightness(f"{icon}[{i}]"), lightness(picture), delta=0.02)
        with open(program_of(self.allotment), "rb") as program, open(icon, "rb") as file:
            self.assertIn(file.read()[-1000:], program.read())

    def test_the_shipped_run_ends_as_it_does_natively(self):
        code, said, _ = run(self.allotment, "--headless", "--replay", "recordings/harvest.run", "--shot", "снимок 写真.png@600")
        self.assertEqual(code, 0)
        native_code, native_said = native("--replay", self.allotment + "/recordings/harvest.run", "--shot",
                                          self.work("native.png") + "@600")
        self.assertEqual(native_code, 0)
        self.assertEqual(said.splitlines()[-1], native_said.splitlines()[-1])
        self.assertIn("as recorded", said)
        with open(os.path.join(self.allotment, "снимок 写真.png"), "rb") as a, open(self.work("native.png"), "rb") as b:
            self.assertEqual(a.read(), b.read())

    def test_keys_play_in_a_window_and_the_same_inputs_end_alike_natively(self):
        with Playing(program_of(self.allotment), "--seed", "3", "--scale", "3", "--record", "игра.run",
                     cwd=self.allotment, stdout=subprocess.PIPE, text=True) as game:
            window = window_of("The Allotment")
            time.sleep(2)
            subprocess.run(["import", "-window", window, self.work("window.png")], check=True)
            key("Return", 0.2)
            time.sleep(1)
            key("Right", 0.8)
            key("space", 0.3)
            key("Right", 0.5)
            subprocess.run(["import", "-window", "root", self.work("beds.png")], check=True)
            # As a click on the window's close button.
            subprocess.run(["xdotool", "key", "alt+F4"], check=True)
            self.assertEqual(game.wait(30), 0)
            said = game.stdout.read()
            game.stdout.close()
        # What was seen is what is drawn natively at one of the first ticks.
        part = cut_canvas(self.work("window.png"), CANVAS, self.work("canvas.png"))
        self.assertGreaterEqual(part[0], CANVAS[0] * 3)
        os.makedirs(self.work("ticks"), exist_ok=True)
        shots = [f"{self.work('ticks')}/{tick}.png" for tick in range(1, 600)]
        native("--seed", "3", "--scale", "1", *(word for tick, shot in enumerate(shots, 1) for word in ("--shot", f"{shot}@{tick}")))
        seen = fingerprints([self.work("canvas.png")], "-sample", f"{CANVAS[0]}x{CANVAS[1]}!")[0]
        drawn = fingerprints(shots)
        self.assertIn(seen, drawn, "the window shows what no tick has drawn")
        enlarge(shots[drawn.index(seen)], part, self.work("wanted.png"))
        self.assertEqual(differing_pixels(self.work("canvas.png"), self.work("wanted.png")), 0)
        code, replayed = native("--replay", os.path.join(self.allotment, "игра.run"))
        self.assertEqual(code, 0)
        self.assertIn("as recorded", replayed)
        self.assertIn(re.search("checksum ([0-9a-f]+)", replayed)[1], said)
        with open(os.path.join(self.allotment, "игра.run"), encoding="utf-8") as file:
            recording = file.read()
        for wanted in (r"\d+ start \+", r"\d+ walk 100", r"\d+ jump \+"):
            self.assertRegex(recording, wanted)

    def test_a_new_game_whose_main_function_is_wmain_runs(self):
        code, _, said = run(self.new_game, "--headless", "--ticks", "120", "--record", "ёж 針.run", "--shot", "a.png")
        self.assertEqual(code, 0, said)
        self.assertIn("ёж 針.run", os.listdir(self.new_game))
        code, said, _ = run(self.new_game, "--headless", "--replay", "ёж 針.run")
        self.assertEqual(code, 0)
        self.assertIn("as recorded", said)

    def test_what_is_wrong_is_said(self):
        code, _, said = run(self.allotment, "--headless", "--tick", "5")
        self.assertEqual((code, said.splitlines()[0]), (2, 'no option "--tick"; did you mean "--ticks"?'))
        code, _, said = run(self.allotment, "--headless", "--replay", "recordings/нет.run")
        self.assertEqual(code, 1)
        self.assertIn("recordings/нет.run: error: no such file", said)
        broken = self.work("broken")
        shutil.rmtree(broken, ignore_errors=True)
        shutil.copytree(self.allotment, broken)
        os.remove(os.path.join(broken, "game.toml"))
        code, _, said = run(broken, "--headless", "--ticks", "1")
        self.assertEqual(code, 1)
        self.assertIn("no such file here nor beside the program", said)
        # Started as from a desktop, with nowhere to print to: the message stands in a box.
        with Playing("start", "/wait", "allotment.exe", cwd=broken) as game:
            box = window_of("The game ended")
            time.sleep(1)
            subprocess.run(["import", "-window", box, self.work("box.png")], check=True)
            key("Return", 0.1)
            self.assertEqual(game.wait(30), 1)


unittest.main(argv=["windows_test", "-v"])

#!/usr/bin/env python3
"""Opens the pages that `vole package --target web` makes in a browser, plays in them, and compares with native runs:

  pages_test.py TOOL NATIVE_ALLOTMENT ALLOTMENT_FOLDER ALLOTMENT_PROGRAM.js NEW_GAME_FOLDER NEW_GAME_PROGRAM.js WORK
"""
import json
import re
import shutil
import subprocess
import sys
import time
import unittest
import os

sys.path.insert(0, os.path.dirname(os.path.abspath(__file__)))
sys.path.insert(0, os.path.dirname(os.path.dirname(os.path.abspath(__file__))))
from browser import ESCAPE, F1, RETURN, RIGHT, SPACE, Browser  # noqa: E402
from pictures import cut_canvas, differing_pixels, enlarge, size_of  # noqa: E402

TOOL, NATIVE, ALLOTMENT, ALLOTMENT_JS, NEW_GAME, NEW_GAME_JS, WORK = sys.argv[1:8]


class Served:
    """A game's page on loopback."""

    def __init__(self, folder, program, output):
        self.folder = os.path.join(WORK, output)
        self.tool = subprocess.Popen([TOOL, "package", folder, "--target", "web", "--program", program, "-o",
                                      self.folder, "--serve"], stdout=subprocess.PIPE, text=True)
        for line in self.tool.stdout:
            if found := re.match(r"(http://127\.0\.0\.1:\d+/)", line):
                self.address = found[1]
                break
            self.page = self.folder if line.endswith(".zip\n") else line.strip()
        else:
            raise RuntimeError("the page is not served")
        self.page = next(os.path.join(self.folder, name) for name in os.listdir(self.folder) if name.endswith("-web"))

    def __enter__(self):
        return self

    def __exit__(self, *_):
        self.tool.terminate()
        self.tool.wait()
        self.tool.stdout.close()


def native(*words):
    ran = subprocess.run([NATIVE, "--headless", *words], stdout=subprocess.PIPE, text=True, check=False)
    return ran.returncode, ran.stdout


class Pages(unittest.TestCase):
    def work(self, name):
        return os.path.join(WORK, name)

    def compare_canvas(self, browser, shot):
        """What the page shows against a shot with one pixel to a canvas pixel."""
        browser.script("document.getElementById('cover').hidden = true; document.getElementById('full').hidden = true")
        time.sleep(0.3)
        browser.screenshot(self.work("page.png"))
        shown = cut_canvas(self.work("page.png"), size_of(shot), self.work("canvas.png"))
        enlarge(shot, shown, self.work("wanted.png"))
        self.assertEqual(differing_pixels(self.work("canvas.png"), self.work("wanted.png")), 0)

    def test_the_shipped_run_ends_as_it_does_natively(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "run") as game, Browser() as browser:
            began = time.time()
            browser.open(game.address + "?headless&replay=harvest&shot=600", until=("ended", "failed"))
            print(f"the shipped run, loaded and replayed: {time.time() - began:.1f} s", file=sys.stderr)
            code, said = native("--replay", ALLOTMENT + "/recordings/harvest.run", "--shot", self.work("native.png") + "@600")
            self.assertEqual(code, 0)
            self.assertEqual(browser.printed().splitlines()[-1], said.splitlines()[-1])
            self.assertIn("as recorded", browser.printed())
            with open(self.work("native.png"), "rb") as wanted:
                self.assertEqual(browser.file("shots/600.png"), wanted.read())
            self.assertEqual(browser.complaints(), [])

    def test_a_run_that_is_seen_shows_what_is_drawn_natively_with_webgl_and_without(self):
        native("--replay", ALLOTMENT + "/recordings/harvest.run", "--ticks", "300", "--shot", self.work("at300.png"),
               "--scale", "1")
        for flags in ((), ("--disable-3d-apis",)):
            with self.subTest(flags=flags), Served(ALLOTMENT, ALLOTMENT_JS, "seen") as game, Browser(flags=flags) as browser:
                browser.open(game.address + "?replay=harvest&ticks=300")
                self.assertEqual(browser.script("return document.title"), "The Allotment")
                browser.wait_for(("ended", "failed"))
                self.assertEqual(browser.state(), "ended")
                self.compare_canvas(browser, self.work("at300.png"))

    def test_keys_play_and_the_same_inputs_end_alike_natively(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "keys") as game, Browser() as browser:
            browser.open(game.address + "?seed=3&record=played.run")
            self.assertEqual(browser.state(), "running")
            time.sleep(1.5)
            browser.hold(RETURN, 0.2)
            time.sleep(1)
            browser.hold(RIGHT, 0.8)
            browser.hold(SPACE, 0.3)
            browser.ask("POST", "/window/rect", {"width": 700, "height": 500})
            browser.hold(RIGHT, 0.5)
            width, ratio, shown = browser.script("const c = document.getElementById('canvas');"
                                                 "return [c.width, devicePixelRatio, c.clientWidth]")
            self.assertEqual(width, round(shown * ratio))
            browser.script("module.ccall('vole_close', null, [], [])")
            browser.wait_for(("ended", "failed"))
            self.assertEqual(browser.state(), "ended", browser.message())
            with open(self.work("played.run"), "wb") as run:
                run.write(browser.file("played.run"))
            self.assertIn("start", browser.file("played.run").decode())
            code, said = native("--replay", self.work("played.run"), "--shot", self.work("played.png"), "--scale", "1")
            self.assertEqual(code, 0)
            self.assertIn("as recorded", said)
            checksum = re.search("checksum ([0-9a-f]+)", browser.printed())[1]
            self.assertIn(checksum, said)
            self.assertEqual(browser.complaints(), [])

    def test_settings_and_saves_are_there_when_the_page_is_loaded_again(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "kept") as game, Browser() as browser:
            browser.open(game.address)
            time.sleep(1.5)
            browser.hold(F1, 0.2)
            time.sleep(0.5)
            browser.hold(RETURN, 0.2)  # the first switch
            browser.hold(ESCAPE, 0.2)
            browser.hold(RETURN, 0.2)
            time.sleep(1.5)
            browser.hold(ESCAPE, 0.2)  # the pause saves
            time.sleep(2.5)
            self.assertIn("counters = false", browser.script("return localStorage.getItem('allotment/value wishes.save')"))
            self.assertIn("[[scenes]]", browser.script("return localStorage.getItem('allotment/slot garden.save')"))
            browser.open(game.address + "?record=played.run")
            time.sleep(1.5)
            browser.script("module.ccall('vole_close', null, [], [])")
            browser.wait_for(("ended", "failed"))
            recording = browser.file("played.run").decode()
            self.assertIn("counters = false", recording)
            self.assertIn("The beds", recording)
            self.assertEqual(browser.complaints(), [])

    def test_fingers_play_where_there_are_no_keys(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "fingers") as game, Browser(size=(844, 390), touch=True) as browser:
            browser.open(game.address + "?seed=3&record=played.run")
            time.sleep(1.5)
            browser.touch('[data-control="key Enter"]', 0.2)
            time.sleep(1)
            browser.touch('[data-control="key ArrowRight"]', 0.8)
            browser.screenshot(self.work("fingers.png"))
            browser.script("module.ccall('vole_close', null, [], [])")
            browser.wait_for(("ended", "failed"))
            recording = browser.file("played.run").decode()
            self.assertRegex(recording, r"\bstart \+")
            self.assertRegex(recording, r"\bwalk 100\b")

    def test_pads_play_and_what_is_held_is_let_go_with_the_pad(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "pads") as game, Browser() as browser:
            browser.open(game.address + "?seed=3&record=played.run")
            time.sleep(1)
            browser.pad(down=[9])
            time.sleep(0.3)
            browser.pad()
            time.sleep(1)
            browser.pad(down=[0], axes=(1, 0, 0, 0))
            time.sleep(0.5)
            browser.no_pad()
            time.sleep(0.3)
            browser.script("module.ccall('vole_close', null, [], [])")
            browser.wait_for(("ended", "failed"))
            recording = browser.file("played.run").decode()
            for wanted in (r"\bstart \+", r"\bjump \+", r"\bwalk 100\b", r"\bjump -", r"\bwalk 0\b"):
                self.assertRegex(recording, wanted)

    def test_what_a_player_has_set_is_kept_from_one_visit_to_the_next(self):
        bound = 'bindings = [{ name = "start", controls = ["key KeyX"] }]\n'
        file = "/home/web_user/.local/share/allotment/settings.toml"
        with Served(ALLOTMENT, ALLOTMENT_JS, "settings") as game, Browser() as browser:
            browser.open(game.address)
            # As the game does it when the player binds a key.
            browser.script(f"module.FS.writeFile('{file}', {json.dumps(bound)})")
            time.sleep(1.5)
            browser.open(game.address + "?seed=3&record=played.run")
            self.assertEqual(browser.script(f"return module.FS.readFile('{file}', {{encoding: 'utf8'}})"), bound)
            time.sleep(1)
            browser.hold("x", 0.2)
            time.sleep(0.5)
            browser.script("module.ccall('vole_close', null, [], [])")
            browser.wait_for(("ended", "failed"))
            self.assertRegex(browser.file("played.run").decode(), r"\bstart \+")
            self.assertEqual(browser.complaints(), [])

    def test_no_time_passes_while_the_page_is_hidden(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "hidden") as game, Browser() as browser:
            began = time.time()
            browser.open(game.address + "?seed=3&record=played.run")
            time.sleep(0.5)
            hidden = time.time()
            browser.hide(4)
            shown = time.time()
            time.sleep(0.5)
            browser.script("module.ccall('vole_close', null, [], [])")
            browser.wait_for(("ended", "failed"))
            seen = hidden - began + time.time() - shown
            ticks = int(re.search(r"ticks = (\d+)", browser.file("played.run").decode())[1])
            self.assertGreater(ticks, 0)
            # Opening and closing the other tab takes its time too, on either side.
            self.assertLess(ticks, (seen + (shown - hidden - 4)) * 60 + 60)

    def test_a_new_game_is_shown(self):
        with Served(NEW_GAME, NEW_GAME_JS, "new") as game, Browser() as browser:
            browser.open(game.address)
            self.assertEqual(browser.state(), "running", browser.message())
            time.sleep(1)
            self.assertEqual(browser.complaints(), [])

    def test_what_is_wrong_is_said_on_the_page(self):
        with Served(ALLOTMENT, ALLOTMENT_JS, "wrong") as game, Browser() as browser:
            def said(change):
                kept = self.work("kept")
                shutil.rmtree(kept, ignore_errors=True)
                shutil.copytree(game.page, kept)
                change()
                browser.open(game.address)
                self.assertEqual(browser.state(), "failed")
                message = browser.message()
                shutil.rmtree(game.page)
                shutil.copytree(kept, game.page)
                return message

            def path(name):
                return os.path.join(game.page, name)

            def flip(name):
                with open(path(name), "r+b") as file:
                    file.seek(5000)
                    byte = file.read(1)
                    file.seek(5000)
                    file.write(bytes([byte[0] ^ 1]))

            self.assertIn('"files.tar" is missing on the server', said(lambda: os.remove(path("files.tar"))))
            self.assertIn('"allotment.wasm" is missing', said(lambda: os.remove(path("allotment.wasm"))))
            self.assertIn('"allotment.js" is missing', said(lambda: os.remove(path("allotment.js"))))
            self.assertIn("is damaged, or of another version", said(lambda: flip("files.tar")))
            self.assertIn("is damaged, or of another version", said(lambda: flip("allotment.wasm")))
            self.assertIn("is damaged, or of another version", said(lambda: os.truncate(path("files.tar"), 2000)))
            browser.open(game.address + "?tick=5")
            self.assertIn('no option "--tick"; did you mean "--ticks"?', browser.message())
            browser.open(game.address + "?replay=none")
            self.assertIn("recordings/none.run: error: no such file", browser.message())
            browser.open(game.address, until=("running",))


unittest.main(argv=["pages_test", "-v"])

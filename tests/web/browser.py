"""A browser without a screen, driven by the W3C WebDriver protocol."""
import base64
import json
import socket
import subprocess
import time
import urllib.error
import urllib.request

# The protocol's names of keys that have no letter; RETURN is the code "Enter".
RETURN, LEFT, RIGHT, UP, SPACE = "\ue006", "\ue012", "\ue014", "\ue013", " "
ESCAPE, F1 = "\ue00c", "\ue031"


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


class Browser:
    def __init__(self, size=(1280, 800), touch=False, flags=()):
        self.port = free_port()
        self.driver = subprocess.Popen(["chromedriver", f"--port={self.port}", "--silent"],
                                       stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        self.session = ""
        options = {"args": ["--headless=new", "--no-sandbox", "--disable-dev-shm-usage", "--use-gl=angle",
                            "--use-angle=swiftshader", "--enable-unsafe-swiftshader",
                            f"--window-size={size[0]},{size[1]}", *flags]}
        if touch:
            options["mobileEmulation"] = {"deviceMetrics": {"width": size[0], "height": size[1], "pixelRatio": 2.0,
                                                            "touch": True}}
        wish = {"capabilities": {"alwaysMatch": {"goog:chromeOptions": options,
                                                 "goog:loggingPrefs": {"browser": "ALL"}}}}
        for _ in range(200):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{self.port}/status")
                break
            except OSError:
                time.sleep(0.1)
        self.session = "/session/" + self.ask("POST", "/session", wish, plain=True)["sessionId"]

    def __enter__(self):
        return self

    def __exit__(self, *_):
        try:
            self.ask("DELETE", "")
        finally:
            self.driver.kill()
            self.driver.wait()

    def ask(self, method, path, body=None, plain=False):
        url = f"http://127.0.0.1:{self.port}{'' if plain else self.session}{path}"
        data = json.dumps(body or {}).encode() if method == "POST" else None
        request = urllib.request.Request(url, data=data, method=method, headers={"Content-Type": "application/json"})
        try:
            with urllib.request.urlopen(request, timeout=180) as answer:
                return json.load(answer)["value"]
        except urllib.error.HTTPError as error:
            raise RuntimeError(error.read().decode()[:600]) from error

    def open(self, url, until=("running", "ended", "failed"), seconds=60):
        self.ask("POST", "/url", {"url": url})
        self.wait_for(until, seconds)

    def script(self, text):
        return self.ask("POST", "/execute/sync", {"script": text, "args": []})

    def state(self):
        return self.script("return document.body.dataset.state")

    def wait_for(self, states, seconds=60):
        end = time.time() + seconds
        while self.state() not in states:
            if time.time() > end:
                raise RuntimeError(f"still {self.state()}, not {states}: {self.message()}")
            time.sleep(0.05)

    def message(self):
        return self.script("return document.getElementById('message').textContent")

    def printed(self):
        return self.script("return document.getElementById('printed').textContent")

    def screenshot(self, file):
        with open(file, "wb") as out:
            out.write(base64.b64decode(self.ask("GET", "/screenshot")))

    def hold(self, key, seconds):
        for kind in ("keyDown", "keyUp"):
            self.ask("POST", "/actions", {"actions": [{"type": "key", "id": "keys",
                                                       "actions": [{"type": kind, "value": key}]}]})
            if kind == "keyDown":
                time.sleep(seconds)

    def touch(self, selector, seconds):
        """Presses the middle of an element with a finger."""
        x, y = self.script(f"const b = document.querySelector({json.dumps(selector)}).getBoundingClientRect();"
                           "return [Math.round(b.left + b.width / 2), Math.round(b.top + b.height / 2)]")
        finger = [{"type": "pointerMove", "duration": 0, "x": x, "y": y}, {"type": "pointerDown", "button": 0},
                  {"type": "pause", "duration": int(seconds * 1000)}, {"type": "pointerUp", "button": 0}]
        self.ask("POST", "/actions", {"actions": [{"type": "pointer", "id": "finger",
                                                   "parameters": {"pointerType": "touch"}, "actions": finger}]})

    def pad(self, down=(), axes=(0, 0, 0, 0)):
        """Has the page see a pad of the standard layout with these buttons down."""
        self.script(f"""const down = {json.dumps(list(down))};
            const buttons = Array.from({{ length: 16 }}, (_, i) => ({{ pressed: down.includes(i), value: +down.includes(i) }}));
            const pad = {{ index: 0, connected: true, id: "a pad", mapping: "standard", timestamp: performance.now(),
                          axes: {json.dumps(list(axes))}, buttons }};
            navigator.getGamepads = () => [pad];""")

    def no_pad(self):
        self.script("navigator.getGamepads = () => [];")

    def hide(self, seconds):
        """Has another tab in front for so long."""
        here = self.ask("GET", "/window")
        self.ask("POST", "/window", {"handle": self.ask("POST", "/window/new", {"type": "tab"})["handle"]})
        time.sleep(seconds)
        self.ask("DELETE", "/window")
        self.ask("POST", "/window", {"handle": here})

    def file(self, path):
        """A file as the game in the page sees it."""
        return base64.b64decode(self.script(
            f"return btoa(String.fromCharCode(...module.FS.readFile({json.dumps(path)})))"))

    def complaints(self):
        return [entry["message"] for entry in self.ask("POST", "/se/log", {"type": "browser"})
                if entry["level"] == "SEVERE"]


if __name__ == "__main__":
    # Whether a browser can be started here at all.
    with Browser() as probe:
        probe.script("return 1")

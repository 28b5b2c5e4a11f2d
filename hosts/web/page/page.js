// The page of a game: loads its files, starts it, and says what went wrong where something did.
"use strict";

const game = JSON.parse(document.getElementById("game").textContent);
const element = (id) => document.getElementById(id);
let module = null;
let state = "loading"; // then "running", and "ended" or "failed"

function become(next) {
  state = next;
  document.body.dataset.state = next;
}

function print(line) {
  element("printed").textContent += line + "\n";
  console.log(line);
}

// Covers the canvas with a sentence.
function cover(sentence) {
  element("cover").hidden = false;
  element("loaded").hidden = true;
  element("touch").hidden = true;
  element("full").hidden = true;
  element("message").textContent = sentence;
}

function fail(sentence) {
  if (state === "failed") return;
  become("failed");
  cover(sentence);
  element("again").textContent = "Try again";
  element("again").hidden = false;
}

// ---- Loading

// FNV-1a of 32 bits, as the packager counts it.
function checksum(bytes) {
  let sum = 0x811c9dc5;
  for (let i = 0; i < bytes.length; ++i) sum = Math.imul(sum ^ bytes[i], 0x01000193);
  return sum >>> 0;
}

class CannotLoad extends Error {}

// The file's bytes; tells `got` of each piece that came.
async function load(file, got) {
  let answer;
  try {
    answer = await fetch(file.name);
  } catch (error) {
    throw new CannotLoad(location.protocol === "file:"
      ? "A browser gives a page no files from a folder. Serve the folder, for example with\nvole package --target web --serve"
      : `"${file.name}" cannot be loaded: ${error.message}. Is the connection there?`);
  }
  if (!answer.ok) throw new CannotLoad(`"${file.name}" is missing on the server (it answered ${answer.status}).`);
  const bytes = new Uint8Array(file.size);
  let count = 0;
  const reader = answer.body.getReader();
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    if (count + piece.value.length <= file.size) bytes.set(piece.value, count);
    count += piece.value.length;
    got(piece.value.length);
  }
  if (count !== file.size || checksum(bytes) !== file.checksum)
    throw new CannotLoad(`"${file.name}" is damaged, or of another version than this page. Load the page again; if that does not help, upload the whole folder again.`);
  return bytes;
}

const text = new TextDecoder();
function field(header, at, size) {
  const end = header.indexOf(0, at);
  return text.decode(header.subarray(at, end < 0 || end > at + size ? at + size : end));
}

// The files of a tar archive (POSIX "ustar").
function* unpacked(tar) {
  for (let at = 0; at + 512 <= tar.length && tar[at] !== 0;) {
    const header = tar.subarray(at, at + 512);
    const start = field(header, 345, 155);
    const name = (start ? start + "/" : "") + field(header, 0, 100);
    const size = parseInt(field(header, 124, 12), 8);
    if (!(size >= 0) || at + 512 + size > tar.length) throw new CannotLoad("The game's files are cut off.");
    if (name.startsWith("/") || name.split("/").includes("..")) throw new CannotLoad(`The game's files hold a name that leads out of its folder: "${name}".`);
    if (header[156] === 0 || header[156] === 48) yield { name, bytes: tar.subarray(at + 512, at + 512 + size) };
    at += 512 + Math.ceil(size / 512) * 512;
  }
}

// ---- Options: index.html?replay=harvest&shot=400 is --replay recordings/harvest.run --shot shots/400.png@400

function wordsOf(query) {
  const words = [];
  for (const [key, value] of new URLSearchParams(query)) {
    if (key === "shot") words.push("--shot", /^[0-9]+$/.test(value) ? `shots/${value}.png@${value}` : "shots/end.png");
    else if (key === "replay" && /^[\w-]+$/.test(value)) words.push("--replay", `recordings/${value}.run`);
    else words.push("--" + key, ...(value === "" ? [] : [value]));
  }
  return words;
}

// ---- What a player has set: files of the game's own folder for them, kept by the browser from one visit to the next

const playersFolder = `/home/web_user/.local/share/${game.id}`;
const kept = new Map(); // by name, as the browser has them

function bringBack(FS) {
  FS.mkdirTree(playersFolder);
  try {
    const mine = Object.keys(localStorage).filter((key) => key.startsWith(game.id + "/") && !key.slice(game.id.length + 1).includes("/"));
    for (const key of mine) {
      const name = key.slice(game.id.length + 1);
      kept.set(name, localStorage.getItem(key));
      FS.writeFile(`${playersFolder}/${name}`, kept.get(name));
    }
  } catch { /* this browser keeps nothing for pages */ }
}

function keep() {
  try {
    const names = module.FS.readdir(playersFolder).filter((name) => !name.startsWith("."));
    for (const name of [...kept.keys()].filter((name) => !names.includes(name))) {
      kept.delete(name);
      localStorage.removeItem(`${game.id}/${name}`);
    }
    for (const name of names) {
      const now = module.FS.readFile(`${playersFolder}/${name}`, { encoding: "utf8" });
      if (now === kept.get(name)) continue;
      kept.set(name, now);
      localStorage.setItem(`${game.id}/${name}`, now);
    }
  } catch { /* nor has it room for more */ }
}

// ---- Full screen, and areas of a touch screen

function switchFullScreen() {
  if (document.fullscreenElement) document.exitFullscreen();
  else document.documentElement.requestFullscreen().catch(() => {});
}

function area(label, control) {
  const made = document.createElement("div");
  made.className = "area";
  made.textContent = label;
  made.dataset.control = control;
  const put = (value) => {
    made.classList.toggle("down", value > 0);
    module.ccall("vole_touch", null, ["string", "number"], [control, value]);
  };
  made.addEventListener("pointerdown", (event) => {
    event.preventDefault();
    made.setPointerCapture(event.pointerId);
    put(1);
  });
  for (const end of ["pointerup", "pointercancel"]) made.addEventListener(end, () => put(0));
  return made;
}

function showTouchAreas() {
  const touch = element("touch");
  if (touch.childElementCount > 0) return;
  const axes = document.createElement("div");
  axes.className = "axes";
  const right = game.touch.axes.some((axis) => axis.upright) ? 3 : 2; // its column
  for (const axis of game.touch.axes)
    for (const [control, label, row, column] of axis.upright
      ? [[axis.less, "\u25b2", 1, 2], [axis.more, "\u25bc", 3, 2]]
      : [[axis.less, "\u25c0", 2, 1], [axis.more, "\u25b6", 2, right]]) {
      const made = area(label, control);
      made.setAttribute("aria-label", axis.name);
      made.style.gridRow = row;
      made.style.gridColumn = column;
      axes.append(made);
    }
  const actions = document.createElement("div");
  actions.className = "actions";
  for (const action of game.touch.actions) actions.append(area(action.name, action.control));
  touch.append(axes, actions);
  touch.hidden = false;
}

// ---- The end

function showShots() {
  let names = [];
  try {
    names = module.FS.readdir("shots").filter((name) => name.endsWith(".png"));
  } catch { /* none were asked for */ }
  for (const name of names) {
    const link = document.createElement("a");
    const picture = document.createElement("img");
    link.href = picture.src = URL.createObjectURL(new Blob([module.FS.readFile("shots/" + name)], { type: "image/png" }));
    link.download = picture.alt = name;
    link.append(picture);
    element("shots").append(link);
  }
}

function ended(code, words) {
  keep();
  const said = element("printed").textContent.trim();
  if (code !== 0) return fail(said || "The game has ended with an error.");
  cover(words.length > 0 ? said : "The end.");
  showShots();
  element("again").hidden = false;
  become("ended");
}

// ---- All of it

async function start() {
  become("loading");
  element("again").addEventListener("click", () => location.reload());
  if (typeof WebAssembly !== "object") return fail("This browser is too old for this game: it has no WebAssembly, or it is switched off.");
  if (typeof loadGame !== "function") return fail(`"${game.id}.js" is missing beside this page, or was kept from running. Upload the whole folder.`);
  let done = 0;
  const got = (count) => { element("loaded").value = (done += count) / (game.program.size + game.files.size); };
  const words = wordsOf(location.search);
  let begun = false;
  try {
    const [program, files] = await Promise.all([load(game.program, got), load(game.files, got)]);
    module = await loadGame({
      wasmBinary: program.buffer,
      canvas: element("canvas"),
      thisProgram: `/game/${game.id}`,
      print, printErr: print,
      switchFullScreen,
      begun: () => { begun = true; },
      ended: (code) => ended(code, words),
      onAbort: (reason) => fail(`The game has stopped: ${reason}`),
    });
    const FS = module.FS;
    for (const { name, bytes } of unpacked(files)) {
      FS.mkdirTree("/game/" + name.split("/").slice(0, -1).join("/"));
      FS.writeFile("/game/" + name, bytes);
    }
    FS.mkdirTree("/game/shots");
    bringBack(FS);
    FS.chdir("/game");
  } catch (error) {
    return fail(error instanceof CannotLoad ? error.message
      : error instanceof WebAssembly.CompileError || error instanceof WebAssembly.LinkError
      ? `The game's program cannot be used by this browser: ${error.message}` : `The game cannot be started: ${error.message || error}`);
  }
  become("running");
  element("cover").hidden = true;
  element("full").hidden = !document.fullscreenEnabled;
  element("full").addEventListener("click", () => { switchFullScreen(); element("canvas").focus(); });
  if (matchMedia("(pointer: coarse)").matches) showTouchAreas();
  addEventListener("touchstart", showTouchAreas, { once: true });
  element("canvas").addEventListener("contextmenu", (event) => event.preventDefault());
  element("canvas").focus();
  setInterval(keep, 1000);
  addEventListener("pagehide", keep);
  try {
    const code = module.callMain(words);
    if (!begun && state === "running") ended(code, words);
  } catch (error) {
    fail(`The game has stopped: ${error.message || error}`);
  }
}

start();

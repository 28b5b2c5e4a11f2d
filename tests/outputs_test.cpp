// Files of the user are sacred: no command and no game changes a file that is not its own output.
#include <map>

#include "support.hpp"

namespace {

std::map<std::string, std::string> files_in(const TempFolder& folder) {
  std::map<std::string, std::string> all;
  for (const std::string& file : vole::list_files(folder.path()))
    all[file] = vole::read_text(folder.path(file), 1 << 24);
  return all;
}

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

std::string allotment_of(const TempFolder& folder, const std::string& words) {
  return "cd " + as_word(folder.path()) + " && " + as_word(variable("VOLE_ALLOTMENT")) + " " + words;
}

}  // namespace

TEST_CASE("an atlas replaces and removes only pages of its own") {
  TempFolder folder;
  for (const char* name : {"pics/walk-1", "pics/walk-2", "pics/walk-3", "out/walk-1", "out/walk-2"})
    folder.write_picture(std::string(name) + ".png", {8, 8}, {1, 2, 3, 255});
  const auto before = files_in(folder);
  // Over its own inputs, and over a stranger's pictures.
  for (const char* out : {"pics", "out"}) {
    const Ran ran = vole_in(folder, std::string("atlas pics -o ") + out + " --name walk");
    CHECK(ran.code == 1);
    CHECK(has(ran.output,
              "walk-1.png: error: is there already, and is no page of this atlas; choose another "
              "--name or another folder"));
    CHECK(files_in(folder) == before);
  }
  // An atlas file and a header that are somebody's own.
  folder.write("mine/walk.atlas.toml", "pages = [\"walk-1.png\"]\n");
  folder.write("mine/walk.hpp", "int answer = 42;\n");
  const auto with_mine = files_in(folder);
  CHECK(has(vole_in(folder, "atlas pics -o mine --name walk").output,
            "mine/walk.atlas.toml: error: is there already, and was not made by this command"));
  const Ran header = vole_in(folder, "atlas pics --header mine/walk.hpp");
  CHECK(header.code == 1);
  CHECK(has(header.output, "mine/walk.hpp: error: is there already, and was not made by this command"));
  CHECK(files_in(folder) == with_mine);
  // Its own are replaced; old pages go, and what only looks like one stays.
  REQUIRE(vole_in(folder, "atlas pics -o packed --name walk --page 16").code == 0);
  const auto packed = files_in(folder);
  REQUIRE(packed.count("packed/walk-1.png") == 1);
  folder.write_picture("packed/walk-77.png", {8, 8});
  REQUIRE(vole_in(folder, "atlas pics -o packed --name walk").code == 0);
  CHECK(vole::file_exists(folder.path("packed/walk-77.png")));
  for (const char* name : {"'a\"b'", "x/y", "../esc", "''", ".hidden", "'a\nb'"}) {
    const Ran ran = vole_in(folder, std::string("atlas pics -o odd --name ") + name);
    CAPTURE(name, ran.output);
    CHECK(ran.code == 2);
  }
  CHECK_FALSE(vole::folder_exists(folder.path("odd")));
}

TEST_CASE("schemas are written again, and never over somebody's own") {
  TempFolder folder;
  folder.write("mine/level.schema.json", "{}");
  const auto before = files_in(folder);
  const Ran ran = vole_in(folder, "schema -o mine");
  CHECK(ran.code == 1);
  CHECK(has(ran.output, "mine/level.schema.json: error: is there already, and was not made by this command"));
  CHECK(files_in(folder) == before);
  for (int i = 0; i < 2; ++i) CHECK(vole_in(folder, "schema -o schemas").code == 0);
  // Those of a new game are ours too.
  CHECK(vole_in(folder, "new game1").code == 0);
  CHECK(vole_in(folder, "schema -o game1/schemas").code == 0);
}

TEST_CASE("a preview never goes over a file of the game") {
  TempFolder folder;
  write_small_game(folder);
  const auto before = files_in(folder);
  for (const char* words : {"preview assets/mouse.png -o assets/mouse.png",
                            "preview assets/mouse.sheet.toml -o ./assets/../assets/mouse.png",
                            "preview levels/patch.level.toml -o assets/soil.png",
                            "preview assets/mouse.png -o assets/mouse.png --watch"}) {
    const Ran ran = vole_in(folder, words);
    CAPTURE(words);
    CHECK(ran.code == 1);
    CHECK(has(ran.output, "error: is a file of the game; give the output another name"));
    CHECK(files_in(folder) == before);
  }
}

TEST_CASE("a game writes over its own outputs, and over nothing else unless told to") {
  TempFolder folder;
  folder.write("kinds.toml", "[mouse]\n");
  folder.write("src/main.cpp", "int main() {}\n");
  folder.write("notes.txt", "mine");
  folder.write_picture("assets/mouse.png", {4, 4});
  std::filesystem::create_symlink("../src/main.cpp", folder.path("assets/link.png"));
  REQUIRE(run_command(allotment_of(folder, "--headless --ticks 3 --record a.run --state s.toml --shot p.png"))
              .code == 0);
  const auto before = files_in(folder);
  for (const char* option : {"--shot ", "--state ", "--record "})
    for (const char* file : {"kinds.toml", "src/main.cpp", "notes.txt", "assets/mouse.png", "assets/link.png",
                             "./src/../notes.txt", "a.run", "s.toml", "p.png"}) {
      const bool own = (std::string(option) == "--shot " && std::string(file) == "p.png") ||
                       (std::string(option) == "--state " && std::string(file) == "s.toml") ||
                       (std::string(option) == "--record " && std::string(file) == "a.run");
      if (own) continue;
      CAPTURE(option, file);
      const Ran ran = run_command(allotment_of(folder, std::string("--headless --ticks 2 ") + option + file));
      CHECK(ran.code == 1);
      CHECK(has(ran.output, "error: is there already, and is no "));
      CHECK(has(ran.output, "replace the file with --force"));
      CHECK(files_in(folder) == before);
    }
  // One file for two outputs, and over the recording that is replayed, also with --force and by another name.
  std::filesystem::create_hard_link(folder.path("a.run"), folder.path("b.run"));
  const auto with_link = files_in(folder);
  for (const auto& [words, text] : std::vector<std::pair<std::string, std::string>>{
           {"--ticks 2 --shot new --record ./new", "./new: error: is another output of this run"},
           {"--ticks 2 --shot p.png@1 --shot p.png@2 --force", "p.png: error: is another output of this run"},
           {"--replay a.run --record ./a.run", "./a.run: error: is the recording that is replayed"},
           {"--replay a.run --record b.run --force", "b.run: error: is the recording that is replayed"}}) {
    const Ran ran = run_command(allotment_of(folder, "--headless " + words));
    CAPTURE(words, ran.output);
    CHECK(ran.code == 1);
    CHECK(has(ran.output, text));
    CHECK(files_in(folder) == with_link);
  }
  // Its own are replaced, and an empty file; a device is written to.
  folder.write("empty", "");
  for (const char* words : {"--record a.run", "--state s.toml", "--shot p.png", "--shot empty",
                            "--shot /dev/null", "--record notes.txt --force", "--state a.run@1 --force"}) {
    CAPTURE(words);
    CHECK(run_command(allotment_of(folder, std::string("--headless --ticks 2 ") + words)).code == 0);
  }
  CHECK(vole::read_recording(folder.path("notes.txt")).ticks == 2);
  // A recording of before its first line said what it is.
  std::string older = vole::read_text(folder.path("notes.txt"), 1 << 20);
  older.erase(0, older.find('\n') + 1);
  folder.write("older.run", older);
  CHECK(run_command(allotment_of(folder, "--headless --ticks 2 --record older.run")).code == 0);
}

TEST_CASE("a preview replaces previews, and a package packages") {
  TempFolder folder;
  write_small_game(folder);
  folder.write_picture("art/mine.png", {4, 4});
  folder.write("mine.gif", "GIF89a and more");
  const auto before = files_in(folder);
  for (const char* words : {"preview assets/mouse.sheet.toml -o art/mine.png",
                            "preview assets/mouse.sheet.toml --clip run -o mine.gif",
                            "preview levels/patch.level.toml -o art/mine.png"}) {
    const Ran ran = vole_in(folder, words);
    CAPTURE(words, ran.output);
    CHECK(ran.code == 1);
    CHECK(has(ran.output, "error: is there already, and is no picture that Vole made"));
    CHECK(files_in(folder) == before);
    for (int i = 0; i < 2; ++i)
      CHECK(vole_in(folder, std::string(words) + (i == 0 ? " --force" : "")).code == 0);
    for (const char* file : {"art/mine.png", "mine.gif"}) folder.write(file, before.at(file));
  }
  folder.write("out/small-0.1.0-linux.tar.gz", "mine");
  const std::string pack = "package . -o out --program " + as_word(variable("VOLE_ALLOTMENT"));
  CHECK(has(vole_in(folder, pack).output, "error: is there already, and is no package that Vole made"));
  CHECK(vole::read_text(folder.path("out/small-0.1.0-linux.tar.gz"), 100) == "mine");
  // And a program of another game is none of this one.
  std::filesystem::remove(folder.path("out/small-0.1.0-linux.tar.gz"));
  CHECK(has(vole_in(folder, pack).output, "is the program of the game in "));
}

TEST_CASE("output that cannot be written is an error, and a full disk leaves nothing that looks whole") {
  TempFolder folder;
  write_small_game(folder);
  const Ran lost = vole_in(folder, "check > /dev/full");
  CHECK(lost.code == 1);
  CHECK(has(lost.output, "No space left on device"));
  CHECK(run_command(allotment_of(folder, "--headless --ticks 3 > /dev/full")).code == 1);
  const auto before = files_in(folder);
  // Files of at most one block of 512 bytes: all of a new game, or nothing.
  const Ran full = run_command("cd " + as_word(folder.path()) + " && ulimit -f 1 && " +
                               as_word(variable("VOLE_TOOL")) + " new there");
  CHECK(full.code == 1);
  CHECK(has(full.output, "error: cannot be written: File too large"));
  CHECK_FALSE(vole::folder_exists(folder.path("there")));
  CHECK(files_in(folder) == before);
  CHECK(vole_in(folder, "new there").code == 0);
}

TEST_CASE("a recording is kept whatever ends the game, and its place is tried first") {
  TempFolder folder;
  const std::string record = "--headless --ticks 100000000 --seed 4 --record run.run";
  for (const char* signal : {"INT", "TERM", "HUP"}) {
    CAPTURE(signal);
    const Ran ran =
        run_command("cd " + as_word(folder.path()) + " && timeout -k 30 --preserve-status -s " + signal +
                    " 1 env --default-signal " + as_word(variable("VOLE_ALLOTMENT")) + " " + record);
    CHECK(ran.code > 128);
    const Ran again = run_command(allotment_of(folder, "--headless --replay run.run"));
    CAPTURE(ran.output, again.output);
    CHECK(again.code == 0);
    CHECK(has(again.output, ": as recorded"));
    std::filesystem::remove(folder.path("run.run"));
  }
  folder.write("file", "");
  for (const char* words :
       {"--headless --ticks 5 --record file/a.run", "--headless --ticks 5 --shot file/a.png"}) {
    const Ran ran = run_command(allotment_of(folder, words));
    CHECK(ran.code == 1);
    CHECK(has(ran.output, "error: cannot be written: "));
    CHECK_FALSE(has(ran.output, "checksum"));
  }
  // A picture of a tick that never came is not a success.
  const Ran ran =
      run_command(allotment_of(folder, "--headless --ticks 5 --shot late.png@9 --record run.run"));
  CHECK(ran.code == 1);
  CHECK(has(ran.output, "late.png: error: not saved: the run ended at tick 5, before 9"));
  CHECK(vole::file_exists(folder.path("run.run")));
  CHECK(run_command(allotment_of(folder, "--headless --ticks 5 --seed -1")).code == 2);
  CHECK(vole::list_files(folder.path()) == std::vector<std::string>{"file", "run.run"});
}

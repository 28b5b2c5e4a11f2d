// The program `vole` and the games' own command line, as a person calls them.
#include <fmt/core.h>

#include <nlohmann/json.hpp>
#include <sstream>

#include "support.hpp"
#include "vole/app/project.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/base/writing.hpp"

namespace {

Ran allotment_in(const TempFolder& folder, const std::string& words) {
  return run_command("cd " + as_word(folder.path()) + " && " + as_word(variable("VOLE_ALLOTMENT")) + " " +
                     words);
}

// The command with the source tree (and the build folder in it) hidden from it, where this machine lets us:
// an empty folder is put over it, for this command alone.
std::string without_source_tree(const std::string& command) {
  if (run_command("unshare --mount true").code != 0) return command;
  const std::string hide =
      "mount -t tmpfs none " + source_folder() + " && test ! -e " + source_folder() + "/CMakeLists.txt";
  if (run_command("unshare --mount sh -c " + as_word(hide)).code != 0) return command;
  return "unshare --mount sh -c " + as_word(hide + " && " + command);
}

// Everything that can be wrong in files at once.
void break_small_game(const TempFolder& folder) {
  const auto change = [&](const std::string& file, const std::string& what, const std::string& by) {
    std::string text = vole::read_text(folder.path(file), 1 << 20);
    REQUIRE(text.find(what) != std::string::npos);
    folder.write(file, text.replace(text.find(what), what.size(), by));
  };
  change("game.toml", "canvas", "canvass");
  change("controls.toml", "key Space", "key Spce");
  change("kinds.toml", "side_mover", "side_movr");
  change("assets/mouse.sheet.toml", "frames = [3]", "frames = [30]");
  change("levels/patch.level.toml", "kind = \"crumb\"", "kind = \"crum\"");
  change("levels/patch.level.toml", "...,......", "...,..X...");
  folder.write("assets/torn.png", std::string("\x89PNG\r\n\x1a\n", 8));
  folder.write("assets/loose.tileset.toml", "tiles = 3\n");
}

}  // namespace

TEST_CASE("a new game checks, builds, runs, and repeats its run") {
  TempFolder folder;
  const Ran made = vole_in(folder, "new 'Hedge Row'");
  REQUIRE(made.code == 0);
  CHECK(made.output.find("\"Hedge Row\" is written") != std::string::npos);
  CHECK(vole_in(folder, "new 'Hedge Row'").code == 1);  // never over something that is there

  const Ran checked = vole_in(folder, "check 'Hedge Row'");
  CHECK(checked.code == 0);
  CHECK(checked.output.find("nothing wrong") != std::string::npos);

  const std::string build = "cd " + as_word(folder.path("Hedge Row")) +
                            " && cmake -S . -B build -Dvole_DIR=" + as_word(variable("VOLE_BUILD")) + " " +
                            variable("VOLE_CMAKE_FLAGS") + " && cmake --build build";
  const Ran built = run_command(build);
  CAPTURE(built.output);
  REQUIRE(built.code == 0);
  const std::string game = as_word(folder.path("Hedge Row/build/hedge-row"));
  // From any folder, since the program knows where its files are.
  const Ran played =
      run_command("cd / && " + game + " --headless --ticks 90 --seed 3 --record " +
                  as_word(folder.path("a.run")) + " --shot " + as_word(folder.path("a.png@60")));
  CAPTURE(played.output);
  REQUIRE(played.code == 0);
  CHECK(vole::read_png(folder.path("a.png")).size() == vole::IVec2{1280, 720});
  const Ran again = run_command(game + " --headless --replay " + as_word(folder.path("a.run")));
  CHECK(again.code == 0);
  CHECK(again.output.find("replayed 90 ticks") == 0);
  CHECK(again.output.find("as recorded") != std::string::npos);
}

TEST_CASE("the closing line of a run tells its length and its state") {
  TempFolder folder;
  const Ran ran = run_command("cd " + as_word(folder.path()) + " && " + as_word(variable("VOLE_ALLOTMENT")) +
                              " --headless --ticks 3 --seed 1 --record a.run");
  CHECK_THAT(ran.output, Catch::Matches("3 ticks, checksum [0-9a-f]{16}\n"));
  CHECK(ran.code == 0);
  const Ran again = run_command("cd " + as_word(folder.path()) + " && " +
                                as_word(variable("VOLE_ALLOTMENT")) + " --headless --replay a.run");
  CHECK_THAT(again.output, Catch::Matches("replayed 3 ticks, checksum [0-9a-f]{16}: as recorded\n"));
  const Ran large = run_command(as_word(variable("VOLE_ALLOTMENT")) + " --headless --ticks 1 --scale 32");
  CHECK(large.code == 2);
  CHECK_THAT(
      large.output,
      Catch::Contains("--scale 32: a canvas of 320 x 180 would be 10240 x 5760 pixels; the most is 16384"));
}

TEST_CASE("a name for a new game may be anything that makes a folder") {
  TempFolder folder;
  CHECK(vole_in(folder, "new 7").code == 0);
  CHECK(vole::read_text(folder.path("7/game.toml"), 10000).find("id = \"game-7\"") != std::string::npos);
  for (const char* wrong : {"'back\\slash'", "'two\nlines'", "'   '"}) {
    CHECK(vole_in(folder, std::string("new sub/garden --title ") + wrong).code == 1);
    CHECK_FALSE(vole::folder_exists(folder.path("sub")));
  }
  CHECK(vole_in(folder, "new quoted --title 'The \"Garden\"'").code == 0);
  CHECK(vole::read_project(folder.path("quoted/game.toml")).title.value == "The \"Garden\"");
  // Names that a build or a package keeps for itself get another id, and folders with blanks are quoted in what is to be
  // typed.
  for (const char* taken : {"game", "lib", "assets", "all", "clean", "help", "install", "test", "con"}) {
    CHECK(vole_in(folder, std::string("new ids/") + taken).code == 0);
    CHECK(vole::read_project(folder.path(std::string("ids/") + taken + "/game.toml")).id.value ==
          std::string(taken) + "-game");
  }
  CHECK(vole_in(folder, "new 'my dir'").output.find("cmake -S 'my dir' -B 'my dir/build'") !=
        std::string::npos);
  CHECK(vole_in(folder, "new sub/garden --title 'The Garden'").code == 0);
  CHECK(vole::read_text(folder.path("sub/garden/game.toml"), 10000).find("title = \"The Garden\"") !=
        std::string::npos);
}

TEST_CASE("check reports everything that is wrong in one pass, each at its place") {
  TempFolder folder;
  write_small_game(folder);
  CHECK(vole_in(folder, "check").code == 0);
  break_small_game(folder);
  const Ran ran = vole_in(folder, "check .");
  CAPTURE(ran.output);
  CHECK(ran.code == 1);
  for (const char* wanted :
       {"./game.toml:3:1: error: unknown key \"canvass\"; did you mean \"canvas\"?",
        "./controls.toml:2:9: error: no control \"key Spce\"; did you mean \"key Space\"?",
        "./kinds.toml:4:1: error: no component \"side_movr\"; did you mean \"side_mover\"?",
        "./assets/mouse.sheet.toml:9:11: error: clip \"idle\" names frame 30, but \"mouse\" has 8 frames",
        "./levels/patch.level.toml:9:10: error: no letter \"X\" in [letters]",
        "./assets/torn.png: error: is cut off: the PNG header is not complete",
        "./assets/loose.tileset.toml:1:9: error: a table wanted here, not the number 3"}) {
    CAPTURE(wanted);
    CHECK(ran.output.find(wanted) != std::string::npos);
  }
  CHECK(ran.output.find("problems in ") != std::string::npos);
}

TEST_CASE("check follows names from file to file") {
  TempFolder folder;
  write_small_game(folder);
  const auto with = [&](const std::string& file, const std::string& what, const std::string& by) {
    return checked_with(folder, file, what, by);
  };
  CHECK(with("kinds.toml", "clip = \"run\"", "clip = \"rnu\"")
            .find("no clip \"rnu\" in \"mouse\"; did you mean \"run\"?") != std::string::npos);
  CHECK(with("kinds.toml", "\"mouse\", clip", "\"mose\", clip")
            .find("kinds.toml:2:20: error: no sheet \"mose\"; did you mean \"mouse\"?") != std::string::npos);
  CHECK(with("kinds.toml", "player = {}", "player = { jump = \"jmp\" }")
            .find("no action \"jmp\" in controls.toml; did you mean \"jump\"?") != std::string::npos);
  CHECK(with("kinds.toml", "player = {}", "player = { walk = \"wlk\" }")
            .find("no axis \"wlk\" in controls.toml; did you mean \"walk\"?") != std::string::npos);
  CHECK(with("levels/patch.level.toml", "\"crumb\"", "\"crub\"")
            .find("levels/patch.level.toml:21:8: error: no kind \"crub\"; did you mean \"crumb\"?") !=
        std::string::npos);
  CHECK(with("levels/patch.level.toml", "kind = \"mouse\"\n",
             "kind = \"mouse\"\nsprite = { layer = \"thing\" }\n")
            .find("no layer \"thing\" in level \"patch\"; did you mean \"things\"?") != std::string::npos);
  CHECK(with("game.toml", "canvas", "icon = \"assets/mose.png\"\ncanvas")
            .find("game.toml:3:8: error: no file \"assets/mose.png\"; did you mean \"mouse.png\"?") !=
        std::string::npos);
}

TEST_CASE("check answers scripts in JSON") {
  TempFolder folder;
  write_small_game(folder);
  CHECK(vole_in(folder, "check --json").output == "[]\n");
  folder.write("kinds.toml", "[mouse]\nbody = { siez = [1, 1] }\n");
  const Ran ran = vole_in(folder, "check --json");
  CHECK(ran.code == 1);
  for (const char* wanted : {"\"file\": \"./kinds.toml\"", "\"line\": 2", "\"column\": 10",
                             "\"severity\": \"error\"", "\"hint\": \"did you mean \\\"size\\\"?\""})
    CHECK(ran.output.find(wanted) != std::string::npos);
}

TEST_CASE("wrong usage says so and exits with 2") {
  TempFolder folder;
  for (const char* words :
       {"", "chek", "preview", "preview a.png", "new", "package --target moon", "check --jsn"}) {
    CAPTURE(words);
    const Ran ran = vole_in(folder, words);
    CHECK(ran.code == 2);
    CHECK(ran.output.find("--help") != std::string::npos);
  }
  CHECK(vole_in(folder, "--help").code == 0);
  CHECK(vole_in(folder, "--version").output == "vole 0.1.0\n");
  CHECK(vole_in(folder, "check nowhere").code == 1);
  CHECK(vole_in(folder, "check nowhere").output == "nowhere: error: no such folder\n");
}

TEST_CASE("a preview is made of each sort of file, and of nothing else") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("notes.txt", "");
  for (const char* file : {"assets/mouse.sheet.toml", "assets/mouse.png", "assets/soil.tileset.toml",
                           "levels/patch.level.toml"}) {
    CAPTURE(file);
    std::filesystem::remove(folder.path("out.png"));
    const Ran ran = vole_in(folder, std::string("preview ") + file + " -o out.png");
    CHECK(ran.output == "out.png\n");
    REQUIRE(ran.code == 0);
    const vole::Image image = vole::read_png(folder.path("out.png"));
    CHECK(image.size().x >= 300);
    // The mouse's colour or the soil's is somewhere in it.
    bool shown = false;
    for (int y = 0; y < image.size().y; ++y)
      for (int x = 0; x < image.size().x; ++x)
        shown = shown || image.at(x, y) == vole::Colour{0x7a, 0x4a, 0x33, 0xff} ||
                image.at(x, y) == vole::Colour{0x4a, 0x30, 0x26, 0xff};
    CHECK(shown);
  }
  CHECK(vole_in(folder, "preview notes.txt -o out.png")
            .output.find("notes.txt: error: is nothing that can be shown") == 0);
  CHECK(vole_in(folder, "preview assets/mose.png -o out.png").output ==
        "assets/mose.png: error: no such file; did you mean \"mouse.png\"?\n");
  CHECK(vole_in(folder, "preview assets/mouse.png -o out.jpg").code == 1);
  folder.write("assets/mouse.sheet.toml", "frame = { size = [3, 3] }\n");
  CHECK(vole_in(folder, "preview assets/mouse.sheet.toml -o out.png")
            .output.find("assets/mouse.sheet.toml:1:9: error: frames of 3 pixels wide") != std::string::npos);
}

TEST_CASE("a recording that says no version is reported without a gap") {
  TempFolder folder;
  folder.write("old.run",
               "format = 1\ngame = \"allotment\"\nseed = 7\nticks_per_second = 60\nticks = 5\n"
               "checksum = \"0000000000000001\"\ninputs = []\n");
  const Ran played = run_command(as_word(variable("VOLE_ALLOTMENT")) + " --headless --replay " +
                                 as_word(folder.path("old.run")));
  CHECK(played.code == 1);
  CHECK_THAT(played.output,
             Catch::Contains("it was recorded by allotment, and this is allotment 0.1.0 with vole 0.1.0;"));
  CHECK(vole_in(folder, "recording old.run").output.starts_with("old.run: allotment\n"));
}

TEST_CASE("a package starts in an empty folder, with an empty environment, and repeats the shipped run") {
  TempFolder folder;
  const Ran packed = vole_in(folder, "package " + as_word(allotment_folder()) + " --program " +
                                         as_word(variable("VOLE_ALLOTMENT")) + " -o out");
  CAPTURE(packed.output);
  REQUIRE(packed.code == 0);
  CHECK(packed.output.starts_with("the program asks the system for lib"));
  CHECK(packed.output.ends_with("\nout/allotment-0.1.0-linux.tar.gz\n"));
  const vole::Bytes first =
      vole::read_bytes(folder.path("out/allotment-0.1.0-linux.tar.gz"), std::size_t{1} << 30);
  REQUIRE(run_command("mkdir " + as_word(folder.path("empty")) + " && cd " + as_word(folder.path("empty")) +
                      " && tar xzf ../out/*.tar.gz")
              .code == 0);
  const std::string root = "empty/allotment-0.1.0-linux/";
  for (const char* file : {"allotment", "allotment.desktop", "allotment.png", "game/allotment",
                           "game/game.toml", "licences/vole.txt", "licences/stb.txt"})
    CHECK(vole::file_exists(folder.path(root + file)));
  // Nothing in the program leads back to this tree (but for what a build with symbols tells debuggers).
  const std::string program = vole::read_text(folder.path(root + "game/allotment"), std::size_t{1} << 30);
  const bool has_symbols = variable("VOLE_HAS_SYMBOLS") == "yes";
  CHECK((program.find(source_folder() + "/") != std::string::npos) == has_symbols);
  const std::string start = "env -i " + variable("VOLE_CLEAN_ENVIRONMENT") + " " +
                            as_word(folder.path(root + "allotment")) + " --headless --replay " +
                            as_word(folder.path(root + "game/recordings/harvest.run"));
  const Ran replayed = run_command("cd / && " + without_source_tree(start));
  CAPTURE(replayed.output);
  CHECK(replayed.code == 0);
  CHECK(replayed.output.find("as recorded") != std::string::npos);
  // The same again, byte for byte.
  REQUIRE(vole_in(folder, "package " + as_word(allotment_folder()) + " --program " +
                              as_word(variable("VOLE_ALLOTMENT")) + " -o out")
              .code == 0);
  CHECK(vole::read_bytes(folder.path("out/allotment-0.1.0-linux.tar.gz"), std::size_t{1} << 30) == first);
  CHECK(vole_in(folder, "package . -o out").output.find("game.toml: error: no such file") !=
        std::string::npos);
}

TEST_CASE("a page holds the game's files and what its script must know, and replaces pages only") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("game.toml",
               "title = \"Bulbs & <Seeds> \\\"\\u00fc\\\"\"\nid = \"small\"\nfirst_scene = \"patch\"\n");
  folder.write("notes.txt", "not sent");
  folder.write("p.js", "// a program");
  folder.write("p.wasm", std::string("\0asm\1", 5));
  const auto package = [&](const std::string& output) {
    return vole_in(folder, "package . --target web --program p.js -o " + output);
  };
  const Ran made = package("out");
  CAPTURE(made.output);
  REQUIRE(made.code == 0);
  CHECK(made.output.ends_with("out/small-0.1.0-web\nout/small-0.1.0-web.zip\n"));
  const std::string root = "out/small-0.1.0-web/";
  const auto text = [&](const std::string& file) {
    return vole::read_text(folder.path(root + file), 1 << 20);
  };
  const std::string page = text("index.html");
  CHECK(page.find("<title>Bulbs &amp; &lt;Seeds&gt; &quot;\u00fc&quot;</title>") != std::string::npos);
  CHECK(page.find("<Seeds>") == std::string::npos);
  CHECK(page.find('@') == std::string::npos);
  const std::string start = "type=\"application/json\">";
  const std::size_t at = page.find(start) + start.size();
  const auto about = nlohmann::json::parse(page.substr(at, page.find("</script>", at) - at));
  CHECK(about["id"] == "small");
  CHECK(about["program"]["name"] == "small.wasm");
  CHECK(about["program"]["size"] == 5);
  CHECK(about["program"]["checksum"] == 0x4c356ae9u);
  CHECK(about["files"]["size"] == text("files.tar").size());
  CHECK(about["touch"]["axes"][0] ==
        nlohmann::json{
            {"name", "walk"}, {"less", "key ArrowLeft"}, {"more", "key ArrowRight"}, {"upright", false}});
  CHECK(about["touch"]["actions"][0] == nlohmann::json{{"name", "jump"}, {"control", "key Space"}});
  CHECK(
      run_command("tar tf " + as_word(folder.path(root + "files.tar"))).output ==
      "assets/mouse.png\nassets/mouse.sheet.toml\nassets/soil.png\nassets/soil.tileset.toml\ncontrols.toml\n"
      "game.toml\nkinds.toml\nlevels/patch.level.toml\n");
  const std::string listing =
      run_command("python3 -m zipfile -l " + as_word(folder.path("out/small-0.1.0-web.zip"))).output;
  for (const char* file : {"index.html", "page.js", "page.css", "small.js", "small.wasm", "files.tar",
                           "licences/vole.txt", "licences/emscripten.txt"}) {
    CHECK(listing.find(file) != std::string::npos);
    CHECK(vole::file_exists(folder.path(root + file)));
  }
  // The same again, byte for byte.
  const vole::Bytes first = vole::read_bytes(folder.path("out/small-0.1.0-web.zip"), 1 << 24);
  CHECK(package("out").code == 0);
  CHECK(vole::read_bytes(folder.path("out/small-0.1.0-web.zip"), 1 << 24) == first);
  folder.write("mine/small-0.1.0-web/index.html", "somebody's own");
  CHECK(package("mine").output.find("mine/small-0.1.0-web: error: is there already, and was not made by this "
                                    "command") != std::string::npos);
  CHECK(vole::read_text(folder.path("mine/small-0.1.0-web/index.html"), 100) == "somebody's own");
  CHECK_FALSE(vole::file_exists(folder.path("mine/small-0.1.0-web.zip")));

  CHECK(
      vole_in(folder, "package . --target web --program /bin/true").output.find("is no program for a page") !=
      std::string::npos);
  CHECK(vole_in(folder, "package . --serve").code == 2);
  CHECK(vole_in(folder, "package . --target moon").code == 2);
  CHECK(vole_in(folder, "setup moon").code == 2);
  const Ran unready =
      run_command("cd " + as_word(folder.path()) + " && XDG_CACHE_HOME=" + as_word(folder.path("c")) + " " +
                  as_word(variable("VOLE_TOOL")) + " package . --target web");
  CHECK(unready.code == 1);
  CHECK(unready.output ==
        "error: Vole is not built for \"web\" on this machine yet; run `vole setup web` once\n");
}

TEST_CASE("a package for Windows has names that Windows can have") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("p.exe", "MZ and so on");
  const auto package = [&] { return vole_in(folder, "package . --target windows --program p.exe -o out"); };
  const Ran made = package();
  CAPTURE(made.output);
  REQUIRE(made.code == 0);
  CHECK(made.output == "out/small-0.1.0-windows.zip\n");
  const std::string listing =
      run_command("python3 -m zipfile -l " + as_word(folder.path("out/small-0.1.0-windows.zip"))).output;
  for (const char* file :
       {"small.exe", "game.toml", "assets/mouse.png", "licences/vole.txt", "licences/SDL2.txt"})
    CHECK(listing.find(std::string("small-0.1.0-windows/") + file + " ") != std::string::npos);
  CHECK(listing.find("p.exe") == std::string::npos);
  const vole::Bytes first = vole::read_bytes(folder.path("out/small-0.1.0-windows.zip"), 1 << 24);
  REQUIRE(package().code == 0);
  CHECK(vole::read_bytes(folder.path("out/small-0.1.0-windows.zip"), 1 << 24) == first);

  for (const char* name : {"a:b", "what?", "a*", "<a>", "a|b", "\"a\"", "dot./a", "nul", "COM1.old", "lpt9"})
    folder.write(std::string("assets/") + name + ".png", "");
  folder.write("assets/Mouse.png", "");
  const Ran refused = package();
  CAPTURE(refused.output);
  CHECK(refused.code == 1);
  for (const char* line :
       {"assets/a:b.png: error: cannot be a file's name on Windows; ':' stands in no name there",
        "assets/what?.png: error: cannot be a file's name on Windows; '?' stands in no name there",
        "assets/a*.png: error:", "assets/<a>.png: error:", "assets/a|b.png: error:",
        "assets/\"a\".png: error:",
        "assets/dot./a.png: error: cannot be a file's name on Windows; no name ends in '.' or ' ' there",
        "assets/nul.png: error: cannot be a file's name on Windows; \"nul\" is a device there",
        "assets/COM1.old.png: error: cannot be a file's name on Windows; \"com1\" is a device there",
        "assets/lpt9.png: error:",
        "assets/mouse.png: error: and \"assets/Mouse.png\" would be one file on Windows"})
    CHECK(refused.output.find(line) != std::string::npos);
  CHECK(std::count(refused.output.begin(), refused.output.end(), '\n') == 11);
  CHECK(vole::read_bytes(folder.path("out/small-0.1.0-windows.zip"), 1 << 24) == first);
  TempFolder other;
  write_small_game(other);
  CHECK(vole_in(other, "package . --target windows --program /bin/true").output ==
        "/bin/true: error: is no program for Windows\n");
  CHECK(vole_in(other, "package . --target windows --target linux --program /bin/true").code == 2);
  const Ran unready =
      run_command("cd " + as_word(other.path()) + " && XDG_CACHE_HOME=" + as_word(other.path("c")) + " " +
                  as_word(variable("VOLE_TOOL")) + " package . --target windows");
  CHECK(unready.code == 1);
  CHECK(unready.output ==
        "error: Vole is not built for \"windows\" on this machine yet; run `vole setup windows` once\n");
}

TEST_CASE("a game answers its options, and says what is wrong with them") {
  TempFolder folder;
  const Ran help = allotment_in(folder, "--help");
  CHECK(help.code == 0);
  for (const char* option :
       {"--headless", "--ticks", "--shot", "--seed", "--record", "--replay", "--xray", "--mute", "--scale"})
    CHECK(help.output.find(option) != std::string::npos);
  for (const char* words :
       {"--headless", "--tick 5", "--headless --ticks -1", "--headless --shot a.png@soon",
        "--headless --ticks x", "--record a --replay a", "--headless --ticks 1 --scale 0", "stray"}) {
    CAPTURE(words);
    CHECK(allotment_in(folder, words).code == 2);
  }
  CHECK(allotment_in(folder, "--tick 5")
            .output.starts_with("no option \"--tick\"; did you mean \"--ticks\"?\n"));
  CHECK(allotment_in(folder, "stray").output.starts_with("unexpected word \"stray\"\n"));
  const Ran shots = allotment_in(
      folder, "--headless --shot a.png@0 --shot b.png@5 --shot c.png@9 --ticks 7 --scale 2 --seed 5");
  CHECK(shots.code == 1);
  CHECK(vole::read_png(folder.path("a.png")).size() == vole::IVec2{640, 360});
  CHECK(vole::file_exists(folder.path("b.png")));
  CHECK(shots.output.find("c.png: error: not saved: the run ended at tick 7, before 9") != std::string::npos);
  CHECK(shots.output.find("7 ticks, checksum ") != std::string::npos);
  CHECK(allotment_in(folder, "--headless --shot a.png@0 --xray").code == 0);
  CHECK(allotment_in(folder, "--headless --replay none.run").output == "none.run: error: no such file\n");
  CHECK(allotment_in(folder, "--headless --ticks 1 --shot no/such/\\\\0/x.png").code <= 1);
}

TEST_CASE("a game prints values and writes its state after the ticks that are asked for") {
  TempFolder folder;
  const std::string run = as_word(allotment_folder() + "/recordings/harvest.run");
  const Ran ran = allotment_in(folder, "--headless --ticks 300 --replay " + run +
                                           " --print 'vole.pose.at.x, camera.zoom_now, hedgehog.mind@100' "
                                           "--state then.toml@200 --state last.toml");
  CAPTURE(ran.output);
  CHECK(ran.code == 0);
  std::vector<std::string> printed;
  std::istringstream lines(ran.output);
  for (std::string line; std::getline(lines, line);)
    if (line.find("vole.pose.at.x = ") != std::string::npos) printed.push_back(line);
  REQUIRE(printed.size() == 4);
  CHECK(printed[2].starts_with("tick 200: vole.pose.at.x = "));
  CHECK(printed[2].find(", camera.zoom_now = 1.0, hedgehog.mind = ") != std::string::npos);
  // What is printed is what the written state has.
  const vole::TomlValue state = vole::read_toml(folder.path("then.toml"));
  CHECK(state.find("ticks")->whole == 200);
  const vole::TomlValue* vole = nullptr;
  for (const vole::TomlValue& thing :
       state.find("scenes")->items.at(0).find("entities")->find("things")->items)
    if (const vole::TomlValue* const kind = thing.find("kind"))
      if (!vole && kind->find("name") && kind->find("name")->text == "vole") vole = &thing;
  REQUIRE(vole);
  CHECK(printed[2].find(fmt::format("at.x = {},", vole::toml_number(static_cast<float>(
                                                      vole->find("pose")->find("at")->items[0].number)))) !=
        std::string::npos);
  CHECK(vole::read_toml(folder.path("last.toml")).find("ticks")->whole == 300);
  for (const char* wrong : {"''", "vole..at", "vole", "vole.pose@0", "vole.pose@x"}) {
    CAPTURE(wrong);
    CHECK(allotment_in(folder, std::string("--headless --ticks 1 --print ") + wrong).code != 0);
  }
  const Ran unknown = allotment_in(folder, "--headless --ticks 9 --replay " + run + " --print vole.pos.at");
  CHECK(unknown.code == 1);
  CHECK(unknown.output.find("no component \"pos\"; did you mean \"pose\"?") != std::string::npos);
}

TEST_CASE("an unchecked recording is made a checked one by recording its replay") {
  TempFolder folder;
  folder.write(
      "by-hand.run",
      "game = \"allotment\"\nticks = 90\ninputs = [\"30 start +\", \"31 start -\", \"50 walk 100\"]\n");
  const Ran ran = allotment_in(folder, "--headless --replay by-hand.run --record checked.run");
  CAPTURE(ran.output);
  CHECK(ran.code == 0);
  CHECK(ran.output.find("unchecked: its end is not compared") != std::string::npos);
  CHECK(vole::read_text(folder.path("checked.run"), 1 << 20).find("checksum = ") != std::string::npos);
  const Ran again = allotment_in(folder, "--headless --replay checked.run");
  CHECK(again.code == 0);
  CHECK(again.output.find("as recorded") != std::string::npos);
}

TEST_CASE("without a display a game says so, and does not play unseen") {
  TempFolder folder;
  const Ran ran = run_command("env -u DISPLAY -u WAYLAND_DISPLAY -u SDL_VIDEODRIVER timeout 30 " +
                              as_word(variable("VOLE_ALLOTMENT")));
  CHECK(ran.code == 1);
  CHECK(ran.output.find("error: no window can be opened") != std::string::npos);
  CHECK(ran.output.find("without a display, run with --headless") != std::string::npos);
}

TEST_CASE("the same seed and inputs give the same state in every process") {
  TempFolder folder;
  const auto closing_line = [&](const std::string& words) {
    const std::string output = allotment_in(folder, words).output;
    return output.substr(output.rfind("checksum"));
  };
  const std::string first = closing_line("--headless --ticks 200 --seed 4");
  CHECK(closing_line("--headless --ticks 200 --seed 4") == first);
  CHECK(closing_line("--headless --ticks 200 --seed 5") != first);
  CHECK(closing_line("--headless --ticks 200 --seed 4 --shot a.png@100 --xray") == first);
}

TEST_CASE("an unreadable folder is reported") {
  TempFolder folder;
  write_small_game(folder);
  // Root reads everything, so root steps down to nobody for this.
  const bool root = run_command("id -u").output == "0\n";
  const std::string as_nobody = root ? "setpriv --reuid=65534 --regid=65534 --clear-groups " : "";
  using std::filesystem::perms;
  std::filesystem::permissions(folder.path(), perms::owner_all | perms::others_read | perms::others_exec);
  const auto check = [&] {
    return run_command(as_nobody + as_word(variable("VOLE_TOOL")) + " check " + as_word(folder.path()));
  };
  if (check().code != 0) return;  // nobody may not even start the program here
  std::filesystem::permissions(folder.path("assets"), perms::none);
  const Ran ran = check();
  std::filesystem::permissions(folder.path("assets"), perms::owner_all);
  CAPTURE(ran.output);
  CHECK(ran.code == 1);
  CHECK(ran.output.find("assets: error: folder cannot be read: Permission denied") != std::string::npos);
}

TEST_CASE("a preview shows each frame of a sheet and the rim of what is solid") {
  TempFolder folder;
  write_small_game(folder);
  vole::Image frames({32, 16});
  for (int i = 0; i < 8; ++i)
    for (int y = 0; y < 8; ++y)
      for (int x = 0; x < 8; ++x)
        frames.at(i % 4 * 8 + x, i / 4 * 8 + y) = {static_cast<std::uint8_t>(20 + i * 20), 200, 77, 255};
  vole::write_png(folder.path("assets/mouse.png"), frames);
  REQUIRE(vole_in(folder, "preview assets/mouse.sheet.toml -o a.png").code == 0);
  const vole::Image sheet = vole::read_png(folder.path("a.png"));
  for (int i = 0; i < 8; ++i) {
    int pixels = 0;
    for (int y = 0; y < sheet.size().y; ++y)
      for (int x = 0; x < sheet.size().x; ++x) pixels += sheet.at(x, y) == frames.at(i % 4 * 8, i / 4 * 8);
    CAPTURE(i);
    CHECK(pixels > 8 * 8 * 4);  // enlarged at least twice each way, but for the pivot's cross
  }
  REQUIRE(vole_in(folder, "preview assets/soil.tileset.toml -o b.png").code == 0);
  const vole::Image tiles = vole::read_png(folder.path("b.png"));
  int rim = 0;
  for (int y = 0; y < tiles.size().y; ++y)
    for (int x = 0; x < tiles.size().x; ++x) rim += tiles.at(x, y) == vole::Colour{0xd9, 0x72, 0x4a, 0xff};
  CHECK(rim > 100);
}

namespace {

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

}  // namespace

TEST_CASE(
    "a recording says what it holds, and two of them where they part: tick, thing, field and both values") {
  TempFolder folder;
  write_small_game(folder);
  const std::string game = as_word(variable("VOLE_ALLOTMENT"));
  const std::string shipped = source_folder() + "/examples/allotment/recordings/harvest.run";
  const Ran one = vole_in(folder, "recording " + as_word(shipped));
  CAPTURE(one.output);
  CHECK(one.code == 0);
  CHECK(has(one.output, "2412 ticks (40 s), seed 7"));
  CHECK(has(one.output, "start: pressed 26 times\n"));
  CHECK(has(one.output, "walk: pushed for "));
  // The same, with one press of the jump a little later.
  std::string text = vole::read_text(shipped, 1 << 20);
  const std::size_t jump = text.find("jump +");
  REQUIRE(jump != text.npos);
  const std::size_t number = text.rfind('+', jump - 2) + 1;
  const int ticks = std::stoi(text.substr(number));
  text.replace(number, text.find(' ', number) - number, std::to_string(ticks + 1));
  folder.write("later.run", text);
  const Ran two = vole_in(folder, "recording " + as_word(shipped) + " later.run --game " + game);
  CAPTURE(two.output);
  CHECK(two.code == 1);
  CHECK(has(two.output, "no game \"allotment\" is around it, so what was pressed is not counted"));
  CHECK(has(two.output, "what is done differs first in tick "));
  CHECK(has(two.output, "the states differ:\n"));
  CHECK(has(two.output, "  vole 0, side_mover.now.rising: true and false\n"));
  const Ran alike = run_command(game + " --replay " + as_word(shipped) + " --compare " + as_word(shipped));
  CHECK(alike.code == 0);
  CHECK(has(alike.output, "alike for 2412 ticks\n"));
  // Cut short, of another game, of another version of the format, or none at all.
  folder.write("cut.run", text.substr(0, text.size() / 2));
  CHECK(vole_in(folder, "recording cut.run").code == 1);
  folder.write("other.run", "format = 99\ngame = \"allotment\"\nticks = 3\ninputs = []\n");
  CHECK(vole_in(folder, "recording other.run").code == 1);
  // A long one in which little is done takes no longer.
  folder.write("long.run",
               "game = \"small\"\nticks = 1000000000000\ninputs = [\"1 jump +\", \"900 walk 100\"]\n");
  CHECK(has(vole_in(folder, "recording long.run long.run").output, "jump: pressed 1 time"));
  CHECK(has(vole_in(folder, "recording long.run long.run").output,
            "what is done is the same in 1000000000000 ticks"));
  CHECK(has(vole_in(folder, "recording " + as_word(shipped) + " later.run --game none").output,
            "no such program"));
  folder.write("small.run", "game = \"small\"\nticks = 3\ninputs = [\"1 jump +\"]\n");
  CHECK(has(vole_in(folder, "recording small.run").output, "jump: pressed 1 time"));
  CHECK(
      has(vole_in(folder, "recording small.run " + as_word(shipped)).output, "is of the game \"allotment\""));
  CHECK(vole_in(folder, "recording none.run").code == 1);
  CHECK(vole_in(folder, "recording").code == 2);
  CHECK(run_command(game + " --compare small.run").code == 2);
}

// What `vole check` finds beyond broken files, how it is let pass, and the schemas for editors.
#include "support.hpp"

namespace {

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// A small game of which nothing is unused or empty.
void write_tidy_game(const TempFolder& folder) {
  write_small_game(folder);
  folder.write("src/main.cpp", "int main() { stage.load_level(\"patch\"); }\n");
}

void append(const TempFolder& folder, const std::string& file, const std::string& text) {
  folder.write(file, vole::read_text(folder.path(file), 1 << 20) + text);
}

// A picture in which only the left half shows anything.
void write_half_empty(const TempFolder& folder, const std::string& file) {
  vole::Image image({16, 8});
  for (int y = 0; y < 8; ++y)
    for (int x = 0; x < 8; ++x) image.at(x, y) = vole::white;
  vole::write_png(folder.path(file), image);
}

}  // namespace

TEST_CASE("a tidy game passes, and an unused file is reported") {
  TempFolder folder;
  write_tidy_game(folder);
  const Ran tidy = vole_in(folder, "check");
  CAPTURE(tidy.output);
  CHECK(tidy.code == 0);
  folder.write_picture("assets/old.png", {4, 4});
  folder.write("assets/notes.txt", "paint the shed");
  folder.write("levels/spare.level.toml", "[[layers]]\nname = \"things\"\n");
  const Ran ran = vole_in(folder, "check");
  CHECK(ran.code == 1);
  CHECK(
      has(ran.output,
          "./assets/old.png: warning: this file is not used: no kind, level or code names it [unused-file]"));
  CHECK(has(ran.output, "./assets/notes.txt: warning"));
  CHECK(has(ran.output, "./levels/spare.level.toml: warning"));
  CHECK(has(ran.output, "3 problems"));
  // A name in quotes in the code is a use; so is a generated one, but not one that merely begins the same.
  append(folder, "src/main.cpp", "// draw(\"old\"); names::level::spare; names::sheet::older\n");
  const Ran used = vole_in(folder, "check");
  CHECK_FALSE(has(used.output, "old.png"));
  CHECK_FALSE(has(used.output, "spare"));
  folder.write("src/main.cpp", "load_level(\"patch\"); names::level::spare; names::sheet::older\n");
  CHECK(has(vole_in(folder, "check").output, "old.png"));
}

TEST_CASE("frames that show nothing are reported, but not the blanks of a font") {
  TempFolder folder;
  write_tidy_game(folder);
  write_half_empty(folder, "assets/flash.png");
  folder.write("assets/flash.sheet.toml", "frame = { size = [4, 8] }\n");
  append(folder, "src/main.cpp", "// \"flash\"");
  CHECK(has(vole_in(folder, "check").output,
            "./assets/flash.sheet.toml: warning: frames 2, 3 of \"flash\" show nothing [empty-frame]"));
  append(folder, "assets/flash.sheet.toml", "[font]\nglyphs = [\"ab  \"]\n");
  const Ran font = vole_in(folder, "check");
  CAPTURE(font.output);
  CHECK(font.code == 0);
}

TEST_CASE("names that hide others or differ by letter case only are reported") {
  TempFolder folder;
  write_tidy_game(folder);
  folder.write("assets/soil.sheet.toml", "picture = \"mouse.png\"\n");
  folder.write_picture("assets/Mouse.png", {4, 4});
  append(folder, "src/main.cpp", "// \"soil\" \"Mouse\"");
  const Ran ran = vole_in(folder, "check");
  CHECK(has(ran.output,
            "./assets/soil.sheet.toml: warning: the sheet \"soil\" hides the picture \"soil.png\" beside it, "
            "which it "
            "does not use; name one of them otherwise [hidden-name]"));
  CHECK(has(ran.output, "mouse.png: warning: differs from assets/Mouse.png by letter case only"));
  folder.write("assets/soil.sheet.toml", "picture = \"MOUSE.png\"\n");
  CHECK(has(vole_in(folder, "check").output, "and letter case counts"));
}

TEST_CASE("loops that end as they begin, rules that never win and clips that nothing plays are reported") {
  TempFolder folder;
  write_tidy_game(folder);
  folder.write("assets/mouse.sheet.toml",
               "frame = { size = [8, 8] }\n[clips.run]\nframes = [0, 1, 0]\n[clips.idle]\nframes = [3]\n"
               "[clips.lost]\nframes = [4]\n[[rules]]\nclip = \"run\"\nwhen = [\"speed > 1\"]\n"
               "[[rules]]\nclip = \"idle\"\n[[rules]]\nclip = \"run\"\nwhen = [\"grounded\"]\n");
  const Ran ran = vole_in(folder, "check");
  for (const char* line : {"clip \"run\" loops, and its last frame repeats its first", "[repeated-frame]",
                           "./assets/mouse.sheet.toml:14:8: warning: this rule can never win: \"idle\" above "
                           "it holds whenever it does [dead-rule]",
                           "no rule plays the clip \"lost\", and no code names it"})
    if (!has(ran.output, line)) FAIL_CHECK("not told: " << line << "\n" << ran.output);
  append(folder, "src/main.cpp", "// play(\"lost\")");
  CHECK_FALSE(has(vole_in(folder, "check").output, "unplayed-clip"));
}

TEST_CASE(
    "facts that nothing sets are reported, with what was meant, but not those that a body or the code sets") {
  TempFolder folder;
  write_tidy_game(folder);
  folder.write(
      "assets/mouse.sheet.toml",
      "frame = { size = [8, 8] }\n[clips.run]\nframes = [0, 1]\n[[rules]]\nclip = \"run\"\n"
      "when = [\"groundd\"]\n[[rules]]\nclip = \"run\"\nwhen = [\"tired\", \"vy < 0\", \"not finished\"]\n");
  const Ran ran = vole_in(folder, "check");
  CAPTURE(ran.output);
  CHECK(has(ran.output,
            "./assets/mouse.sheet.toml:5:8: warning: nothing sets the fact \"groundd\" that this rule asks "
            "for; did you "
            "mean \"grounded\"? [unset-fact]"));
  CHECK(has(ran.output, "mouse.sheet.toml:8:8: warning: nothing sets the fact \"tired\""));
  CHECK(has(ran.output, "2 problems"));
  append(folder, "src/main.cpp", "// set_fact(\"tired\", 1)");
  CHECK(has(vole_in(folder, "check").output, "1 problem"));
}

TEST_CASE("a rule that can never win is reported with the reason, and no other") {
  TempFolder folder;
  write_tidy_game(folder);
  const auto told = [&](const std::vector<std::string>& rules) {
    std::string text = "frame = { size = [8, 8] }\n[clips.run]\nframes = [0, 1]\n";
    for (const std::string& when : rules) text += "[[rules]]\nclip = \"run\"\nwhen = [" + when + "]\n";
    folder.write("assets/mouse.sheet.toml", text);
    const std::string output = vole_in(folder, "check").output;
    std::string reasons;
    for (std::size_t at = output.find("can never win: "); at != std::string::npos;
         at = output.find("can never win: ", at + 1))
      reasons += output.substr(at + 15, output.find(" [", at) - at - 15) + "\n";
    return reasons;
  };
  const std::string above = "\"run\" above it holds whenever it does\n";
  const std::string together = "of those above it one always holds when it does\n";
  CHECK(told({"\"vy < 0\"", "\"vy < -5\", \"grounded\""}) == above);
  CHECK(told({"\"vy < -5\"", "\"vy < 0\"", "\"vy <= 0\"", "\"vy > 0\""}).empty());
  CHECK(told({"\"grounded\", \"not grounded\""}) == "what it asks of \"grounded\" cannot be\n");
  CHECK(told({"\"vx > 3\", \"vx < 2\"", "\"speed < 0\""}) ==
        "what it asks of \"vx\" cannot be\nwhat it asks of \"speed\" cannot be\n");
  CHECK(told({"\"grounded\"", "\"not grounded\"", "\"vx > 1\""}) == together);
  CHECK(told({"\"vx > 1\", \"grounded\"", "\"vx <= 1\", \"grounded\"", "\"grounded\", \"vy < 2\"", ""}) ==
        together);
  CHECK(told({"\"vx == 1\"", "\"vx != 1\", \"vx > 0\"", "\"vx >= 1\"", "\"vx > 0\", \"vx < 1\""}) ==
        together + above);
  // With facts beyond all trying, pairs are still found.
  std::vector<std::string> many;
  for (int i = 0; i < 30; ++i) many.push_back("\"vx > 3\", \"f" + std::to_string(i) + " > 1\"");
  many.push_back("\"f7 > 2\", \"vx > 4\"");
  CHECK(told(many) == above);
}

TEST_CASE("frames that jump on their pivot are reported, but not a bird's wings or a step") {
  TempFolder folder;
  write_tidy_game(folder);
  // Four frames of 16 x 16, in which a box of 8 x 8 has its left top at these spots.
  const auto told = [&](const std::vector<vole::IVec2>& spots, const std::string& pivot,
                        const std::string& clip) {
    vole::Image image({64, 16});
    for (std::size_t i = 0; i < 4; ++i)
      for (int y = 0; y < 8; ++y)
        for (int x = 0; x < 8; ++x)
          image.at(static_cast<int>(i) * 16 + spots[i].x + x, spots[i].y + y) = vole::white;
    vole::write_png(folder.path("assets/mouse.png"), image);
    folder.write("assets/mouse.sheet.toml",
                 "frame = { size = [16, 16] }\npivot = " + pivot + "\n[clips.run]\n" + clip);
    return vole_in(folder, "check").output;
  };
  const std::string bottom = "\"bottom\"", all = "range = [0, 3]\n";
  CHECK(has(
      told({{4, 8}, {4, 8}, {4, 3}, {4, 8}}, bottom, all),
      "./assets/mouse.sheet.toml: warning: clip \"run\" jumps 5 pixels up from frame 1 to 2; `vole preview"));
  CHECK(has(told({{4, 8}, {4, 8}, {4, 8}, {4, 4}}, bottom, all + "loop = false\n"),
            "4 pixels up from frame 2 to 3"));
  CHECK(has(told({{0, 8}, {4, 8}, {8, 8}, {8, 8}}, bottom, all), "8 pixels left from frame 3 to 0"));
  CHECK_FALSE(has(told({{0, 8}, {4, 8}, {8, 8}, {8, 8}}, bottom, all + "loop = false\n"), "jumping-frame"));
  CHECK_FALSE(has(told({{4, 8}, {4, 6}, {4, 8}, {6, 7}}, bottom, all), "jumping-frame"));
  CHECK_FALSE(has(told({{4, 8}, {4, 0}, {4, 8}, {4, 0}}, "\"centre\"", all), "jumping-frame"));
  // A clip that has its own pivot for what lies elsewhere does not jump in itself.
  CHECK_FALSE(has(told({{4, 2}, {4, 2}, {4, 8}, {4, 8}}, bottom, "range = [0, 1]\n"), "jumping-frame"));
}

TEST_CASE("sets are played by rules and kinds, and tracks change fields that there are") {
  TempFolder folder;
  write_tidy_game(folder);
  folder.write(
      "assets/mouse.sheet.toml",
      "frame = { size = [8, 8] }\n[sets.run]\ndirections = \"two\"\nrows = { right = 0 }\n[sets.lost]\nrows "
      "= { a = 1 }\n"
      "[clips.idle]\nframes = [0]\n[[rules]]\nclip = \"run\"\nwhen = [\"speed > 1\"]\n[[rules]]\nclip = "
      "\"idle\"\n[tracks.t.fields]\n\"body.sise\" = [{ at = 1, value = [1, 1] }]\n\"torch.reach\" = [{ at = "
      "1, "
      "value = 1 }]\n");
  const Ran ran = vole_in(folder, "check");
  CAPTURE(ran.output);
  CHECK(has(ran.output, "no rule plays the set \"lost\", and no code names it [unplayed-clip]"));
  CHECK(has(ran.output,
            "mouse.sheet.toml:15:1: error: \"body\" has no number, pair or colour \"sise\"; did you mean "
            "\"size\"?"));
  CHECK_FALSE(has(ran.output, "torch"));
  folder.write("kinds.toml", "[mouse]\nsprite = { sheet = \"mouse\", clip = \"ran\" }\n[crumb]\n");
  CHECK(has(vole_in(folder, "check").output, "no clip or set \"ran\" in \"mouse\"; did you mean \"run\"?"));
}

TEST_CASE("what goes beyond the project's own limits is reported") {
  TempFolder folder;
  write_tidy_game(folder);
  append(folder, "game.toml",
         "[limits]\npicture_side = 20\nframes_in_sheet = 4\ncells_in_level = 30\nfile_kib = 1\nassets_kib = "
         "1\n");
  folder.write("assets/notes.txt", std::string(3000, 'x'));
  const Ran ran = vole_in(folder, "check");
  for (const char* line :
       {"./assets/mouse.png: warning: is 32 pixels along a side; the project's limit is 20 [over-limit]",
        "./assets/mouse.sheet.toml: warning: has 8 frames; the project's limit is 4",
        "./levels/patch.level.toml: warning: has 40 cells; the project's limit is 30",
        "./assets/notes.txt: warning: has 3 KiB; the project's limit is 1",
        "./game.toml: warning: all assets have "})
    if (!has(ran.output, line)) FAIL_CHECK("not told: " << line << "\n" << ran.output);
}

TEST_CASE("each rule can be let pass where it is broken, with a reason") {
  TempFolder folder;
  write_tidy_game(folder);
  write_half_empty(folder, "assets/flash.png");
  folder.write(
      "assets/flash.sheet.toml",
      "frame = { size = [4, 8] }\n[check]\nallow = { empty-frame = \"dark between two flashes\", unused-file "
      "= \"for the thunder\" }\n");
  append(folder, "game.toml", "[check.files.\"assets/flash.png\"]\nunused-file = \"goes with its sheet\"\n");
  append(folder, "kinds.toml", "[check]\nallow = { unused-file = \"no file of the assets, but why not\" }\n");
  const Ran ran = vole_in(folder, "check");
  CAPTURE(ran.output);
  CHECK(ran.code == 0);
  // Pixels that are left over at the edge are allowed in the same way, and then not used.
  folder.write_picture("assets/odd.png", {9, 8});
  append(folder, "src/main.cpp", "// \"odd\"");
  folder.write("assets/odd.sheet.toml", "frame = { size = [4, 8] }\n");
  CHECK(has(vole_in(folder, "check").output,
            "do not fill \"odd\", which is 9 wide; or allow = { uneven-frames"));
  append(folder, "assets/odd.sheet.toml", "check = { allow = { uneven-frames = \"a line of notes\" } }\n");
  CHECK(vole_in(folder, "check").code == 0);
}

TEST_CASE("a rule that is not there and one without a reason are errors themselves") {
  TempFolder folder;
  write_tidy_game(folder);
  append(folder, "game.toml",
         "[check]\nallow = { unused-fle = \"x\" }\n[check.files.\"assets/none.png\"]\nunused-file = \"\"\n");
  const Ran ran = vole_in(folder, "check");
  CHECK(ran.code == 1);
  CHECK(has(ran.output, "game.toml:6:11: error: no rule \"unused-fle\"; did you mean \"unused-file\"?"));
  CHECK(has(ran.output, "game.toml:8:15: error: the reason why \"unused-file\" is allowed is missing"));
  CHECK(has(ran.output, "no file \"assets/none.png\""));
}

TEST_CASE("groups, points and rings of carried things are checked, and JSON names the rule") {
  TempFolder folder;
  write_tidy_game(folder);
  append(folder, "game.toml",
         "[groups.a]\nneeds = [\"a\"]\nsheets = [\"mose\"]\n[scenes]\npatch = [\"b\"]\n");
  append(folder, "kinds.toml",
         "[ring]\nsprite = { sheet = \"mouse\", frame = \"x\" }\ncarries = { paw = \"ring\" }\n");
  folder.write_picture("assets/old.png", {4, 4});
  const Ran ran = vole_in(folder, "check");
  for (const char* line :
       {"the group \"a\" contains itself", "no sheet \"mose\"; did you mean \"mouse\"?", "no group \"b\"",
        "\"ring\" carries something that carries it", "no frame \"x\" in \"mouse\""})
    if (!has(ran.output, line)) FAIL_CHECK("not told: " << line << "\n" << ran.output);
  // While names are wrong nothing is called unused by them.
  CHECK_FALSE(has(ran.output, "unused-file"));
  TempFolder whole;
  write_tidy_game(whole);
  whole.write_picture("assets/old.png", {4, 4});
  const Ran json = vole_in(whole, "check --json");
  CHECK(has(json.output, "\"rule\": \"unused-file\""));
  CHECK(has(json.output, "\"severity\": \"warning\""));
}

TEST_CASE("an independent validator accepts the demo's files and a new game's, and refuses broken ones") {
  TempFolder folder;
  REQUIRE(vole_in(folder, "schema -o schemas").code == 0);
  REQUIRE(vole_in(folder, "new game").code == 0);
  const std::string validator = "python3 " + as_word(source_folder() + "/tests/validate_schemas.py") + " ";
  const std::string all = "find " + as_word(allotment_folder()) + " " + as_word(folder.path("game")) +
                          " -name '*.toml' -o -name '*.run' | grep -v /build";
  const Ran good = run_command(validator + as_word(folder.path("schemas")) + " $(" + all + ") 2>&1");
  CAPTURE(good.output);
  CHECK(good.code == 0);
  // The files of a new game name the schemas that lie beside them.
  CHECK(vole::read_text(folder.path("game/levels/wall.level.toml"), 1 << 20)
            .starts_with("#:schema ../schemas/level.schema.json\n"));
  CHECK(vole::read_text(folder.path("game/schemas/level.schema.json"), 1 << 20) ==
        vole::read_text(folder.path("schemas/level.schema.json"), 1 << 20));
  const auto refused = [&](const std::string& file, const std::string& text) {
    folder.write(file, text);
    return run_command(validator + as_word(folder.path("schemas")) + " " + as_word(folder.path(file)));
  };
  CHECK(has(refused("a.sheet.toml", "rules = [{}]\n").output, "'clip' is a required property"));
  CHECK(has(refused("a.sheet.toml", "pivott = \"top\"\n").output, "'pivott' was unexpected"));
  CHECK(refused("a.sheet.toml", "pivot = \"tip\"\n").code == 1);
  CHECK(refused("a.sheet.toml", "pivot = [1, 2, 3]\n").code == 1);
  CHECK(refused("a.sheet.toml", "clips = { run = { frames = [0], fps = 0 } }\n").code == 1);
  CHECK(refused("a.sheet.toml", "colour = \"red\"\nsize = [1, 1]\n").code == 1);
  CHECK(refused("kinds.toml", "[mouse]\nbody = { size = [0, 4] }\n").code == 1);
  CHECK(refused("kinds.toml", "[mouse]\nsprite = {}\n").code == 1);
  CHECK(refused("a.level.toml", "[[layers]]\nname = \"a\"\norder = \"height\"\n").code == 1);
  CHECK(refused("a.level.toml", "[[layers]]\nname = \"a\"\n[[places]]\nat = [1, 2]\n").code == 1);
  CHECK(refused("a.level.toml",
                "[[layers]]\nname = \"a\"\n[[places]]\nkind = \"b\"\nat = [1, 2]\nbulb = { worth = 2 }\n")
            .code == 0);
}

TEST_CASE("what could not be read is not judged by") {
  TempFolder folder;
  write_small_game(folder);
  folder.write_picture("assets/icon.png", {16, 16});
  folder.write("src/main.cpp", "int main() { return 0; } // \"mouse\" \"run\" \"idle\" \"patch\"\n");
  folder.write("game.toml",
               vole::read_text(folder.path("game.toml"), 10000) + "icon = \"assets/icon.png\"\n");
  folder.write("recordings/a.run", "game = \"small\"\nticks = 3\ninputs = [\"0 walk 100\", \"1 jump +\"]\n");
  REQUIRE(vole_in(folder, "check").output.find("nothing wrong") != std::string::npos);
  const auto broken = [&](const std::string& file, const std::string& text) {
    const std::string whole = vole::read_text(folder.path(file), 1 << 20);
    folder.write(file, text);
    const Ran ran = vole_in(folder, "check");
    folder.write(file, whole);
    CHECK(ran.code == 1);
    return ran.output;
  };
  for (const auto& [file, text] :
       std::vector<std::pair<std::string, std::string>>{{"controls.toml", "[actions\n"},
                                                        {"game.toml", "title = 3\n"},
                                                        {"kinds.toml", "[mouse\n"},
                                                        {"levels/patch.level.toml", "layers = 3\n"}}) {
    CAPTURE(file);
    const std::string output = broken(file, text);
    CAPTURE(output);
    // Nothing but what is wrong with that file.
    std::size_t lines = 0;
    for (std::size_t at = 0; (at = output.find("error:", at)) != std::string::npos; ++at) ++lines;
    CHECK(output.find("warning:") == std::string::npos);
    CHECK(output.find(file) != std::string::npos);
    CHECK(lines <= 3);
    for (std::size_t at = 0, end = 0; (end = output.find('\n', at)) != std::string::npos; at = end + 1)
      if (output.substr(at, end - at).find("error:") != std::string::npos)
        CHECK(output.substr(at, file.size() + 2).find(file) != std::string::npos);
  }
}

TEST_CASE("check sees what a game would only stumble over") {
  TempFolder folder;
  write_small_game(folder);
  const auto with = [&](const std::string& file, const std::string& what, const std::string& by) {
    return checked_with(folder, file, what, by);
  };
  CHECK_THAT(with("kinds.toml", "body = { size = [6, 6] }\n", ""),
             Catch::Contains("kinds.toml:1:1: error: kind \"mouse\" has a side_mover but no body to move"));
  CHECK_THAT(with("kinds.toml", "player = {}", "player = {}\ntop_mover = {}"),
             Catch::Contains("kind \"mouse\" is moved by a side_mover and by a top_mover"));
  CHECK_THAT(with("kinds.toml", "side_mover = {}", "top_mover = {}"),
             Catch::Contains("kinds.toml:1:1: error: no axis \"walk_down\" in controls.toml"));
  for (const char* place :
       {"cell = [10, 2]", "cell = [6, 4]", "cell = [-1, 2]", "at = [81, 3]", "at = [-0.5, 3]"})
    CHECK_THAT(with("levels/patch.level.toml", "cell = [6, 2]", place),
               Catch::Contains("this place is outside the level, which has 10 x 4 cells (80 x 32 pixels)"));
  for (const auto& [key, value, text] : std::vector<std::array<std::string, 3>>{
           {"title", "\"\"", "a text is expected here, and it is empty"},
           {"title", "\"a\\nExec=rm\"", "a title has no backslashes, line breaks"},
           {"id", "\"Big\"", "an id has small letters"},
           {"id", "\"9\"", "begins with a letter"},
           {"id", "\"lib\"", "\"lib\" is taken"},
           {"version", "\"1/2\"", "a version begins with a digit"},
           {"version", "\"../1\"", "a version begins with a digit"},
           {"icon", "\"../../etc/passwd\"", "is not in the folder"},
           {"icon", "\"/etc/passwd\"", "is not in the folder"}}) {
    CAPTURE(key, value);
    const std::string game =
        "title = \"Small\"\nid = \"small\"\ncanvas = [64, 32]\nfirst_scene = \"patch\"\n";
    const std::size_t at = game.find(key + " =");
    const std::string changed =
        at == std::string::npos
            ? game + key + " = " + value + "\n"
            : std::string(game).replace(at, game.find('\n', at) - at, key + " = " + value);
    folder.write("game.toml", changed);
    CHECK_THAT(vole_in(folder, "check").output, Catch::Contains(text));
    // The same words for whoever packs it.
    const Ran packed = vole_in(folder, "package --program /bin/true -o out");
    CHECK(packed.code == 1);
    CHECK_THAT(packed.output, Catch::Contains(text));
    folder.write("game.toml", game);
  }
  // A link out of the folder is neither passed nor packed.
  std::filesystem::create_symlink("/etc/passwd", folder.path("assets/secret.png"));
  for (const char* words : {"check", "package --program /bin/true -o out"}) {
    const Ran ran = vole_in(folder, words);
    CHECK(ran.code == 1);
    CHECK_THAT(ran.output,
               Catch::Contains("assets/secret.png") && Catch::Contains("a link that leads out of it"));
  }
  CHECK_FALSE(vole::folder_exists(folder.path("out")));
}

TEST_CASE("words that are no command list the commands, with the nearest") {
  TempFolder folder;
  const Ran none = vole_in(folder, "");
  CHECK(none.code == 2);
  CHECK_THAT(none.output,
             Catch::Contains("  preview   Show a sheet") && Catch::Contains("  package   Make the build"));
  const Ran near = vole_in(folder, "pack");
  CHECK(near.code == 2);
  CHECK_THAT(near.output, Catch::Contains("no command \"pack\"; did you mean \"package\"?") &&
                              Catch::Contains("  check     Read every file"));
  CHECK(vole_in(folder, "--version").code == 0);
  for (const auto& [words, text] : std::vector<std::pair<std::string, std::string>>{
           {"--versio", "vole: no option \"--versio\"; did you mean \"--version\"?"},
           {"check --jsn", "vole check: no option \"--jsn\"; did you mean \"--json\"?"},
           {"check . here", "vole check: unexpected word \"here\""}}) {
    const Ran wrong = vole_in(folder, words);
    CAPTURE(words);
    CHECK(wrong.code == 2);
    CHECK_THAT(wrong.output, Catch::Contains(text));
  }
  CHECK_THAT(vole_in(folder, "new ''").output, Catch::Contains("a new game needs a folder with a name"));
  CHECK_THAT(vole_in(folder, "new -- -x").output, Catch::Contains("cmake -S ./-x -B ./-x/build"));
  for (const char* command : {"new", "check", "preview", "atlas", "schema", "package"}) {
    const Ran help = vole_in(folder, std::string(command) + " --help");
    CHECK(help.code == 0);
    CHECK_THAT(help.output, Catch::Contains(std::string("Examples:\n  vole ") + command));
  }
}

TEST_CASE("man pages and completions hold every command and option, and programs that read them take them") {
  TempFolder folder;
  REQUIRE(vole_in(folder, "help-files -o help").code == 0);
  const auto text = [&](const char* file) {
    return vole::read_text(folder.path(std::string("help/") + file), 1 << 20);
  };
  const std::string options[] = {"--title", "--view",   "--json", "--output", "--clip",   "--show",
                                 "--watch", "--header", "--name", "--page",   "--target", "--program"};
  std::string pages;
  for (const char* command : {"new", "check", "preview", "atlas", "schema", "package"}) {
    const std::string page = text(("vole-" + std::string(command) + ".1").c_str());
    CHECK_THAT(page, Catch::StartsWith(".TH VOLE-") && Catch::Contains(".SH EXAMPLES") &&
                         Catch::Contains(".SH EXIT STATUS"));
    CHECK_THAT(text("vole.1"), Catch::Contains(command));
    for (const char* shell : {"vole.bash", "_vole", "vole.fish"})
      CHECK_THAT(text(shell), Catch::Contains(command));
    pages += page;
  }
  for (const std::string& option : options) {
    std::string in_roff = option;
    in_roff.replace(0, 2, "\\-\\-");
    CHECK_THAT(pages, Catch::Contains(in_roff));
    CHECK_THAT(text("vole.bash"), Catch::Contains(option));
    CHECK_THAT(text("_vole"), Catch::Contains(option + "["));
    CHECK_THAT(text("vole.fish"), Catch::Contains("-l " + option.substr(2)));
  }
  // bash completes what there is.
  const auto completed = [&](const std::string& words, int position) {
    return run_command("cd " + as_word(folder.path()) + " && bash -c '. help/vole.bash; COMP_WORDS=(" +
                       words + "); COMP_CWORD=" + std::to_string(position) + "; _vole; echo ${COMPREPLY[@]}'")
        .output;
  };
  CHECK(completed("vole p", 1) == "preview package\n");
  CHECK(completed("vole new x --view ", 4) == "side top\n");
  CHECK(completed("vole atlas --he", 2) == "--help --header\n");
}

TEST_CASE("what is solid otherwise than was meant is reported, each with its rule, and can be let pass") {
  TempFolder folder;
  write_tidy_game(folder);
  const auto found = [&] { return vole_in(folder, "check").output; };
  const auto with = [&](const std::string& file, const std::string& what, const std::string& by) {
    const std::string text = vole::read_text(folder.path(file), 1 << 20);
    std::string changed = text;
    REQUIRE(text.find(what) != std::string::npos);
    folder.write(file, changed.replace(text.find(what), what.size(), by));
    const std::string output = found();
    folder.write(file, text);
    return output;
  };
  const std::string level = "levels/patch.level.toml",
                    rows = "\"..........\",\n  \"..........\",\n  \"...,......\"";
  CHECK_THAT(found(), !Catch::Contains("[starts-inside]") && !Catch::Contains("[tight-gap]") &&
                          !Catch::Contains("[nobody-steers]"));
  CHECK_THAT(with(level, "cell = [1, 2]", "cell = [1, 3]"),
             Catch::Contains("the body of this \"mouse\" begins inside what is solid in cell 1, 3") &&
                 Catch::Contains("[starts-inside]"));
  CHECK_THAT(with("kinds.toml", "body = { size = [6, 6] }", "body = { size = [13, 6] }"),
             Catch::Contains("the body of \"mouse\", 13 x 6, is larger by half than its picture, 8 x 8 ") ||
                 Catch::Contains("[large-body]"));
  CHECK_THAT(with("kinds.toml", "player = {}\n", ""), !Catch::Contains("[nobody-steers]"));
  CHECK_THAT(with(level, "[[places]]\nkind = \"mouse\"\ncell = [1, 2]\n", ""),
             Catch::Contains("[nobody-steers]"));
  const std::string shaft = "\"......#.#.\",\n  \"......#.#.\",\n  \"...,......\"";
  folder.write("kinds.toml", vole::read_text(folder.path("kinds.toml"), 10000) +
                                 "[broad]\nbody = { size = [8, 6] }\nside_mover = {}\n");
  std::string text = vole::read_text(folder.path(level), 10000);
  text.replace(text.find(rows), rows.size(), shaft);
  folder.write(level, text + "[[places]]\nkind = \"broad\"\ncell = [4, 2]\n");
  CHECK_THAT(found(),
             Catch::Contains("this \"broad\" is as wide as the gap at cell 7, 0: 8 pixels; make its body a "
                             "little smaller [tight-gap]"));
  append(folder, level, "[check]\nallow = { tight-gap = \"it never goes there\" }\n");
  CHECK_THAT(found(), !Catch::Contains("[tight-gap]"));

  // A half tile among full ones, and a plank close under a ceiling.
  append(folder, "assets/soil.tileset.toml",
         "\n[tiles.half]\ncell = [0, 0]\nshape = \"lower half\"\n[tiles.plank]\ncell = [0, 0]\nsolid = "
         "true\none_way = "
         "\"up\"\n");
  text = vole::read_text(folder.path(level), 10000);
  text.replace(text.find("\"######"), 7, "\"##h###");
  text.replace(text.find("\"...,"), 5, "\".p.,");
  text.replace(text.find("\"......#"), 8, "\".#....#");
  text.replace(text.find("\"......#"), 8, "\".#....#");
  text.replace(text.find("\"#\" = \"soil\""), 12, "\"#\" = \"soil\", \"h\" = \"half\", \"p\" = \"plank\"");
  folder.write(level, text);
  CHECK_THAT(found(), Catch::Contains("the tile in cell 2, 3 is half as high as those on both sides") &&
                          Catch::Contains("[uneven-ground]"));
  // A tile that only looks solid beside one of its name.
  append(folder, "assets/soil.tileset.toml", "\n[tiles.soil_dark]\ncell = [0, 0]\n");
  std::string hollow = text;
  hollow.replace(hollow.find("\"##h"), 4, "\"#dh");
  hollow.replace(hollow.find("\"#\" = \"soil\""), 12, "\"#\" = \"soil\", \"d\" = \"soil_dark\"");
  folder.write(level, hollow);
  CHECK_THAT(found(),
             Catch::Contains("the tile \"soil_dark\" in cell 1, 3 is not solid, and \"soil\" beside it is") &&
                 Catch::Contains("[hollow-tile]"));
  folder.write(level, text);
  CHECK_THAT(found(), !Catch::Contains("[hollow-tile]"));
  append(folder, "assets/soil.tileset.toml", "solid = true\n");
  // A sensor that no code and no check asks for, and ways to ask for it.
  const std::string kinds = vole::read_text(folder.path("kinds.toml"), 10000);
  append(folder, "kinds.toml", "[bell]\nbody = { size = [6, 6], use = \"sensor\" }\ntags = [\"loud\"]\n");
  folder.write("src/main.cpp", "// \"mouse\" and \"broad\"\n");
  CHECK_THAT(found(), Catch::Contains("the sensor \"bell\" is asked for by nothing") &&
                          Catch::Contains("[unasked-sensor]"));
  folder.write("src/main.cpp", "// \"mouse\", \"broad\" and \"loud\"\n");
  CHECK_THAT(found(), !Catch::Contains("[unasked-sensor]"));
  folder.write("src/main.cpp", "// \"mouse\" and \"broad\"\n");
  append(folder, "kinds.toml",
         "[ear]\nbody = { size = [6, 6] }\nprobes.near = { categories = [\"plain\"] }\n");
  CHECK_THAT(found(), !Catch::Contains("[unasked-sensor]"));
  folder.write("kinds.toml", kinds +
                                 "[bell]\nshapes = [{ at = [0, 0], radius = 4 }, { name = \"rim\", at = [0, "
                                 "0], radius = 5, use = \"sensor\" }]\n");
  CHECK_THAT(found(), Catch::Contains("the sensor \"rim\" of \"bell\" is asked for by nothing"));
  folder.write("kinds.toml", kinds);
  CHECK_THAT(found(), Catch::Contains("the one-way tile in cell 1, 2 has only 0 pixels above it") &&
                          Catch::Contains("[low-ceiling]"));
  append(folder, "game.toml", "[categories]\nfoes = {}\n");
  CHECK_THAT(found(), Catch::Contains("no kind and no tile is of the category \"foes\"") &&
                          Catch::Contains("[idle-category]"));
  append(folder, "game.toml", "shy = { blocks = [], notices = [] }\n");
  CHECK_THAT(found(), Catch::Contains("the category \"shy\" neither blocks nor notices any"));
  append(folder, "assets/soil.tileset.toml", "category = \"fose\"\n");
  CHECK_THAT(found(), Catch::Contains("no category \"fose\"; did you mean \"foes\"?"));
}

TEST_CASE("a game writes its own schemas, and check holds its own components to them") {
  TempFolder folder;
  write_tidy_game(folder);
  const std::string kinds = vole::read_text(folder.path("kinds.toml"), 10000);
  const auto found = [&](const std::string& more) {
    folder.write("kinds.toml", kinds + more);
    return vole_in(folder, "check").output;
  };
  // Without schemas only the game knows.
  CHECK_THAT(found("[bulb]\nbulb = { wroth = 3 }\n"), !Catch::Contains("wroth"));
  const std::string game = as_word(variable("VOLE_ALLOTMENT"));
  Ran ran = run_command("cd " + as_word(folder.path()) + " && " + game + " --schemas schemas");
  CHECK(ran.code == 0);
  CHECK_THAT(ran.output, Catch::Contains("schemas/kinds.schema.json\n"));
  CHECK_THAT(found("[bulb]\nbulb = { worth = 3 }\n"), Catch::Contains("nothing wrong"));
  CHECK_THAT(found("[bulb]\nbulb = { wroth = 3 }\n"),
             Catch::Contains("error: unknown key \"wroth\"; did you mean \"worth\"?"));
  CHECK_THAT(found("[bulb]\nbulb = { worth = \"3\" }\n"),
             Catch::Contains("error: a whole number wanted here, not the text \"3\""));
  CHECK_THAT(found("[bulb]\nbulb = { worth = 2.5 }\n"), Catch::Contains("a whole number wanted here"));
  CHECK_THAT(found("[bulb]\nbulb = 3\n"), Catch::Contains("a table wanted here, not the number 3"));
  CHECK_THAT(found("[bulb]\nmuond = { scrapes = 3 }\n"),
             Catch::Contains("no component \"muond\"; did you mean \"mound\"?"));
  CHECK_THAT(found("[bulb]\nelevator = {}\n"), Catch::Contains("no component \"elevator\""));
  // Schemas that are older than the program, or odd, take nothing away from what it knows.
  const std::string written = vole::read_text(folder.path("schemas/kinds.schema.json"), 1 << 20);
  folder.write(
      "schemas/kinds.schema.json",
      R"({ "additionalProperties": { "properties": { "own": { "type": 3 }, "two": { "type": "array", "minItems": "x" } } } })");
  CHECK_THAT(found("[x]\nown = {}\ntwo = [1]\n"), Catch::Contains("nothing wrong"));
  folder.write("schemas/kinds.schema.json", written);
  // In places of levels too.
  folder.write("kinds.toml", kinds + "[bulb]\nbulb = { worth = 3 }\n");
  const std::string level = vole::read_text(folder.path("levels/patch.level.toml"), 10000);
  folder.write("levels/patch.level.toml",
               level + "[[places]]\nkind = \"bulb\"\ncell = [2, 2]\nbulb = { worth = true }\n");
  CHECK_THAT(vole_in(folder, "check").output, Catch::Contains("levels/patch.level.toml") &&
                                                  Catch::Contains("a whole number wanted here, not true"));
  folder.write("levels/patch.level.toml", level);
  // What is somebody's own is not written over, and what is no schema is told of.
  folder.write("schemas/kinds.schema.json", "{ \"mine\": 1 }");
  ran = run_command("cd " + as_word(folder.path()) + " && " + game + " --schemas schemas");
  CHECK(ran.code == 1);
  CHECK_THAT(ran.output, Catch::Contains("is there already, and was not made by this command"));
  for (const char* broken :
       {"{ \"mine\": 1 }", "{", "[[[[", "{ \"additionalProperties\": { \"properties\": 3 } }"}) {
    folder.write("schemas/kinds.schema.json", broken);
    CHECK_THAT(vole_in(folder, "check").output,
               Catch::Contains("schemas/kinds.schema.json: error: is no schema of kinds"));
  }
}

TEST_CASE("check tells of materials without all cases, and of links and tiles' values that are wrong") {
  TempFolder folder;
  write_tidy_game(folder);
  const std::string level = vole::read_text(folder.path("levels/patch.level.toml"), 10000);
  const auto found = [&] { return vole_in(folder, "check").output; };
  const std::string tileset = vole::read_text(folder.path("assets/soil.tileset.toml"), 10000);
  folder.write(
      "assets/soil.tileset.toml",
      tileset + "\n[materials.lawn]\ncases.all = \"soil\"\ncases.\"left, right, below\" = \"grass\"\n");
  CHECK_THAT(found(), Catch::Contains("material \"lawn\" has no tile for 14 of its 16 cases (\"none\", "
                                      "\"above\", \"right\", \"above, right\" "
                                      "and 10 more), and shows the nearest [missing-edges]"));
  std::string painted = level;
  painted.replace(painted.find("\"#\" = \"soil\""), 12, "\"#\" = \"soil\", \"l\" = \"lawn\"");
  painted.replace(painted.find("\"...,"), 5, "\".l.,");
  folder.write("levels/patch.level.toml", painted);
  CHECK_THAT(found(), Catch::Contains("level \"patch\" has \"none\" in cell 1, 2 [missing-edges]"));
  append(folder, "assets/soil.tileset.toml", "[check]\nallow = { missing-edges = \"two will do\" }\n");
  CHECK_THAT(found(), Catch::Contains("nothing wrong"));
  // What only the game knows, from its schemas.
  REQUIRE(vole_in(folder, "schema -o schemas").code == 0);
  std::string schema = vole::read_text(folder.path("schemas/kinds.schema.json"), 1 << 20);
  const std::string first = "\"body\": {";
  schema.replace(schema.find(first), first.size(),
                 "\"lever\": { \"type\": \"object\", \"properties\": { \"gate\": { \"type\": \"string\", "
                 "\"format\": \"place\" } }, "
                 "\"additionalProperties\": false }, \"body\": {");
  folder.write("schemas/kinds.schema.json", schema);
  folder.write("levels/patch.level.toml",
               painted +
                   "[[places]]\nkind = \"crumb\"\ncell = [2, 2]\nname = \"gate\"\n"
                   "[[places]]\nkind = \"crumb\"\ncell = [3, 2]\nlever = { gate = \"gaet\" }\n");
  CHECK_THAT(found(), Catch::Contains("error: no place \"gaet\" in level \"patch\"; did you mean \"gate\"?"));
  folder.write("levels/patch.level.toml", painted);
  folder.write("assets/soil.tileset.toml", tileset + "lever = { gat = \"a\" }\n");
  CHECK_THAT(found(), Catch::Contains("unknown key \"gat\"; did you mean \"gate\"?"));
}

TEST_CASE("check tells what is wrong with the pieces of an endless level") {
  const TempFolder folder;
  std::filesystem::copy(source_folder() + "/examples/towpath", folder.path(),
                        std::filesystem::copy_options::recursive);
  CHECK(vole_in(folder, "check").code == 0);
  CHECK_THAT(checked_with(folder, "levels/gap.level.toml", "name = \"path\"", "name = \"pth\""),
             Catch::Contains(
                 "levels/towpath.level.toml:36:3: warning: \"gap\" never comes: no other piece leads to it"));
  CHECK_THAT(
      checked_with(folder, "levels/gap.level.toml", "name = \"ground\"", "name = \"grund\""),
      Catch::Contains("towpath.level.toml:36:3: error: the piece \"gap\" has tiles in its layer \"grund\"") &&
          Catch::Contains("did you mean \"ground\"?"));
  CHECK_THAT(checked_with(folder, "levels/towpath.level.toml", "\"gap\",", "\"gapp\","),
             Catch::Contains("towpath.level.toml:36:3: error: no level \"gapp\"; did you mean \"gap\"?"));
  CHECK_THAT(checked_with(folder, "kinds.toml", "depth = -1", "depth = -1, layer = \"behnd\""),
             Catch::Contains("no layer \"behnd\" in level \"towpath\""));
  // What the lists name is used.
  CHECK_THAT(checked_with(folder, "levels/towpath.level.toml", "  \"gap\",\n", ""),
             Catch::Contains("levels/gap.level.toml: warning: this file is not used"));
}

TEST_CASE("check tells what a level or a piece lacks for a thing in it, as the game would") {
  TempFolder folder;
  write_small_game(folder);
  const auto found = [&] { return vole_in(folder, "check").output; };
  const std::string kinds = vole::read_text(folder.path("kinds.toml"), 1 << 16);
  folder.write("kinds.toml", kinds + "[lift]\nbody = { size = [8, 4] }\nalong_path = { path = \"upp\" }\n");
  const std::string level = vole::read_text(folder.path("levels/patch.level.toml"), 1 << 16);
  const std::string lift = "[[places]]\nkind = \"lift\"\ncell = [3, 2]\n";
  const std::string path = "[[paths]]\nname = \"up\"\npoints = [[8, 8], [24, 8]]\n";
  folder.write("levels/patch.level.toml", level + lift);
  CHECK_THAT(found(), Catch::Contains("error: no path \"upp\" in level \"patch\""));
  folder.write("levels/patch.level.toml", level + lift + path);
  CHECK_THAT(found(), Catch::Contains("error: no path \"upp\" in level \"patch\"; did you mean \"up\"?"));
  folder.write("kinds.toml", kinds + "[lift]\nbody = { size = [8, 4] }\nalong_path = { path = \"up\" }\n");
  CHECK(found().find("no path") == std::string::npos);
  // A path of the level is none of its pieces, and the other way round.
  folder.write(
      "levels/shelf.level.toml",
      "tileset = \"soil\"\nletters = { \".\" = \"\" }\n[[layers]]\nname = \"ground\"\nrows = "
      "[\"....\", \"....\"]\n[[layers]]\nname = \"things\"\n[[places]]\nkind = \"lift\"\ncell = [1, 1]\n");
  CHECK_THAT(found(), Catch::Contains("error: no path \"up\" in level \"shelf\""));
}

TEST_CASE("an action that nothing is bound to is reported, but not one that another player has") {
  TempFolder folder;
  write_tidy_game(folder);
  append(folder, "controls.toml",
         "[axes.lean]\nstick = []\n[axes.turn]\n[players.2.axes.turn]\nless = [\"key KeyQ\"]\n");
  const Ran ran = vole_in(folder, "check");
  CAPTURE(ran.output);
  CHECK(has(ran.output, "./controls.toml:7:7: warning: nothing is bound to the axis \"lean\""));
  CHECK_FALSE(has(ran.output, "\"turn\""));
  folder.write("controls.toml", "[actions]\njump = []\n[axes.walk]\nless = [\"key ArrowLeft\"]\n");
  CHECK(has(vole_in(folder, "check").output,
            "./controls.toml:2:1: warning: nothing is bound to the action \"jump\""));
}

TEST_CASE("a fact that is the name of a part of a mind is set by that") {
  TempFolder folder;
  write_tidy_game(folder);
  append(
      folder, "assets/mouse.sheet.toml",
      "[[rules]]\nclip = \"idle\"\nwhen = [\"hunting\"]\n[[rules]]\nclip = \"run\"\nwhen = [\"sleepy\"]\n");
  append(folder, "kinds.toml",
         "[cat]\nbody = {}\ntop_mover = {}\nmind = [{ does = \"chase\", name = \"hunting\", of = \"mouse\" "
         "}]\n");
  const Ran ran = vole_in(folder, "check");
  CAPTURE(ran.output);
  CHECK_FALSE(has(ran.output, "nothing sets the fact \"hunting\""));
  CHECK(has(ran.output, "nothing sets the fact \"sleepy\""));
}

TEST_CASE("what check tells of the files, the level and the code goes together") {
  TempFolder folder;
  write_small_game(folder);
  REQUIRE(vole_in(folder, "check").output.find("error") == std::string::npos);
  const auto with = [&](const std::string& file, const std::string& what, const std::string& by) {
    return checked_with(folder, file, what, by);
  };
  const std::string level = "levels/patch.level.toml", layer = "[[layers]]\nname = \"things\"\n";
  for (const auto& [what, by, text] : std::vector<std::array<std::string, 3>>{
           {layer, layer + "[[scattered]]\nkind = \"mose\"\ncount = 900\n",
            "no kind \"mose\"; did you mean \"mouse\"?\n"},
           {layer, layer + "[[zones]]\nname = \"wide\"\narea = [0, 0, 20000, 8]\n",
            "zone \"wide\" is 20000 x 8 pixels large; it may be up to 16384 x 8192"},
           {"kind = \"mouse\"", "kind = mouse", "a text is written in quotes: \"mouse\""},
           {"kind = \"mouse\"", "kind = nobody", "a text is written in quotes: \"nobody\""}}) {
    CAPTURE(by);
    CHECK_THAT(with(level, what, by), Catch::Contains(text));
  }
  for (const auto& [what, by, text] : std::vector<std::array<std::string, 3>>{
           {"player = {}", "player = { number = 2 }", "player 2 has no controls: controls.toml has 1 player"},
           {"player = {}", "player = { dash = \"rush\" }", "no action \"rush\" in controls.toml"},
           {"side_mover = {}", "side_mover = { climb = 40 }",
            "the mover's \"climb\" needs the axis \"walk_down\", which controls.toml does not have"},
           {"side_mover = {}", "side_mover = { dash = 40 }", "needs the action \"dash\""},
           {"[crumb]", "[kite]\nalong_path = { path = \"loop\" }\n[crumb]",
            "no path \"loop\" in level \"patch\""},
           {"[crumb]", "[kite]\nsprite = { sheet = \"mouse\", clip = \"run\", layer = \"air\" }\n[crumb]",
            "no layer \"air\" in level \"patch\""},
           {"[crumb]", "[kite]\nalong_path = { spede = 1 }\n[crumb]",
            "unknown key \"spede\"; did you mean \"speed\"?"}}) {
    CAPTURE(by);
    const std::string output = with("kinds.toml", what, by);
    CHECK_THAT(output, Catch::Contains(text));
    CHECK(output.find("either \"points\" or a \"path\"") == std::string::npos);
  }
  // The code of the game speaks of its components; what it does not say is none of them.
  const std::string kinds = vole::read_text(folder.path("kinds.toml"), 1 << 20);
  const auto with_bell = [&] {
    folder.write("kinds.toml", kinds + "[kite]\nbell = { speed = 1 }\n");
    const std::string output = vole_in(folder, "check").output;
    folder.write("kinds.toml", kinds);
    return output;
  };
  CHECK_THAT(with_bell(), Catch::Contains("no component \"bell\"; did you mean \"belt\"?"));
  folder.write("src/main.cpp", "void f() { game.knows<Bell>(\"bell\"); }\n");
  CHECK_THAT(with_bell(), Catch::Contains("not judged, since only the game knows these components: bell"));
  folder.write("src/main.cpp", "void f() { game.knows<Gate>(\"gate\"); }\n");
  CHECK_THAT(with_bell(), Catch::Contains("no component \"bell\"; did you mean \"belt\"?"));
  folder.write("src/main.cpp", "");
  // Categories of a project with another mistake are known all the same.
  folder.write("kinds.toml", vole::read_text(folder.path("kinds.toml"), 1 << 20) +
                                 "[kite]\nbody = { size = [4, 4], category = \"kites\" }\n");
  const std::string project = vole::read_text(folder.path("game.toml"), 1 << 20);
  folder.write("game.toml", project + "tittle = 1\n[categories]\nkites = {}\n");
  CHECK(vole_in(folder, "check").output.find("category") == std::string::npos);
  folder.write("game.toml", project + "[categories]\nkites = {}\n");
  // What is no file where a file is looked for.
  vole::write_whole(folder.path("levels/two.level.toml/file"), std::string_view("x"));
  CHECK_THAT(vole_in(folder, "check").output, Catch::Contains("two.level.toml: error: is not a file"));
}

TEST_CASE(
    "what a new game can reach is the same at any rate of ticks, and much of it is judged in little time") {
  TempFolder folder;
  REQUIRE(vole_in(folder, "new wall").code == 0);
  const std::string project = vole::read_text(folder.path("wall/game.toml"), 1 << 20);
  for (const char* rate : {"30", "240"}) {
    CAPTURE(rate);
    folder.write("wall/game.toml",
                 std::string(project).replace(project.find("ticks_per_second = 60") + 19, 2, rate));
    CHECK_THAT(vole_in(folder, "check wall").output, Catch::Contains("nothing wrong"));
  }
}

TEST_CASE("a build is told what the names are made from: files and folders") {
  TempFolder folder;
  write_small_game(folder);
  REQUIRE(vole_in(folder, "atlas . --header out/names.hpp --depfile out/stamp.d").code == 0);
  const std::string text = vole::read_text(folder.path("out/stamp.d"), 1 << 20);
  CHECK(text.starts_with(folder.path("out/stamp") + ":"));
  for (const char* file : {"kinds.toml", "assets", "assets/mouse.png", "levels", "levels/patch.level.toml"})
    CHECK_THAT(text, Catch::Contains(" " + folder.path(file)));
  CHECK(text.find("names.hpp") == std::string::npos);
  folder.write("mine.d", "mine");
  CHECK(vole_in(folder, "atlas . --header out/names.hpp --depfile mine.d").code == 1);
  CHECK(vole_in(folder, "atlas . --header out/names.hpp --depfile kinds.toml").code == 2);
}

TEST_CASE("sequences are checked, and played without the game that hears what they tell") {
  TempFolder folder;
  write_tidy_game(folder);
  const std::string kinds = vole::read_text(folder.path("kinds.toml"), 1 << 20);
  const auto ran_with = [&](const std::string& step) {
    folder.write("kinds.toml", kinds + "\n[crumb.sequences.rot]\nstarts = true\nsteps = [" + step + "]\n");
    return vole_in(folder, "check");
  };
  const Ran tidy = ran_with("{ does = \"tell\", told = \"rotten\" }, { does = \"wait\", seconds = 0.05 }");
  CAPTURE(tidy.output);
  CHECK(tidy.code == 0);
  const Ran ran = ran_with("{ does = \"go\", to = \"bin\", speed = 10 }");
  CHECK(ran.code == 1);
  CHECK(has(ran.output, "no place \"bin\""));
  CHECK(has(ran_with("{ does = \"go\", at = [1, 1] }").output, "say a speed"));
  CHECK(has(ran_with("{ does = \"repeat\", sequences = [\"rot\"] }").output, "does itself again"));
}

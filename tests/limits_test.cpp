// No input eats the machine: every loader has limits, stated in its schema and checked before the work, and what is
// wrong is reported once for each cause.
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <functional>
#include <map>

#include "support.hpp"
#include "test_stage.hpp"
#include "vole/app/groups.hpp"
#include "vole/app/project.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/packing.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/schema.hpp"
#include "vole/input/recording.hpp"
#include "vole/level/level.hpp"
#include "vole/world/compiled_kinds.hpp"

namespace {

using vole::FilePosition;
using vole::Report;
using vole::TomlValue;

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

std::string message_of(const std::function<void()>& work) {
  try {
    work();
  } catch (const vole::Error& error) {
    return error.what();
  }
  return {};
}

std::string parsed(const std::string& text) {
  return message_of([&] { vole::parse_toml(text, "f.toml"); });
}

std::string repeated(const std::string& text, int times) {
  std::string all;
  for (int i = 0; i < times; ++i) all += text;
  return all;
}

// A list or table of a schema, with a text that has too many items in it.
struct TooMany {
  std::string document;
  int most = 0;
};

// Goes through a schema and gathers every list and table that has a limit. `before` and `after`: what stands around a
// value at this place in a document.
void gather(const TomlValue& schema, const std::string& before, const std::string& after,
            std::vector<TooMany>& found) {
  if (const TomlValue* const choices = schema.find("anyOf"))
    for (const TomlValue& choice : choices->items) gather(choice, before, after, found);
  if (const TomlValue* const most = schema.find("maxItems"); most && !schema.find("minItems")) {
    const int count = static_cast<int>(most->whole);
    found.push_back({before + "[" + repeated("0,", count + 1) + "]" + after, count});
    gather(*schema.find("items"), before + "[", "]" + after, found);
  }
  if (const TomlValue* const most = schema.find("maxProperties")) {
    const int count = static_cast<int>(most->whole);
    std::string keys;
    for (int i = 0; i <= count; ++i) keys += "k" + std::to_string(i) + "=0,";
    found.push_back({before + "{" + keys.substr(0, keys.size() - 1) + "}" + after, count});
    gather(*schema.find("additionalProperties"), before + "{k=", "}" + after, found);
  }
  if (const TomlValue* const properties = schema.find("properties"))
    for (const TomlValue::Entry& entry : properties->entries)
      gather(entry.value, before + "{" + entry.key + "=", "}" + after, found);
}

// A whole document is a table without braces.
std::vector<TooMany> too_many_of(const TomlValue& schema) {
  std::vector<TooMany> found;
  if (const TomlValue* const properties = schema.find("properties"))
    for (const TomlValue::Entry& entry : properties->entries)
      gather(entry.value, entry.key + "=", "\n", found);
  return found;
}

template <class T>
std::string loaded(const TempFolder& folder, const std::string& name) {
  return error_of([&] { vole::Catalog(folder.path()).get<T>(name); }, folder);
}

void flip(vole::Bytes& bytes, std::size_t bit) {
  bytes[bit / 8] = static_cast<std::uint8_t>(bytes[bit / 8] ^ (1u << bit % 8));
}

std::uint32_t crc(const vole::Bytes& bytes, std::size_t from, std::size_t count) {
  std::uint32_t value = ~0u;
  for (std::size_t i = from; i < from + count; ++i) {
    value ^= bytes[i];
    for (int bit = 0; bit < 8; ++bit) value = (value >> 1) ^ ((value & 1) != 0 ? 0xedb88320u : 0u);
  }
  return ~value;
}

void put_big_endian(vole::Bytes& bytes, std::size_t at, std::uint32_t value) {
  for (std::size_t i = 0; i < 4; ++i) bytes[at + i] = static_cast<std::uint8_t>(value >> (24 - 8 * i));
}

}  // namespace

TEST_CASE("each list and table of each file has a limit, and one item more is one message") {
  TempFolder folder;
  write_small_game(folder);
  const std::string file = folder.path("f.toml");
  struct Loader {
    const char* name;
    TomlValue schema;
    std::string file;
    std::function<std::string()> load;
  };
  const auto load_file = [&](const auto& work) { return [&folder, work] { return error_of(work, folder); }; };
  const std::vector<Loader> loaders{
      {"sheet", vole::AssetType<vole::Sheet>::schema(), "assets/many.sheet.toml",
       [&] { return loaded<vole::Sheet>(folder, "many"); }},
      {"atlas", vole::AssetType<vole::Atlas>::schema(), "assets/many.atlas.toml",
       [&] { return loaded<vole::Atlas>(folder, "many"); }},
      {"font", vole::AssetType<vole::Font>::schema(), "assets/many.font.toml",
       [&] { return loaded<vole::Font>(folder, "many"); }},
      {"tileset", vole::AssetType<vole::Tileset>::schema(), "assets/many.tileset.toml",
       [&] { return loaded<vole::Tileset>(folder, "many"); }},
      {"level", vole::AssetType<vole::Level>::schema(), "levels/many.level.toml",
       [&] { return loaded<vole::Level>(folder, "many"); }},
      {"controls", vole::controls_schema(), "f.toml", load_file([&] { vole::read_controls(file); })},
      {"project", vole::schema_of<vole::Project>(), "f.toml", load_file([&] { vole::read_project(file); })},
      {"recording", vole::recording_schema(), "f.toml", load_file([&] { vole::read_recording(file); })}};
  for (const Loader& loader : loaders) {
    const std::vector<TooMany> all = too_many_of(loader.schema);
    CHECK((all.size() > 0 || loader.name == std::string("font")));
    for (const TooMany& text : all) {
      CAPTURE(loader.name, text.most, text.document.substr(0, 80));
      folder.write(loader.file, text.document);
      const std::string message = loader.load();
      // A document with more values than any file may have is refused before its lists are counted.
      const bool counted =
          has(message, std::to_string(text.most + 1) + " items are too many here; the most is " +
                           std::to_string(text.most));
      CHECK((counted || (text.most >= 500'000 && has(message, "more than 500000 values in one file"))));
      CHECK(std::count(message.begin(), message.end(), '\n') < 12);
    }
    vole::write_whole(folder.path(loader.file), std::string("# empty\n"));
  }
}

TEST_CASE("a file is nested so deep and holds so many values as the parser can take, and no more") {
  const auto lists = [](int deep) { return parsed("a = " + repeated("[", deep) + repeated("]", deep)); };
  CHECK(lists(32).empty());
  CHECK(lists(33) == "f.toml:1:37: error: more than 32 lists and tables within each other");
  CHECK(has(lists(100'000), "1:37: error: more than 32"));
  const auto tables = [](int deep) {
    return parsed("a = " + repeated("{ b = ", deep) + "1" + repeated("}", deep));
  };
  CHECK(tables(32).empty());
  CHECK(has(tables(33), "more than 32 lists and tables within each other"));
  const auto key = [](int parts) { return "a" + repeated(".a", parts - 1); };
  for (const auto& [start, end] : std::vector<std::pair<std::string, std::string>>{
           {"", " = 1"}, {"[", "]"}, {"[[", "]]"}, {"b = { ", " = 1 }"}, {"[ ", " ]"}}) {
    CAPTURE(start);
    CHECK(parsed(start + key(32) + end).empty());
    CHECK(has(parsed(start + key(33) + end), "f.toml:1:"));
    CHECK(has(parsed(start + key(33) + end), "a key of more than 32 parts"));
    CHECK(has(parsed("\n\n" + start + key(50'000) + end), "f.toml:3:"));
  }
  // The deepest that both limits allow is read, written and compared without harm.
  const std::string deepest = repeated("{" + key(32) + "=", 31) + "1" + repeated("}", 31);
  CHECK(parsed("[" + key(32) + "]\n" + key(32) + "=" + deepest).empty());
  // What stands in texts and comments counts nothing.
  const std::string brackets = repeated("[", 100);
  for (const std::string& quiet :
       {"# " + brackets, "a = \"" + brackets + "\\\"" + brackets + "\"", "a = '" + brackets + "\\'",
        "a = \"\"\"\n" + brackets + "\"\n\\\"\"\"" + brackets + "\"\"\"",
        "a = '''" + brackets + "'\n'" + brackets + "'''", "\"" + repeated(".", 100) + "\" = 1",
        "a = \"\"\nb = ''\n# " + brackets}) {
    CAPTURE(quiet);
    CHECK(parsed(quiet).empty());
  }
  CHECK(parsed("a = [" + repeated("1,", 499'999) + "]").empty());
  CHECK(has(parsed("a = [" + repeated("1,", 500'000) + "]"), "more than 500000 values in one file"));
}

TEST_CASE("what is no TOML is said in plain words, with the place") {
  for (const auto& [text, message] : std::vector<std::pair<std::string, std::string>>{
           {"a = [1, 2", "the file ends inside a list; its \"]\" is missing"},
           {"a = { b = 1", "the file ends inside an inline table; its \"}\" is missing"},
           {"a = \"open\nb = 1", "the line ends inside a text; its closing quote is missing"},
           {"a = [1 2]", "1:8: error: a comma or \"]\" expected here, not \"2\""},
           {"a = { b = 1 c = 2 }", "a comma or \"}\" expected here, not \"c\""},
           {"a = 1\na = 2", "f.toml:2:5: error: \"a\" is defined twice"},
           {"[a]\n[a]", "\"a\" is defined twice"},
           {"a 1", "\"=\" expected here, not \"1\""},
           {"a =\n", "a value expected here, not the end of the line"},
           {"a = 1 b = 2", "the end of the line expected here, not \"b\""},
           {"a = 012", "a number does not begin with 0"},
           {"[a", "a table's name; its \"]\" is missing"}}) {
    CAPTURE(text);
    CHECK_THAT(parsed(text), Catch::Contains(message));
    CHECK_THAT(parsed(text), Catch::StartsWith("f.toml:"));
    CHECK_FALSE(has(parsed(text), "rror while parsing"));
  }
}

TEST_CASE("a report holds each cause once, with how often and where, and a hundred for a file") {
  vole::Random chance(4);
  for (int round = 0; round < 50; ++round) {
    const std::array files{FilePosition::whole_file("a.toml"), FilePosition::whole_file("b.toml")};
    Report report;
    std::map<std::string, int> written;
    for (std::uint32_t i = chance.below(400); i > 0; --i) {
      FilePosition where = files[chance.below(2)];
      where.line = static_cast<int>(i);
      where.column = 1;
      const std::string text = "cause " + std::to_string(chance.below(round % 2 == 0 ? 20 : 300));
      ++written[*where.file + text];
      report.warn(where, text);
    }
    std::map<std::string, int> listed;
    for (const vole::Problem& problem : report.problems()) {
      if (has(problem.text, "only the first 100")) continue;
      ++listed[*problem.where.file];
      REQUIRE(problem.times == written[*problem.where.file + problem.text]);
      REQUIRE(static_cast<std::int64_t>(problem.also.size()) == std::min<std::int64_t>(problem.times - 1, 3));
      written.erase(*problem.where.file + problem.text);
    }
    for (const auto& [file, count] : listed) REQUIRE(count <= 100);
    if (!written.empty()) REQUIRE(std::max(listed["a.toml"], listed["b.toml"]) == 100);
  }
  Report report;
  FilePosition where = FilePosition::whole_file("a.toml");
  for (const int line : {3, 5, 3, 9}) {
    where.line = line;
    where.column = 2;
    report.error(where, "no such thing", "a hint");
  }
  CHECK(to_text(report.problems().at(0)) ==
        "a.toml:3:2: error: no such thing; a hint (3 times, also at 5:2 and 9:2)");
  int reached = 0;
  const std::string all = message_of([&] {
    for (; reached < 1'000'000; ++reached) report.error(where, "cause " + std::to_string(reached));
  });
  CHECK(reached == 99);  // with the one above, a hundred
  CHECK(std::count(all.begin(), all.end(), '\n') == 100);
  CHECK(has(all, "a.toml: error: only the first 100 problems of this file are listed"));
  // Other files still have room, and errors have it beside any number of warnings.
  Report warned;
  for (int i = 0; i < 500; ++i) warned.warn(where, std::to_string(i).append(" is odd"));
  CHECK(warned.problems().size() == 101);
  CHECK_NOTHROW(warned.error(where, "an error all the same"));
  CHECK(warned.has_errors());
  CHECK_NOTHROW(report.error(FilePosition::whole_file("b.toml"), "cause"));
}

TEST_CASE("a message is one line that a terminal can show, whatever the file holds") {
  const vole::Error error(FilePosition::whole_file("a\nb.toml"), "no \"\x1b[2J\t\"",
                          std::string(1 << 20, 'x'));
  const std::string text = error.what();
  CHECK(text.starts_with("a\\x0ab.toml: error: no \"\\x1b[2J\\x09\"; xxx"));
  CHECK(text.size() < 500);
  std::string wide;
  while (wide.size() < 1000) wide += "\u20ac";
  const std::string cut = vole::Error({}, "x" + wide).what();
  std::string_view rest = cut;
  while (!rest.empty()) REQUIRE(vole::next_letter(rest) != U'\uFFFD');
}

TEST_CASE("a letter that is in no table is one problem, however many cells have it") {
  TempFolder folder;
  write_small_game(folder);
  const std::string head =
      "tileset = \"soil\"\n[letters]\na = \"grass\"\n[[layers]]\nname = \"ground\"\nrows = [\n";
  folder.write("levels/l.level.toml", head + repeated("\"aXaX\u00e9\",\n", 300) + "]\n");
  const std::string message = loaded<vole::Level>(folder, "l");
  CHECK(
      has(message, "l.level.toml:7:3: error: no letter \"X\" in [letters]; did you mean \"a\"? (600 times)"));
  CHECK(has(message, "l.level.toml:7:6: error: no letter \"\u00e9\" in [letters]"));
  CHECK(std::count(message.begin(), message.end(), '\n') == 1);
}

TEST_CASE("rows of tiles without a tileset, and frames without pixels, are refused") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("levels/l.level.toml",
               "[letters]\n\".\" = \"\"\n[[layers]]\nname = \"ground\"\nrows = [\"..\"]\n");
  CHECK(loaded<vole::Level>(folder, "l") ==
        "levels/l.level.toml:4:8: error: layer \"ground\" has rows, but the level no tileset; name one with "
        "tileset = "
        "\"...\"");
  const auto frame = [&](const std::string& keys) {
    folder.write("assets/f.sheet.toml", "picture = \"mouse\"\n[frames]\na = { " + keys + " }\n");
    return loaded<vole::Sheet>(folder, "f");
  };
  CHECK(has(frame("area = [0, 0, 0, 8]"), "f.sheet.toml:3:1: error: frame \"a\" has no pixels"));
  CHECK(has(frame("area = [0, 0, 8, 0]"), "has no pixels"));
  CHECK(frame("area = [0, 0, 0, 0], size = [8, 8]").empty());
  CHECK(frame("area = [0, 0, 1, 1]").empty());
  CHECK(has(frame("area = [0, 0, 8, 8], size = [0, 8]"), "0 is too small; the least is 1"));
  CHECK(has(frame("area = [0, 0, 8, 8], size = [16385, 8]"), "16385 is too large; the most is 16384"));
  CHECK(frame("area = [0, 0, 8, 8], offset = [2, 3], size = [10, 11]").empty());
  CHECK(has(frame("area = [0, 0, 8, 8], offset = [3, 3], size = [10, 11]"),
            "frame \"a\" is larger than its \"size\""));
  CHECK(has(frame("area = [0, 0, 8, 8], offset = [2, 4], size = [10, 11]"),
            "frame \"a\" is larger than its \"size\""));
}

TEST_CASE("groups need one another up to a hundred deep, and each is looked up once") {
  TempFolder folder;
  write_small_game(folder);
  const auto needed = [&](int count) {
    vole::AssetGroups groups;
    for (int i = 0; i < count; ++i) {
      groups.groups.push_back({"g" + std::to_string(i), {}, {}});
      if (i + 1 < count) groups.groups.back().value.needs.push_back({"g" + std::to_string(i + 1), {}});
      groups.groups.back().value.sheets.push_back({"m*", {}});
    }
    groups.scenes.push_back({"s", {}, {{"g0", {}}}});
    vole::Catalog catalog(folder.path());
    return vole::wanted_by_scene(groups, "s", catalog).size();
  };
  CHECK(needed(100) == 1);
  CHECK_THROWS_WITH(needed(101),
                    Catch::Contains("group \"g100\" is needed by one that is needed, and so on, more than"));
}

TEST_CASE("a level brings at most 262,144 things to life, with what they carry") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("assets/p.sheet.toml",
               "picture = \"mouse\"\n[points]\na = { at = [0, 0] }\nb = { at = [0, 0] }\n");
  std::string kinds;
  for (int i = 0; i < 8; ++i)
    kinds += fmt::format("[k{}]\nsprite = {{ sheet = \"p\" }}\n{}", i,
                         i == 7 ? "" : fmt::format("carries = {{ a = \"k{0}\", b = \"k{0}\" }}\n", i + 1));
  folder.write("kinds.toml", kinds);
  const auto load = [&](int places) {
    std::string text = "tileset = \"soil\"\ncells = [4, 4]\n[[layers]]\nname = \"things\"\n";
    for (int i = 0; i < places; ++i) text += "[[places]]\nkind = \"k0\"\nat = [8, 8]\n";
    folder.write("levels/many.level.toml", text);
    TestStage test;
    vole::Stage& stage = test.start(folder);
    return error_of([&] { stage.load_level("many"); }, folder);
  };
  // Each of them is 255.
  CHECK(load(100).empty());
  CHECK_THAT(load(1029),
             Catch::Contains("many.level.toml:3090:8: error: with this the level has more than 262144"));
}

TEST_CASE("a kind brings at most 256 things to life, in at most eight levels") {
  TempFolder folder;
  write_small_game(folder);
  folder.write(
      "assets/p.sheet.toml",
      "picture = \"mouse\"\n[points]\na = { at = [0, 0] }\nb = { at = [0, 0] }\nc = { at = [0, 0] }\n");
  const auto compiled = [&](int levels, int each) {
    std::string text;
    for (int i = 0; i < levels; ++i) {
      text += "[k" + std::to_string(i) + "]\nsprite = { sheet = \"p\" }\n";
      if (i + 1 == levels) continue;
      text += "[k" + std::to_string(i) + ".carries]\n";
      for (int point = 0; point < each; ++point)
        text += std::string(1, static_cast<char>('a' + point)) + " = \"k" + std::to_string(i + 1) + "\"\n";
    }
    folder.write("kinds.toml", text);
    vole::Catalog catalog(folder.path());
    const vole::Kinds kinds = vole::read_kinds(folder.path());
    const vole::ComponentTypes types;
    const std::vector<const vole::Track*> no_tracks;
    vole::CompiledKinds all(kinds, {catalog, types, no_tracks, vole::UnknownComponents::report});
    return all.get("k0")->things;
  };
  for (int levels = 1; levels <= 8; ++levels) {
    CHECK(compiled(levels, 1) == levels);
    CHECK(compiled(levels, 2) == (1 << levels) - 1);
  }
  CHECK(compiled(5, 3) == 121);
  CHECK_THROWS_WITH(compiled(6, 3),
                    Catch::Contains("kinds.toml:") && Catch::Contains("kind \"k0\" brings more") &&
                        Catch::Contains("at most 256, of which each carries the next at most 7"));
  CHECK_THROWS_WITH(compiled(9, 1),
                    Catch::Contains("and so on, more than 7 times") && Catch::Contains("kinds.toml:"));
  // Each thing that is too deep is reported, not the first alone.
  try {
    compiled(9, 2);
  } catch (const vole::Error& error) {
    CHECK(error.problems().size() == 1);
    CHECK(error.problems()[0].times == 2);
  }
  CHECK_THROWS_WITH(compiled(9, 2), Catch::Contains("kinds.toml:"));
  CHECK_THROWS_WITH(compiled(40, 2), Catch::Contains("kinds.toml:"));
}

TEST_CASE("a folder with more files than any game has is not walked to its end") {
  TempFolder folder;
  for (int part = 0; part < 101; ++part) {
    // Links cost less than files.
    std::string one = "d";
    one.append(std::to_string(part)).append("/");
    folder.write(one + "0", "");
    for (int i = 1; i < 1000; ++i)
      std::filesystem::create_hard_link(folder.path(one + "0"), folder.path(one) + std::to_string(i));
  }
  CHECK_THROWS_WITH(vole::list_files(folder.path()), Catch::Contains("holds more than 100000 files"));
}

TEST_CASE("a PNG with any bit flipped is refused") {
  vole::Image image({7, 5});
  vole::Random chance(1);
  for (int y = 0; y < 5; ++y)
    for (int x = 0; x < 7; ++x)
      image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)), static_cast<std::uint8_t>(x * y), 9,
                        static_cast<std::uint8_t>(chance.below(256))};
  const vole::Bytes whole = vole::encode_png(image);
  REQUIRE(vole::decode_png(whole, {}) == image);
  for (std::size_t bit = 0; bit < whole.size() * 8; ++bit) {
    vole::Bytes flipped = whole;
    flip(flipped, bit);
    CAPTURE(bit / 8, bit % 8);
    REQUIRE_THROWS_AS(vole::decode_png(flipped, {}), vole::Error);
  }
}

TEST_CASE("a PNG that unpacks to far more than its size is refused before that") {
  // Four million pixels, said to be one.
  vole::Bytes bytes = vole::encode_png(vole::Image({2000, 2000}));
  put_big_endian(bytes, 16, 1);
  put_big_endian(bytes, 20, 1);
  put_big_endian(bytes, 29, crc(bytes, 12, 17));
  CHECK(message_of([&] { vole::decode_png(bytes, FilePosition::whole_file("b.png")); }) ==
        "b.png: error: holds more data than its size has pixels for");
}

TEST_CASE("a PNG of 16 bits a channel is read to the nearest of 8") {
  // Every value of 16 bits once, as grey; the parts are put together by hand.
  vole::Bytes pixels;
  for (int y = 0; y < 256; ++y) {
    pixels.push_back(0);  // a row as it is
    for (int x = 0; x < 256; ++x) {
      pixels.push_back(static_cast<unsigned char>(y));
      pixels.push_back(static_cast<unsigned char>(x));
    }
  }
  // Deflate (RFC 1951) with stored blocks of one row each, in the frame of RFC 1950.
  vole::Bytes packed{0x78, 0x01};
  std::uint32_t a = 1, b = 0;
  for (std::size_t at = 0; at < pixels.size(); at += 513) {
    const bool last = at + 513 == pixels.size();
    for (const int byte : {last ? 1 : 0, 513 & 255, 513 >> 8, ~513 & 255, (~513 >> 8) & 255})
      packed.push_back(static_cast<unsigned char>(byte));
    for (std::size_t i = at; i < at + 513; ++i) {
      packed.push_back(pixels[i]);
      a = (a + pixels[i]) % 65521;
      b = (b + a) % 65521;
    }
  }
  packed.resize(packed.size() + 4);
  put_big_endian(packed, packed.size() - 4, b << 16 | a);
  vole::Bytes file{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
  const auto part = [&file](std::string_view name, const vole::Bytes& content) {
    const std::size_t at = file.size();
    file.resize(at + 4);
    put_big_endian(file, at, static_cast<std::uint32_t>(content.size()));
    file.insert(file.end(), name.begin(), name.end());
    file.insert(file.end(), content.begin(), content.end());
    file.resize(file.size() + 4);
    put_big_endian(file, file.size() - 4, crc(file, at + 4, content.size() + 4));
  };
  part("IHDR", {0, 0, 1, 0, 0, 0, 1, 0, 16, 0, 0, 0, 0});
  part("IDAT", packed);
  part("IEND", {});
  const vole::Image image = vole::decode_png(file, FilePosition::whole_file("deep.png"));
  REQUIRE(image.size() == vole::IVec2{256, 256});
  for (int value = 0; value < 65536; ++value) {
    const auto near = static_cast<std::uint8_t>((value + 128) / 257);
    REQUIRE(image.at(value % 256, value / 256) == vole::Colour{near, near, near, 255});
  }
}

TEST_CASE("what a sheet may hold in all is counted while it is read") {
  TempFolder folder;
  folder.write_picture("assets/p.png", {1024, 1024});
  const auto sheet = [&](const std::string& text) {
    folder.write("assets/s.sheet.toml", text);
    return loaded<vole::Sheet>(folder, "s");
  };
  std::string frames = "picture = \"p\"\n[frames]\n";
  for (int i = 0; i < 244; ++i)
    frames.append("f").append(std::to_string(i)).append(" = { area = [0, 0, 1024, 1024] }\n");
  CHECK(sheet(frames).empty());
  CHECK(sheet(frames + "one = { area = [0, 0, 1024, 1024] }\n") ==
        "assets/s.sheet.toml:247:1: error: up to frame \"one\" the frames have more than 256 million pixels "
        "in all");
  std::string long_clips = "picture = \"p\"\nframe = { size = [32, 32] }\n";
  for (int i = 0; i < 1000; ++i)
    long_clips.append("clips.c").append(std::to_string(i)).append(" = { range = [0, 999] }\n");
  CHECK(sheet(long_clips).empty());
  CHECK(has(sheet(long_clips + "clips.one = { frames = [0] }\n"),
            "up to clip \"one\" the sheet's clips show 1000001 frames; the most is 1000000"));
  std::string clips = "picture = \"p\"\nframe = { size = [512, 512] }\n";
  for (int i = 0; i < 10'000; ++i)
    clips.append("clips.c").append(std::to_string(i)).append(" = { frames = [0] }\n");
  CHECK(sheet(clips).empty());
  CHECK(has(sheet(clips + "sets.s = { rows = { a = 0 } }\n"),
            "with the rows of set \"s\" the sheet has more than 10000 clips"));
}

TEST_CASE("rectangles go onto 1024 pages and no more") {
  const auto pages = [](std::size_t count) {
    return vole::pack(std::vector<vole::IVec2>(count, {16, 16}), {16, 16}).pages.size();
  };
  CHECK(pages(1024) == 1024);
  CHECK_THROWS_WITH(pages(1025), Catch::Contains("1025 rectangles need more than 1024 pages of 16 x 16"));
  // Where the area would do and the shapes do not.
  CHECK_THROWS_WITH(vole::pack(std::vector<vole::IVec2>(1025, {9, 9}), {16, 16}),
                    Catch::Contains("need more than 1024 pages"));
}

TEST_CASE("ten thousand kinds are read, from one file or many, and no more") {
  TempFolder folder;
  const auto kinds = [](int from, int end) {
    std::string text;
    for (int i = from; i < end; ++i) text.append("k").append(std::to_string(i)).append(" = {}\n");
    return text;
  };
  const auto read = [&] { return message_of([&] { vole::read_kinds(folder.path()); }); };
  folder.write("kinds.toml", kinds(0, 9999));
  folder.write("kinds/more.toml", kinds(9999, 10'000));
  CHECK(read().empty());
  folder.write("kinds/more.toml", kinds(9999, 10'001));
  CHECK(has(read(), "kinds/more.toml:2:1: error: more than 10000 kinds in all files"));
}

#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>

#include "support.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/described_type.hpp"
#include "vole/base/names.hpp"
#include "vole/base/number.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/state.hpp"
#include "vole/base/trig.hpp"
#include "vole/base/within.hpp"
#include "vole/base/writing.hpp"

namespace {

enum class Weather { fair, frost };
constexpr auto enum_names(Weather) {
  return std::array<std::string_view, 2>{"fair", "frost"};
}

struct Inner {
  int count = 0;
  bool ripe = false;
};
template <class V>
void describe(V& v, Inner& inner) {
  v("count", inner.count, vole::within(-5, 5));
  v("ripe", inner.ripe);
}

struct Everything {
  int whole = 0;
  float number = 0;
  double exact = 0;
  std::string text;
  vole::Vec2 spot{0, 0};
  vole::IVec2 cell{0, 0};
  vole::Colour colour;
  Weather weather = Weather::fair;
  std::vector<int> list;
  Inner inner;
  vole::Named<Inner> named;
};
// What changes while a game runs, of every type that a state may have.
struct Running {
  bool on = false;
  std::uint8_t small = 0;
  std::uint64_t wide = 0;
  long whole = 0;
  float number = 0;
  double exact = 0;
  std::string text;
  int turns = 0;
  vole::Vec2 pair{0, 0};
  vole::Vec4 four{0, 0, 0, 0};
  vole::Rect box;
  vole::IRect cells;
  vole::Entity entity;
  vole::Random chance;
  Weather weather = Weather::fair;
  std::optional<vole::Vec2> maybe;
  std::vector<std::string> list;
  std::array<Inner, 3> three;
  vole::Located<std::string> located;
  vole::Named<int> rest;
};
template <class V>
void describe(V& v, Running& r) {
  v("on", r.on);
  v("small", r.small, vole::within(0, 3));
  v.state("wide", r.wide);
  v.state("whole", r.whole);
  v.state("turns", r.turns, vole::within(0, 9));
  v.state("number", r.number);
  v.state("exact", r.exact);
  v.state("text", r.text);
  v.state("pair", r.pair);
  v.state("four", r.four);
  v.state("box", r.box);
  v.state("cells", r.cells);
  v.state("entity", r.entity);
  v.state("chance", r.chance);
  v.state("weather", r.weather);
  v.state("maybe", r.maybe);
  v.state("list", r.list);
  v.state("three", r.three);
  v.state("located", r.located);
  v.rest(r.rest);
}

// Any bits at all: what a game has made of a field need not be what a file may say.
Running random_running(vole::Random& chance) {
  const auto number = [&chance] {
    const float odd[] = {0.0f, -0.0f, 1e-42f, 3e38f, -1.0f / 3, INFINITY, -INFINITY};
    return chance.chance(0.3f) ? odd[chance.below(7)] : chance.within(-1e4f, 1e4f);
  };
  const auto whole = [&chance] { return static_cast<int>(chance.next()); };
  Running r;
  r.on = chance.chance(0.5f);
  r.small = static_cast<std::uint8_t>(chance.below(256));
  r.wide = chance.next_wide();
  r.whole = whole();
  r.number = number();
  r.exact = static_cast<double>(number()) / 7;
  for (std::uint32_t i = chance.below(12); i > 0; --i) r.text += static_cast<char>(chance.below(126) + 1);
  r.pair = {number(), number()};
  r.four = {number(), number(), number(), number()};
  r.box = {{number(), number()}, {number(), number()}};
  r.cells = {{whole(), whole()}, {whole(), whole()}};
  r.entity = {chance.next(), chance.next() | 1};
  r.turns = static_cast<int>(chance.below(10));
  r.chance = vole::Random(chance.next());
  r.weather = chance.chance(0.5f) ? Weather::frost : Weather::fair;
  if (chance.chance(0.5f)) r.maybe = vole::Vec2{number(), number()};
  for (std::uint32_t i = chance.below(9); i > 0; --i) r.list.push_back(std::to_string(whole()));
  for (Inner& inner : r.three) inner = {whole(), chance.chance(0.5f)};
  r.located.value = std::to_string(whole());
  for (std::uint32_t i = chance.below(4); i > 0; --i)
    r.rest.push_back({"key " + std::to_string(i), {}, whole()});
  return r;
}

vole::StateBytes bytes_of(const Running& running) {
  vole::StateWriter out;
  write_state(out, running);
  return out.take();
}

// A state written field by field, as its format says: what the library's tables must come to.
class PlainState {
 public:
  vole::StateWriter out;

  template <class T>
  void operator()(std::string_view, T& field, const vole::FieldRule& = {}) {
    put(field);
  }
  template <class T>
  void state(std::string_view, T& field, const vole::FieldRule& = {}) {
    put(field);
  }
  void rest(vole::Named<int>& fields) {
    out.add_count(fields.size());
    for (auto& item : fields) {
      put(item.name);
      put(item.value);
    }
  }

 private:
  template <class T>
  requires(std::is_arithmetic_v<T> || std::is_enum_v<T>) void put(const T& value) {
    out.add(&value, sizeof value);
  }
  void put(const std::string& text) {
    out.add_count(text.size());
    out.add(text.data(), text.size());
  }
  void put(const vole::Vec2& pair) { put(pair.x), put(pair.y); }
  void put(const vole::IVec2& pair) { put(pair.x), put(pair.y); }
  void put(const vole::Vec4& four) { put(four.x), put(four.y), put(four.z), put(four.w); }
  void put(const vole::Rect& box) { put(box.at), put(box.size); }
  void put(const vole::IRect& box) { put(box.at), put(box.size); }
  void put(const vole::Entity& entity) { put(entity.index), put(entity.generation); }
  void put(const vole::Random& chance) { put(chance.state()); }
  void put(const Inner& inner) { put(inner.count), put(inner.ripe); }
  void put(const std::optional<vole::Vec2>& maybe) {
    put(maybe.has_value());
    if (maybe) put(*maybe);
  }
  void put(const std::vector<std::string>& list) {
    out.add_count(list.size());
    for (const std::string& text : list) put(text);
  }
  void put(const std::array<Inner, 3>& three) {
    for (const Inner& inner : three) put(inner);
  }
  void put(const vole::Located<std::string>& located) { put(located.value); }
};

// Describes what is no member of it.
struct Astray {
  int own = 0;
  static inline int other = 0;
};
template <class V>
void describe(V& v, Astray& astray) {
  v("own", astray.own);
  v("other", astray.other);
}

// What stands in files alone.
struct Raw {
  vole::TomlValue toml;
};
template <class V>
void describe(V& v, Raw& raw) {
  v("node", raw.toml);
}

// A number cannot be a place.
struct Misplaced {
  float at = 0;
};
template <class V>
void describe(V& v, Misplaced& misplaced) {
  v.state("at", misplaced.at, vole::position());
}

template <class V>
void describe(V& v, Everything& e) {
  v("whole", e.whole);
  v("number", e.number);
  v("exact", e.exact);
  v("text", e.text);
  v("spot", e.spot);
  v("cell", e.cell);
  v("colour", e.colour);
  v("weather", e.weather);
  v("list", e.list);
  v("inner", e.inner);
  v("named", e.named);
}

Everything random_everything(vole::Random& chance) {
  const auto whole = [&chance] { return static_cast<int>(chance.next()); };
  Everything e;
  e.whole = whole();
  e.number = chance.within(-1e6f, 1e6f);
  e.exact = static_cast<double>(chance.within(-1, 1)) / 3.0;
  for (std::uint32_t i = chance.below(12); i > 0; --i) e.text += static_cast<char>(chance.below(126) + 1);
  e.spot = {chance.within(-9, 9), chance.within(-1e-6f, 1e-6f)};
  e.cell = {whole(), whole()};
  e.colour = {static_cast<std::uint8_t>(chance.below(256)), 1, 2,
              static_cast<std::uint8_t>(chance.below(256))};
  e.weather = chance.chance(0.5f) ? Weather::frost : Weather::fair;
  for (std::uint32_t i = chance.below(9); i > 0; --i) e.list.push_back(whole());
  e.inner = {static_cast<int>(chance.below(11)) - 5, chance.chance(0.5f)};
  for (std::uint32_t i = chance.below(4); i > 0; --i)
    e.named.push_back({"item " + std::to_string(i), {}, {static_cast<int>(i), true}});
  return e;
}

std::uint64_t hash_of(const Everything& e) {
  vole::Hash hash;
  vole::add_to(hash, e);
  return hash.value();
}

std::string problems_in(std::string_view toml) {
  vole::Report report;
  Everything e;
  vole::read(vole::parse_toml(toml, "f.toml"), e, report);
  std::string all;
  for (const auto& problem : report.problems()) all += to_text(problem) + "\n";
  return all;
}

}  // namespace

TEST_CASE("a state is read back bit for bit, from bytes and from TOML") {
  vole::Random chance(6);
  for (int i = 0; i < 500; ++i) {
    const Running before = random_running(chance);
    const vole::StateBytes bytes = bytes_of(before);
    Running by_bytes = random_running(chance), by_text;
    vole::StateReader in(bytes);
    read_state(in, by_bytes);
    CHECK(in.at_end());
    REQUIRE(bytes_of(by_bytes) == bytes);
    const std::string toml = vole::to_toml(before);
    CAPTURE(toml);
    vole::Report report;
    read(vole::parse_toml(toml, "state"), by_text, report, vole::TableOf::state);
    REQUIRE(report.problems().empty());
    REQUIRE(bytes_of(by_text) == bytes);
    // Cut off anywhere, it is refused.
    const auto length = chance.below(static_cast<std::uint32_t>(bytes.size()));
    vole::StateReader cut(std::span<const unsigned char>(bytes).first(length));
    REQUIRE_THROWS_AS(read_state(cut, by_bytes), vole::Error);
  }
  // In a file none of it is known, and limits hold.
  const auto in_file = [](const std::string& text) {
    vole::Report report;
    Running running;
    read(vole::parse_toml(text, "f"), running, report);
    return report.problems().empty() ? std::string() : report.problems()[0].text;
  };
  CHECK(in_file("on = true\nother = 3").empty());
  CHECK(in_file("small = 4") == "4 is too large; the most is 3");
  CHECK(in_file("list = []").find("a whole number wanted here") == 0);
}

TEST_CASE("a state has the bytes of its fields, one after the other, however they lie in memory") {
  vole::Random chance(11);
  for (int i = 0; i < 500; ++i) {
    Running running = random_running(chance);
    PlainState plain;
    describe(plain, running);
    REQUIRE(bytes_of(running) == plain.out.take());
  }
}

TEST_CASE("a byte that is neither true nor false, and a word that an enum has not, are refused") {
  const Running usual;
  const vole::StateBytes bytes = bytes_of(usual);
  const auto refused_with = [&bytes](std::size_t at, unsigned char value) {
    vole::StateBytes changed = bytes;
    changed.at(at) = value;
    Running running;
    vole::StateReader in(changed);
    CHECK_THROWS_WITH(read_state(in, running), Catch::Contains("the state is broken"));
  };
  refused_with(0, 2);                                       // `on` comes first
  const std::size_t after_weather = 1 + 4 + 3 * 5 + 4 + 4;  // maybe, list, three, located, rest
  refused_with(bytes.size() - after_weather - 4, 2);
}

TEST_CASE("what cannot be described is reported where the type is first used") {
  vole::StateWriter out;
  CHECK_THROWS_WITH(write_state(out, Astray{}), Catch::Contains("\"other\" of Astray is no member of it"));
  CHECK_THROWS_WITH(vole::described_type<Raw>().expect_state(), Catch::Contains("\"node\" of Raw"));
  CHECK_THROWS_WITH(write_state(out, Misplaced{}), Catch::Contains("position() is for"));
}

TEST_CASE("a state beyond what a program can make of it is refused, as bytes and as TOML") {
  const auto refused = [](const Running& broken, std::string_view message) {
    const vole::StateBytes bytes = bytes_of(broken);
    vole::StateReader in(bytes);
    Running read_here;
    CHECK_THROWS_AS(read_state(in, read_here), vole::Error);
    vole::Report report;
    read(vole::parse_toml(vole::to_toml(broken), "state"), read_here, report, vole::TableOf::state);
    REQUIRE(report.problems().size() == 1);
    CHECK(report.problems()[0].text == message);
  };
  Running broken;
  broken.turns = 10;
  refused(broken, "10 is too large; the most is 9");
  broken.turns = -1;
  refused(broken, "-1 is too small; the least is 0");
  broken.turns = 9;
  broken.entity = {3, 2};
  refused(broken, "no thing has an even generation");
  broken.entity = {3, 0};
  refused(broken, "no thing has an even generation");
}

TEST_CASE("a wide draw is two draws, the first the upper half") {
  vole::Random one(5), two(5);
  for (int i = 0; i < 100; ++i) {
    const std::uint64_t upper = two.next(), lower = two.next();
    REQUIRE(one.next_wide() == (upper << 32 | lower));
  }
}

TEST_CASE("what is described once is written, read back and hashed alike") {
  vole::Random chance(1);
  for (int i = 0; i < 500; ++i) {
    const Everything before = random_everything(chance);
    const std::string toml = vole::to_toml(before);
    CAPTURE(toml);
    vole::Report report;
    Everything after;
    vole::read(vole::parse_toml(toml, "f.toml"), after, report);
    REQUIRE(report.problems().empty());
    REQUIRE(hash_of(after) == hash_of(before));
    REQUIRE(vole::to_toml(after) == toml);
    Everything changed = after;
    changed.inner.ripe = !changed.inner.ripe;
    REQUIRE(hash_of(changed) != hash_of(before));
  }
}

TEST_CASE("what is wrong in a file is reported at its place with what was meant") {
  CHECK(problems_in("whole = 3\nnunber = 4\n") ==
        "f.toml:2:1: error: unknown key \"nunber\"; did you mean \"number\"?\n");
  CHECK(problems_in("whole = \"3\"") ==
        "f.toml:1:9: error: a whole number wanted here, not the text \"3\"\n");
  CHECK(problems_in("whole = 3000000000") ==
        "f.toml:1:9: error: 3000000000 is too large; the most is 2147483647\n");
  CHECK(problems_in("number = nan") == "f.toml:1:10: error: a finite number wanted here, not nan\n");
  CHECK(problems_in("exact = -inf") == "f.toml:1:9: error: a finite number wanted here, not -inf\n");
  CHECK(problems_in("spot = [1, 2, 3]") ==
        "f.toml:1:8: error: a pair like [16, 16] wanted here, not a list of 3\n");
  CHECK(problems_in("colour = \"red\"") ==
        "f.toml:1:10: error: a colour like \"#24352a\" or \"#24352a80\" wanted here, not the text \"red\"\n");
  CHECK(problems_in("weather = \"forst\"") ==
        "f.toml:1:11: error: unknown word \"forst\"; did you mean \"frost\"?\n");
  CHECK(problems_in("inner = { count = 9 }\nlist = [1, true]") ==
        "f.toml:2:12: error: a whole number wanted here, not true\nf.toml:1:19: error: 9 is too large; the "
        "most is 5\n");
  CHECK(problems_in("named = 1979-05-27") ==
        "f.toml:1:9: error: a table wanted here, not the date 1979-05-27\n");
  try {
    vole::parse_toml("a = 1\nb = [1,\n", "broken.toml");
    FAIL("nothing was thrown");
  } catch (const vole::Error& error) {
    CHECK(std::string(error.what()).find("broken.toml:") == 0);
    CHECK(std::string(error.what()).find("the file ends inside a list") != std::string::npos);
  }
}

TEST_CASE("letters beyond ASCII stand in quotes and remarks, and nowhere else in TOML") {
  const auto text_of = [](std::string_view toml) { return vole::parse_toml(toml, "f.toml").find("a")->text; };
  CHECK(text_of("# caf\u00e9\na = \"\u00e9 \\\" \u20ac\"") == "\u00e9 \" \u20ac");
  CHECK(text_of("a = \"\"\"one \\\n   \u00e9\"\"\"") == "one \u00e9");
  CHECK(text_of("a = '\u00e9\\'") == "\u00e9\\");
  for (const char* wrong : {"b = 1\na = \u00e9", "b = 1\n\u00e9 = 1", "b = 1\na = \"\"\"x\"\"\"\" \u00e9"}) {
    CAPTURE(wrong);
    CHECK_THROWS_WITH(vole::parse_toml(wrong, "f.toml"), Catch::StartsWith("f.toml:2:"));
  }
}

TEST_CASE("the nearest name is found for a slip of each sort") {
  const std::vector<std::string> names{"idle", "run", "jump", "fall", "land"};
  for (const auto& [wrong, meant] : std::vector<std::pair<std::string, std::string>>{
           {"rnu", "run"}, {"jmp", "jump"}, {"jummp", "jump"}, {"Fall", "fall"}, {"idel", "idle"}})
    CHECK(vole::nearest_name(wrong, names) == meant);
  CHECK(vole::nearest_name("somersault", names).empty());
  CHECK(vole::nearest_name(std::string(100000, 'x'), names).empty());
  CHECK(vole::did_you_mean("somersault", names) == "known: \"idle\", \"run\", \"jump\", \"fall\", \"land\"");
}

TEST_CASE("chance is the same everywhere, even, and within its bounds") {
  vole::Random chance(42);
  CHECK(chance.next() == 0xc2f57bd6u);  // fixed for good: recordings depend on it
  std::array<int, 6> counts{};
  for (int i = 0; i < 60000; ++i) ++counts[chance.below(6)];
  for (const int count : counts) CHECK(std::abs(count - 10000) < 500);
  for (int i = 0; i < 10000; ++i) {
    const float value = chance.within(-2.5f, 0.5f);
    REQUIRE(value >= -2.5f);
    REQUIRE(value < 0.5f);
  }
}

TEST_CASE("sine and cosine are near the truth and exact at the quarters") {
  for (int i = -720 * 8; i <= 720 * 8; ++i) {
    const float degrees = static_cast<float>(i) / 8;
    const double truth = std::sin(static_cast<double>(degrees) * 3.14159265358979323846 / 180);
    REQUIRE(std::abs(static_cast<double>(vole::sin_degrees(degrees)) - truth) < 1e-6);
    REQUIRE(vole::cos_degrees(degrees) == vole::sin_degrees(degrees + 90));
  }
  for (int quarter = -8; quarter <= 8; ++quarter) {
    const float exact[] = {0, 1, 0, -1};
    CHECK(vole::sin_degrees(static_cast<float>(quarter * 90)) == exact[((quarter % 4) + 4) % 4]);
  }
  CHECK(vole::sin_degrees(std::numeric_limits<float>::infinity()) == 0);
}

TEST_CASE("files are read whole or refused with a reason") {
  TempFolder folder;
  folder.write("kinds.toml", "[a]\n");
  const auto reading = [&](const std::string& name, std::size_t most = 1000) {
    return error_of([&] { vole::read_text(folder.path(name), most); }, folder);
  };
  CHECK(reading("kinds.toml").empty());
  CHECK(reading("kind.toml") == "kind.toml: error: no such file; did you mean \"kinds.toml\"?");
  CHECK(reading("kinds.toml", 3) ==
        "kinds.toml: error: is 4 bytes long; the most for a file of this type is 3");
  folder.write("sub/b.txt", "");
  CHECK(reading("sub") == "sub: error: is not a file");
  folder.write("sub/.hidden", "");
  folder.write("a.txt", "");
  std::filesystem::create_directory_symlink(folder.path(), folder.path("sub/ring"));
  CHECK(vole::list_files(folder.path()) == std::vector<std::string>{"a.txt", "kinds.toml", "sub/b.txt"});
  CHECK(error_of([&] { vole::list_files(folder.path("nowhere")); }, folder)
            .find("nowhere: error: folder cannot be read") == 0);
}

TEST_CASE("keys stand bare where TOML lets them, and a date stays a date") {
  const std::string text =
      "AZaz09_- = 1\n\"a.b\" = [true, 2.5]\n\"\" = { on = 1979-05-27 }\n\"@[`{/:\" = \"x\"\n";
  CHECK(to_toml(vole::parse_toml(text, "f")) ==
        "{ AZaz09_- = 1, \"a.b\" = [true, 2.5], \"\" = { on = 1979-05-27 }, \"@[`{/:\" = \"x\" }");
  CHECK(to_toml(vole::parse_toml("", "f")) == "{}");
}

namespace {

struct Boxed {
  vole::Rect box;
  std::array<int, 2> two{};
};
template <class V>
void describe(V& v, Boxed& boxed) {
  v("box", boxed.box, vole::within(-100, 100));
  v("two", boxed.two);
}

// What a table of JSON and one of ours say alike, whatever wrote them.
bool alike(const nlohmann::json& json, const vole::TomlValue& toml) {
  using Type = vole::TomlValue::Type;
  switch (toml.type) {
    case Type::table:
      return json.is_object() && json.size() == toml.entries.size() &&
             std::all_of(toml.entries.begin(), toml.entries.end(), [&](const vole::TomlValue::Entry& entry) {
               return json.contains(entry.key) && alike(json[entry.key], entry.value);
             });
    case Type::array:
      for (std::size_t i = 0; i < toml.items.size(); ++i)
        if (!json.is_array() || json.size() != toml.items.size() || !alike(json[i], toml.items[i]))
          return false;
      return json.is_array() && json.size() == toml.items.size();
    case Type::text:
    case Type::date:
      return json == toml.text;
    case Type::whole:
      return json == toml.whole;
    case Type::number:
      return json == toml.number;
    case Type::yes_no:
      return json == toml.yes;
  }
  return false;
}

}  // namespace

TEST_CASE("a box is four numbers within their limits, and a list of fixed length has that length") {
  const auto wrong = [](const std::string& text) {
    vole::Report report;
    Boxed boxed;
    vole::read(vole::parse_toml(text, "f"), boxed, report);
    return report.problems().empty() ? std::string() : to_text(report.problems().front());
  };
  Boxed boxed;
  vole::Report report;
  vole::read(vole::parse_toml("box = [1, 2.5, -100, 100]\ntwo = [3, 4]", "f"), boxed, report);
  CHECK(report.problems().empty());
  CHECK(boxed.box == vole::Rect{{1, 2.5f}, {-100, 100}});
  CHECK(boxed.two == std::array{3, 4});
  CHECK(wrong("box = [1, 2, 3]") ==
        "f:1:7: error: a box like [left, top, width, height] wanted here, not a list of 3");
  CHECK(wrong("box = 7") ==
        "f:1:7: error: a box like [left, top, width, height] wanted here, not the number 7");
  CHECK(wrong("box = [1, 2, 3, 101]") == "f:1:17: error: 101 is too large; the most is 100");
  CHECK(wrong("box = {}") == "f:1:7: error: a box like [left, top, width, height] wanted here, not a table");
  CHECK(wrong("two = [1]") == "f:1:7: error: 2 items wanted here, not 1");
}

TEST_CASE("JSON that is written says what the table says") {
  const vole::TomlValue toml = vole::parse_toml(
      "a = {}\nb = []\nc = [1, [2.5, { \"d\\\"\\n\" = true }], false]\ne = \"\\t\\u0001ü\"\nf = "
      "1979-05-27\ng = -3\n",
      "f");
  CHECK(alike(nlohmann::json::parse(to_json(toml)), toml));
  const vole::TomlValue schema = vole::file_schema("boxes", vole::schema_of<Boxed>());
  const auto json = nlohmann::json::parse(to_json(schema));
  CHECK(alike(json, schema));
  CHECK(json["title"] == "boxes");
  CHECK(json["properties"]["two"]["maxItems"] == 2);
  CHECK(to_json(vole::parse_toml("a = { b = [1, 2] }\nc = 1", "f")) ==
        "{\n  \"a\": {\n    \"b\": [1, 2]\n  },\n  \"c\": 1\n}\n");
}

TEST_CASE("a number is read whole or not at all") {
  for (const auto& [text, value] : std::vector<std::pair<const char*, float>>{
           {"0", 0.0f}, {"-2.5", -2.5f}, {"1e3", 1000.0f}, {".5", 0.5f}, {"7.", 7.0f}, {"25E-2", 0.25f}}) {
    CAPTURE(text);
    CHECK(vole::parse_float(text) == value);
  }
  for (const char* text :
       {"", "+1", "1.5.2", "1-2", "1e", "e1", "-", "1e99", "nan", "inf", "1 ", " 1", "0x1", "1,5"}) {
    CAPTURE(text);
    CHECK_FALSE(vole::parse_float(text));
  }
}

TEST_CASE("a schema states the narrower of what the field and its type can hold") {
  const auto limits = [](const vole::TomlValue& schema) {
    const auto limit = [&](const char* key) {
      const vole::TomlValue* const found = schema.find(key);
      return found ? std::optional(found->number) : std::nullopt;
    };
    return std::pair(limit("minimum"), limit("maximum"));
  };
  using Limits = std::pair<std::optional<double>, std::optional<double>>;
  CHECK(limits(vole::schema_of<std::uint8_t>()) == Limits{0, 255});
  CHECK(limits(vole::schema_of<std::uint8_t>(vole::within(-5, 300))) == Limits{0, 255});
  CHECK(limits(vole::schema_of<std::uint8_t>(vole::within(5, 30))) == Limits{5, 30});
  CHECK(limits(vole::schema_of<float>()) == Limits{});
  CHECK(limits(vole::schema_of<float>(vole::within(-0.5, 2.25))) == Limits{-0.5, 2.25});
  CHECK(limits(vole::schema_of<std::int64_t>()) == Limits{});
}

TEST_CASE("a float becomes a whole number that an int holds, whatever it is") {
  constexpr float endless = std::numeric_limits<float>::infinity(), most = 536870912;
  vole::Random chance(7);
  for (int i = 0; i < 20'000; ++i) {
    const float value = std::ldexp(chance.within(-1, 1), static_cast<int>(chance.below(120)) - 20);
    CAPTURE(value);
    const float kept = std::clamp(value, -most, most);
    CHECK(static_cast<double>(vole::floor_to_int(value)) == std::floor(static_cast<double>(kept)));
    CHECK(static_cast<double>(vole::ceil_to_int(value)) == std::ceil(static_cast<double>(kept)));
  }
  CHECK(vole::floor_to_int({-endless, endless}) == vole::IVec2{-536870912, 536870912});
  CHECK(vole::ceil_to_int(std::nanf("")) == 0);
  CHECK(vole::floor_to_int(std::nanf("")) == 0);
}

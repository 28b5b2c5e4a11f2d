// Kinds that are made from others.
#include "vole/level/kinds.hpp"

#include <fmt/core.h>

#include <map>

#include "support.hpp"

namespace {

std::string kind_of(const TempFolder& folder, const std::string& name) {
  return to_toml(vole::read_kinds(folder.path()).kind(name));
}

std::string wrong(const std::string& kinds) {
  TempFolder folder;
  folder.write("kinds.toml", kinds);
  return error_of([&] { vole::read_kinds(folder.path()); }, folder);
}

}  // namespace

TEST_CASE("a kind made from another says only what is different, in whatever order they are written") {
  TempFolder folder;
  folder.write("kinds.toml", R"([onion]
from = "bulb"
sprite = { clip = "onion" }
tags = ["sharp"]
without = ["body"]

[leek]
from = "onion"
sprite = { clip = "leek", depth = 3 }
)");
  folder.write("kinds/bulbs.toml", R"([bulb]
sprite = { sheet = "bulb", clip = "glint" }
tags = ["food", "round"]
body = { size = [8, 9] }
)");
  CHECK(
      kind_of(folder, "bulb") ==
      R"({ sprite = { sheet = "bulb", clip = "glint" }, tags = ["food", "round"], body = { size = [8, 9] } })");
  CHECK(kind_of(folder, "onion") == R"({ sprite = { sheet = "bulb", clip = "onion" }, tags = ["sharp"] })");
  CHECK(kind_of(folder, "leek") ==
        R"({ sprite = { sheet = "bulb", clip = "leek", depth = 3 }, tags = ["sharp"] })");
  // Each value knows where it was written.
  const vole::Kinds kinds = vole::read_kinds(folder.path());
  const vole::TomlValue* const sprite = kinds.kind("leek").find("sprite");
  CHECK(sprite->find("sheet")->where.file->ends_with("bulbs.toml"));
  CHECK(sprite->find("clip")->where.line == 9);
}

TEST_CASE("random families of kinds come out as putting one over the other says") {
  vole::Random chance(71);
  for (int round = 0; round < cases(100); ++round) {
    const int count = 2 + below(chance, 20);
    std::vector<int> base(static_cast<std::size_t>(count), -1);
    std::vector<std::map<std::string, int>> own(base.size());
    std::vector<std::string> texts;
    for (int i = 0; i < count; ++i) {
      const auto at = static_cast<std::size_t>(i);
      if (i > 0 && chance.chance(0.8f)) base[at] = below(chance, i);
      std::string text = fmt::format("[k{}]\n", i);
      if (base[at] >= 0) text += fmt::format("from = \"k{}\"\n", base[at]);
      for (int field = 0; field < 4; ++field)
        if (chance.chance(0.4f)) {
          const std::string name = fmt::format("a.f{}", field);
          own[at][name] = below(chance, 100);
          text += fmt::format("{} = {}\n", name, own[at][name]);
        }
      texts.push_back(text);
    }
    for (std::size_t i = texts.size(); i > 1; --i)
      std::swap(texts[i - 1], texts[static_cast<std::size_t>(below(chance, static_cast<int>(i)))]);
    TempFolder folder;
    std::string all;
    for (const std::string& text : texts) all += text;
    folder.write("kinds.toml", all);
    const vole::Kinds kinds = vole::read_kinds(folder.path());
    for (std::size_t i = 0; i < own.size(); ++i) {
      std::map<std::string, int> expected;
      for (int at = static_cast<int>(i); at >= 0; at = base[static_cast<std::size_t>(at)])
        for (const auto& [name, value] : own[static_cast<std::size_t>(at)]) expected.try_emplace(name, value);
      const vole::TomlValue* const component = kinds.kind(fmt::format("k{}", i)).find("a");
      CAPTURE(round, i, all);
      REQUIRE((component ? component->entries.size() : 0) == expected.size());
      for (const auto& [name, value] : expected) REQUIRE(component->find(name.substr(2))->whole == value);
    }
  }
}

TEST_CASE("what is wrong with a kind that is made from another is reported with its place") {
  CHECK(wrong("[a]\nfrom = \"b\"\n[b]\nfrom = \"c\"\n[c]\nfrom = \"a\"\n") ==
        "kinds.toml:6:8: error: kind \"c\" is made from itself; take one \"from\" out of the ring");
  CHECK(wrong("[a]\nfrom = \"a\"\n") ==
        "kinds.toml:2:8: error: kind \"a\" is made from itself; take one \"from\" out of the ring");
  CHECK(wrong("[walker]\n[a]\nfrom = \"wlaker\"\n") ==
        "kinds.toml:3:8: error: no kind \"wlaker\"; did you mean \"walker\"?");
  CHECK(wrong("[a]\nbody = {}\n[b]\nfrom = \"a\"\nwithout = [\"boby\"]\n") ==
        "kinds.toml:5:12: error: there is no \"boby\" to leave out; did you mean \"body\"?");
  CHECK_THAT(wrong("[a]\nwithout = [\"body\"]\n"), Catch::Contains("it has no \"from\""));
  CHECK(wrong("[a]\nfrom = 3\n") == "kinds.toml:2:8: error: a text in quotes wanted here, not the number 3");
  // Too long a row, and too much of it: told, without the memory that it would take.
  std::string row = "[k0]\n";
  for (int i = 1; i < 5000; ++i) row += fmt::format("[k{}]\nfrom = \"k{}\"\n", i, i - 1);
  CHECK_THAT(wrong(row), Catch::Contains("at most 32 in a row"));
  std::string wide = "[k0]\na.list = [";
  for (int i = 0; i < 60'000; ++i) wide += "1,";
  wide += "]\n";
  for (int i = 1; i < 3000; ++i) wide += fmt::format("[k{}]\nfrom = \"k0\"\n", i);
  CHECK_THAT(wrong(wide), Catch::Contains("2 million values in all"));
}

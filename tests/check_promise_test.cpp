// What `vole check` calls right, the game plays: the examples' files are changed at random, and whatever check finds no error in must
// come to life and run. VOLE_CHANGES says how many changes are tried (30 when it is not set).
#include <fmt/core.h>

#include <cctype>
#include <cstdlib>
#include <nlohmann/json.hpp>

#include "allotment.hpp"
#include "checker.hpp"
#include "milkround.hpp"
#include "support.hpp"
#include "towpath.hpp"
#include "vole/app/live_files.hpp"
#include "vole/app/schemas.hpp"
#include "vole/app/simulation.hpp"
#include "vole/base/random.hpp"

namespace {

namespace fs = std::filesystem;
using nlohmann::json;

struct Token {
  std::size_t at = 0, length = 0;
  char sort = 0;  // '"': a text, '0': a number or a word, 'k': a key
};

bool is_part_of_word(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '_' || c == '.' || c == '-' || c == '+';
}

// The texts, numbers, words and keys of a TOML file, comments left out.
std::vector<Token> tokens_of(const std::string& text) {
  std::vector<Token> tokens;
  for (std::size_t i = 0; i < text.size();) {
    if (text[i] == '#') {
      while (i < text.size() && text[i] != '\n') ++i;
    } else if (text[i] == '"') {
      const std::size_t end = text.find('"', i + 1);
      if (end == std::string::npos) break;
      tokens.push_back({i, end + 1 - i, '"'});
      i = end + 1;
    } else if (is_part_of_word(text[i])) {
      const std::size_t start = i;
      while (i < text.size() && is_part_of_word(text[i])) ++i;
      std::size_t next = i;
      while (next < text.size() && text[next] == ' ') ++next;
      tokens.push_back({start, i - start, next < text.size() && text[next] == '=' ? 'k' : '0'});
    } else {
      ++i;
    }
  }
  return tokens;
}

std::string piece_of(const std::string& text, const Token& token) {
  return text.substr(token.at, token.length);
}

class Changer {
 public:
  // `schema`: of kinds, as the game has written it.
  Changer(const fs::path& source, const std::string& schema, std::uint64_t seed)
      : components_(json::parse(vole::read_text(schema, 1 << 24))["additionalProperties"]["properties"]),
        chance_(seed) {
    for (const std::string& file : vole::list_files(source.string())) {
      if (!file.ends_with(".toml")) continue;
      const std::string text = vole::read_text((source / file).string(), 1 << 24);
      for (const Token& token : tokens_of(text)) pool_[token.sort].push_back(piece_of(text, token));
      files_.emplace_back(file, text);
    }
  }

  // The file that was changed, its new text, and the change in words.
  std::tuple<std::string, std::string, std::string> change() {
    const auto& [file, text] = files_[below(files_.size())];
    const bool has_things = file == "kinds.toml" || file.starts_with("levels/");
    if (has_things && chance_.below(2) == 0) return with_component(file, text);
    const std::vector<Token> tokens = tokens_of(text);
    if (tokens.empty()) return {file, text, "nothing"};
    return with_other(file, text, tokens[below(tokens.size())]);
  }

 private:
  using Change = std::tuple<std::string, std::string, std::string>;

  std::size_t below(std::size_t count) {
    return static_cast<std::size_t>(chance_.below(static_cast<std::uint32_t>(count)));
  }

  // A component more for a kind or a place, with some of the fields that its schema has.
  Change with_component(const std::string& file, std::string text) {
    std::vector<std::size_t> heads;
    for (std::size_t at = text.find("\n["); at != std::string::npos; at = text.find("\n[", at + 1))
      heads.push_back(at);
    if (heads.empty()) return {file, text, "nothing"};
    const std::size_t end = text.find('\n', heads[below(heads.size())] + 1);
    if (end == std::string::npos) return {file, text, "nothing"};
    auto component = components_.begin();
    std::advance(component, static_cast<std::ptrdiff_t>(below(components_.size())));
    const std::string line = component.key() + " = " + value_by(component.value(), 0);
    text.insert(end + 1, line + "\n");
    return {file, text, file + ": added " + line};
  }

  std::string value_by(const json& schema, int depth) {
    if (const auto choices = schema.find("enum"); choices != schema.end())
      return (*choices)[below(choices->size())].dump();
    const std::string type = schema.value("type", "string");
    if (type == "boolean") return chance_.below(2) == 0 ? "true" : "false";
    if (type == "integer" || type == "number") return number_by(schema, type == "integer");
    if (type == "array") {
      const std::size_t count = schema.value("minItems", std::size_t{1});
      std::string list;
      for (std::size_t i = 0; i < std::max<std::size_t>(count, 1); ++i)
        list += (i == 0 ? "" : ", ") + value_by(schema.value("items", json::object()), depth + 1);
      return "[" + list + "]";
    }
    if (type == "object" && depth < 4) return table_by(schema, depth);
    return pool_['"'][below(pool_['"'].size())];
  }
  std::string number_by(const json& schema, bool whole) {
    const double least = schema.value("minimum", -1000.0), most = schema.value("maximum", 1000.0);
    const std::vector<double> numbers{least, most, 0, 1, 8, 64, 300, 16384};
    const double number = std::clamp(numbers[below(numbers.size())], least, most);
    return whole ? fmt::format("{}", static_cast<std::int64_t>(number)) : fmt::format("{:.1f}", number);
  }
  std::string table_by(const json& schema, int depth) {
    std::string fields;
    const auto add = [&](const std::string& key, const json& its) {
      fields += (fields.empty() ? "" : ", ") + key + " = " + value_by(its, depth + 1);
    };
    const json required = schema.value("required", json::array());
    const json properties = schema.value("properties", json::object());
    for (const auto& property : properties.items()) {
      const bool needed = std::find(required.begin(), required.end(), property.key()) != required.end();
      if (needed || chance_.below(4) == 0) add(property.key(), property.value());
    }
    if (const json others = schema.value("additionalProperties", json(false)); others.is_object())
      add("extra", others);
    return "{ " + fields + " }";
  }

  Change with_other(const std::string& file, std::string text, const Token& token) {
    const std::string was = piece_of(text, token), now = other_than(was, token.sort);
    const auto line =
        std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(token.at), '\n') + 1;
    if (chance_.below(12) == 0) {
      // The line with all that is in it.
      const std::size_t start = text.rfind('\n', token.at) + 1, end = text.find('\n', token.at);
      text.erase(start, end == std::string::npos ? end : end + 1 - start);
      return {file, text, fmt::format("{}:{}: the line is gone", file, line)};
    }
    text.replace(token.at, token.length, now);
    return {file, text, fmt::format("{}:{}: {} is {}", file, line, was, now)};
  }
  std::string other_than(const std::string& was, char sort) {
    switch (chance_.below(4)) {
      case 0:
        return pool_[sort][below(pool_[sort].size())];
      case 1:
        if (sort == '"') return chance_.below(2) == 0 ? "\"\"" : "\"nobody\"";
        return sort == 'k' ? was + "x" : std::to_string(static_cast<int>(chance_.below(3)) - 1);
      case 2: {
        if (sort != '0') return pool_[sort][below(pool_[sort].size())];
        const std::vector<std::string> numbers{"100000", "0.5",  "1e9",   "65536", "-300",
                                               "7",      "true", "false", "4096",  "16384"};
        return numbers[below(numbers.size())];
      }
      default:
        return sort == '0' ? was + "0" : pool_[sort][below(pool_[sort].size())];
    }
  }

  json components_;
  vole::Random chance_;
  std::vector<std::pair<std::string, std::string>> files_;
  std::map<char, std::vector<std::string>> pool_;
};

bool has_errors(const std::string& folder) {
  Checker checker(folder);
  checker.check_all(false);
  const std::vector<Finding> all = checker.findings();
  return std::any_of(all.begin(), all.end(), [](const Finding& finding) {
    return finding.problem.severity == vole::Severity::error;
  });
}

// An action or a component that the scene's code asks for without a place in a file.
bool is_asked_by_code(const std::string& wrong) {
  return wrong.starts_with("controls.toml: error: no action ") ||
         wrong.starts_with("controls.toml: error: no axis ") ||
         wrong.find(" has no component ") != std::string::npos ||
         wrong.find("no thing was given") != std::string::npos;
}

// What keeps the game from running, of what its files say; empty: nothing. What its code asks for by name is the code's.
std::string why_it_fails(const vole::Game& game, const std::string& folder, const std::string& scene,
                         std::uint64_t seed) {
  try {
    const vole::Project project = vole::read_project(folder + "/game.toml");
    vole::LiveFiles files(project);
    vole::Simulation simulation(
        game, {files.catalog, files.kinds, files.controls, project.canvas, project.ticks_per_second}, seed);
    vole::Random chance(seed);
    simulation.ask_for(scene);
    vole::TickInput input(*files.controls);
    for (int tick = 0; tick < 300; ++tick) {
      if (simulation.change()) simulation.make_change();
      for (auto& action : input.players[0].actions) {
        const bool was = action.held;
        action.held = chance.below(20) == 0 ? !was : was;
        action.presses = action.held && !was ? 1 : 0;
        action.releases = !action.held && was ? 1 : 0;
      }
      for (auto& axis : input.players[0].axes)
        if (chance.below(30) == 0)
          axis.x = static_cast<std::int8_t>(100 * (static_cast<int>(chance.below(3)) - 1));
      simulation.tick(input);
    }
  } catch (const vole::Error& error) {
    for (const vole::Problem& problem : error.problems())
      if (problem.where.file && !is_asked_by_code(to_text(problem))) return to_text(problem);
  } catch (const std::exception& error) {
    if (!is_asked_by_code(error.what())) return error.what();
  }
  return {};
}

struct Example {
  const char* name;
  vole::Game (*game)();
  const char* scene;
};

}  // namespace

TEST_CASE("what check calls right runs") {
  const char* const wanted = std::getenv("VOLE_CHANGES");
  const char* const from = std::getenv("VOLE_CHANGES_FROM");
  const int changes = wanted ? std::atoi(wanted) : 30;
  int passed = 0;
  for (const Example& example :
       {Example{"allotment", allotment, "garden"}, Example{"milkround", milkround, "round"},
        Example{"towpath", towpath, "run"}}) {
    TempFolder folder;
    const fs::path source = source_folder() + "/examples/" + example.name;
    fs::copy(source, folder.path(), fs::copy_options::recursive);
    const vole::Game game = example.game();
    vole::write_schemas(game.types(), folder.path("schemas"));
    REQUIRE_FALSE(has_errors(folder.path()));
    // The scene that plays, without what comes before it.
    REQUIRE(why_it_fails(game, folder.path(), example.scene, 1).empty());
    Changer changer(source, folder.path("schemas/kinds.schema.json"),
                    from ? std::strtoull(from, nullptr, 10) : 1);
    for (int i = 0; i < changes; ++i) {
      const auto [file, text, words] = changer.change();
      folder.write(file, text);
      if (!has_errors(folder.path())) {
        ++passed;
        const std::string why =
            why_it_fails(game, folder.path(), example.scene, static_cast<std::uint64_t>(i));
        CAPTURE(example.name, words);
        CHECK(why == "");
      }
      folder.write(file, vole::read_text((source / file).string(), 1 << 24));
    }
  }
  CHECK(passed > changes / 6);
}

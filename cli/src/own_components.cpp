#include "own_components.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "vole/base/colour.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/paths.hpp"
#include "vole/level/kinds.hpp"

namespace {

using nlohmann::json;
using vole::Report;
using vole::TomlValue;

// Compares a value with a schema, as far as Vole's own schemas go.
class Comparison {
 public:
  Comparison(const vole::Level* level, Report& report) : level_(level), report_(report) {}

  // What is no schema says nothing.
  void compare(const TomlValue& toml, const json& schema) {
    try {
      compare_with(toml, schema);
    } catch (const json::exception&) {
    }
  }

 private:
  void compare_with(const TomlValue& toml, const json& schema) {
    if (!schema.is_object()) return;
    if (const auto choices = schema.find("enum"); choices != schema.end())
      return compare_choice(toml, *choices);
    const std::string type = schema.value("type", "");
    if (type == "object") return compare_table(toml, schema);
    if (type == "array") return compare_list(toml, schema);
    if (type == "string") return compare_text(toml, schema);
    if (type == "boolean") return void(expect(toml, toml.type == TomlValue::Type::yes_no, "true or false"));
    if (type == "integer" || type == "number") compare_number(toml, schema, type == "integer");
  }

  bool expect(const TomlValue& toml, bool holds, std::string_view wanted) {
    if (!holds) report_.error(toml.where, fmt::format("{} wanted here, not {}", wanted, to_text(toml)));
    return holds;
  }

  void compare_choice(const TomlValue& toml, const json& choices) {
    std::vector<std::string> words;
    for (const json& choice : choices)
      if (choice.is_string()) words.push_back(choice.get<std::string>());
    if (!expect(toml, toml.type == TomlValue::Type::text, "a text in quotes")) return;
    if (std::find(words.begin(), words.end(), toml.text) == words.end())
      report_.error(toml.where, fmt::format("unknown word \"{}\"", toml.text),
                    vole::did_you_mean(toml.text, words));
  }

  void compare_table(const TomlValue& toml, const json& schema) {
    if (!expect(toml, toml.type == TomlValue::Type::table, "a table")) return;
    const json properties = schema.value("properties", json::object());
    const json others = schema.value("additionalProperties", json(true));
    std::vector<std::string> known;
    for (const auto& property : properties.items()) known.push_back(property.key());
    for (const TomlValue::Entry& entry : toml.entries) {
      if (const auto found = properties.find(entry.key); found != properties.end())
        compare(entry.value, *found);
      else if (others.is_object())
        compare(entry.value, others);
      else if (others == json(false))
        report_.error(entry.where, fmt::format("unknown key \"{}\"", entry.key),
                      vole::did_you_mean(entry.key, known));
    }
    for (const json& key : schema.value("required", json::array()))
      if (key.is_string() && !toml.find(key.get<std::string>()))
        report_.error(toml.where, fmt::format("\"{}\" is missing here", key.get<std::string>()));
  }

  void compare_list(const TomlValue& toml, const json& schema) {
    if (!expect(toml, toml.type == TomlValue::Type::array, "a list")) return;
    const auto least = schema.value("minItems", std::size_t{0}),
               most = schema.value("maxItems", toml.items.size());
    if (toml.items.size() < least || toml.items.size() > most)
      report_.error(toml.where, fmt::format("{} items wanted here, not {}",
                                            least == most ? fmt::format("{}", least)
                                                          : fmt::format("{} to {}", least, most),
                                            toml.items.size()));
    const json items = schema.value("items", json::object());
    for (const TomlValue& item : toml.items) compare(item, items);
  }

  // The only pattern of Vole's schemas is that of colours.
  void compare_text(const TomlValue& toml, const json& schema) {
    if (!expect(toml, toml.type == TomlValue::Type::text, "a text in quotes")) return;
    if (level_ && schema.value("format", "") == "place" && !toml.text.empty()) {
      try {
        level_->place(toml.text, toml.where);
      } catch (const vole::Error& error) {
        report_.add(error);
      }
    }
    if (schema.contains("pattern"))
      expect(toml, vole::parse_colour(toml.text).has_value(), "a colour such as \"#7a4a33\"");
  }

  void compare_number(const TomlValue& toml, const json& schema, bool whole) {
    const bool is_number =
        toml.type == TomlValue::Type::whole || (!whole && toml.type == TomlValue::Type::number);
    if (!expect(toml, is_number, whole ? "a whole number" : "a number")) return;
    const double least = schema.value("minimum", -HUGE_VAL), most = schema.value("maximum", HUGE_VAL);
    if (toml.number < least || toml.number > most)
      report_.error(
          toml.where,
          std::isinf(most)
              ? fmt::format("a number of at least {:g} wanted here, not {:g}", least, toml.number)
          : std::isinf(least)
              ? fmt::format("a number of at most {:g} wanted here, not {:g}", most, toml.number)
              : fmt::format("a number from {:g} to {:g} wanted here, not {:g}", least, most, toml.number));
  }

  const vole::Level* level_;
  Report& report_;
};

}  // namespace

struct OwnComponents::Known {
  json schemas = json::object();   // of the game's own, by name
  std::vector<std::string> names;  // of all
};

OwnComponents::OwnComponents(const std::string& root, const vole::ComponentTypes& types)
    : known_(std::make_unique<Known>()) {
  const std::string file = vole::join_path(root, "schemas/kinds.schema.json");
  if (!vole::file_exists(file)) return;
  const json schema = json::parse(vole::read_text(file, std::size_t{16} << 20), nullptr, false);
  const auto wrong = [&file] {
    return vole::Error(vole::FilePosition::whole_file(file), "is no schema of kinds",
                       "let the game write it anew: GAME --schemas schemas");
  };
  if (!schema.is_object() || !schema.value("additionalProperties", json()).is_object()) throw wrong();
  const json components = schema["additionalProperties"].value("properties", json());
  if (!components.is_object()) throw wrong();
  // The schemas may be older than this program: what it knows itself is known all the same.
  known_->names = types.names_in_files();
  for (const auto& component : components.items()) {
    if (types.find(component.key()) || vole::is_in_head(component.key())) continue;
    known_->names.push_back(component.key());
    known_->schemas[component.key()] = component.value();
  }
}

OwnComponents::~OwnComponents() = default;

std::string OwnComponents::hint_for(const std::string& name) const {
  const std::string near = vole::nearest_name(name, known_->names);
  return near.empty() ? "if the game has it, let it write its schemas anew: GAME --schemas schemas"
                      : fmt::format("did you mean \"{}\"?", near);
}

bool OwnComponents::known() const {
  return !known_->schemas.empty();
}

void OwnComponents::check(const TomlValue& components, const vole::Level* level, Report& report) const {
  if (!known()) return;
  for (const TomlValue::Entry& entry : components.entries) {
    if (const auto own = known_->schemas.find(entry.key); own != known_->schemas.end())
      Comparison(level, report).compare(entry.value, *own);
    else if (std::find(known_->names.begin(), known_->names.end(), entry.key) == known_->names.end())
      report.error(entry.where, fmt::format("no component \"{}\"", entry.key), hint_for(entry.key));
  }
}
